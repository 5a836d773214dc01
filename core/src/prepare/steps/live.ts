import { holdersNamed } from '../../plan/opened/openedUnits';
import { liveWords } from '../../plan/words';
import type { CutSheet } from '../cut/cutSheet';
import type { PrepareFinding } from '../words';
import type { Step } from './step';
import { tickOf, tickTargets, type PrepareState } from './tickTargets';

/** Traffic in what is cut: whoever runs the circuits answers for it before a blade comes near. */
export function liveStep(sheet: CutSheet, tape: (length: number) => string): Step | null {
  const found = liveFindings(sheet);
  if (found.length === 0) return null;
  const { ids, count } = circuitsOf(found);
  const instead = found.flatMap(({ holder, cut, window }) =>
    window && window.live < cut.live
      ? `${holdersNamed([holder])} by a window instead: ${window.live === 0 ? 'no live fiber' : `${window.live} live fibers`} cut, ${tape(Math.max(0, window.free))} at the tray for ${window.redos} redos (cut whole: ${cut.live} live, ${tape(Math.max(0, cut.free))} for ${cut.redos}).`
      : [],
  );
  return {
    id: ids,
    title: 'Live fibers in what is cut',
    what: [
      `${liveWords(found.flatMap(({ live }) => live))} in what the order cuts. Ask whoever runs ${count === 1 ? 'the circuit' : 'the circuits'}, and wait until they say that it is down.`,
      ...instead,
    ].join(' '),
    good: 'Their word, with name and time, or a plan that cuts nothing live.',
    mistake: 'Going by the plan alone: circuits were moved since it was drawn.',
    caution: 'Cutting a live fiber is an outage, and its light cannot be seen: never look into an end.',
    check: {
      ask: 'How many of the circuits still carry traffic?',
      expects: 'count',
      field: 'Still carrying',
      answer: '0',
      wrong:
        'Do not cut. Let the cable in by a window, take these fibers out of the order, or have the circuit taken down first.',
    },
  };
}

/** Whether somebody answered for every live fiber in what is cut; also where there is none. */
export function isReleased(sheet: CutSheet, state: PrepareState): boolean {
  const found = liveFindings(sheet);
  if (found.length === 0) return true;
  const body = tickOf(state, tickTargets.step(sheet.cableId, circuitsOf(found).ids))?.body;
  return body?.what === 'step' && body.state === 'done';
}

type LiveFinding = Extract<PrepareFinding, { code: 'live-in-cut' }>['params'];

function liveFindings(sheet: CutSheet): LiveFinding[] {
  return sheet.findings.flatMap((finding) => (finding.code === 'live-in-cut' ? [finding.params] : []));
}

/** The step is another one when the traffic is: an older answer does not count for it. */
function circuitsOf(found: readonly LiveFinding[]): { ids: string; count: number } {
  const live = found.flatMap((one) => one.live);
  const spans = live.map(({ from, to }) => `${from}-${to}`).join('+');
  return { ids: `live-down.${spans}`.slice(0, 180), count: new Set(live.map(({ circuit }) => circuit)).size };
}

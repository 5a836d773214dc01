import type { Fact } from '../facts';
import { passedOverAt, type PassedOver } from '../gear/passedOver';
import type { Limits } from '../limits/limits';
import { lightOf } from '../prepare/steps/connectors';
import { prepareState } from '../prepare/steps/tickTargets';
import type { SealStage } from '../seal/stage';
import { spliceHistory } from '../splice/record/history';
import type { ClosureLedger, SpliceState } from '../splice/record/ledger';
import { formatMean } from '../splice/record/reading';
import type { RollUp } from '../splice/record/rollUp';

/** Where something that stands against acceptance is mended. */
export type ReadyPlace =
  | { readonly at: 'bench'; readonly tray: number; readonly slot: number }
  | { readonly at: 'tray'; readonly tray: number }
  | { readonly at: 'gear'; readonly gearId: string }
  | { readonly at: 'closure' | 'plan' | 'seal' | 'calls' | 'connectors' | 'limits' };

/** One thing that stands against the acceptance of a closure, or that its owner should know of. */
export interface ReadyLine {
  readonly code:
    | 'nothing-planned'
    | 'plan-error'
    | 'unplaced'
    | 'open'
    | 'redo'
    | 'owner'
    | 'mean'
    | 'unplanned'
    | 'connectors'
    | 'seal'
    | 'ticked-only'
    | 'passed-over'
    | 'estimates'
    | 'allowed'
    | 'simulated'
    | 'unread';
  readonly stands: 'against' | 'told';
  readonly words: string;
  readonly place: ReadyPlace;
}

export interface ReadyInput {
  readonly ledger: ClosureLedger;
  readonly facts: readonly Fact[];
  readonly seal: Pick<SealStage, 'sealed' | 'tickedOnly' | 'state'>;
  /** What was passed over at the gear of the closure's project, and elsewhere. */
  readonly book: PassedOver;
  readonly limits: Limits;
  /** Records of a newer Cordel. */
  readonly unread: number;
}

/** The first splice of which a fiber is read and not measured. */
function firstEstimate(states: readonly SpliceState[]): ReadyPlace {
  const found = states.find(({ readings, measured }) =>
    readings.some(({ loss }, index) => loss !== null && (measured[index] ?? null) === null),
  );
  return found ? { at: 'bench', tray: found.splice.tray, slot: found.splice.slot } : { at: 'closure' };
}

/** Which of its means is over. */
function overMean({ mean, measured }: RollUp): string {
  return measured?.over ? `measured mean ${formatMean(measured.mean)}` : `mean ${formatMean(mean!)}`;
}

const counted = (count: number, one: string, several: string) => `${count} ${count === 1 ? one : several}`;

/** Everything that stands between a closure and its acceptance, the worst first; then what the owner should know of. Empty where it is ready and there is nothing to tell. */
export function readyLines({ ledger, facts, seal, book, limits, unread }: ReadyInput): ReadyLine[] {
  const lines: ReadyLine[] = [];
  const add = (
    code: ReadyLine['code'],
    stands: ReadyLine['stands'],
    words: string,
    place: ReadyPlace = { at: 'closure' },
  ) => lines.push({ code, stands, words, place });
  const { plan, rollUp } = ledger;
  const states = ledger.trays.flatMap(({ splices }) => splices);
  const first = (mark: SpliceState['verdict']['mark']): ReadyPlace => {
    const found = states.find(({ verdict }) => verdict.mark === mark);
    return found ? { at: 'bench', tray: found.splice.tray, slot: found.splice.slot } : { at: 'closure' };
  };
  const { marks } = rollUp;

  if (seal.state.pressure)
    add('seal', 'against', 'There is pressure in the closure. Let it out.', { at: 'seal' });
  const errors = plan.findings.filter(({ severity }) => severity === 'error').length;
  if (errors > 0)
    add('plan-error', 'against', `${counted(errors, 'mistake', 'mistakes')} in the plan.`, { at: 'plan' });
  if (plan.unplaced.length > 0)
    add(
      'unplaced',
      'against',
      `${counted(plan.unplaced.length, 'splice has', 'splices have')} no place on a tray.`,
      {
        at: 'plan',
      },
    );
  if (rollUp.count === 0 && plan.ends.length === 0 && plan.unplaced.length === 0)
    add('nothing-planned', 'against', 'Nothing is planned here.', { at: 'plan' });
  if (marks.redo > 0)
    add('redo', 'against', `${counted(marks.redo, 'splice is', 'splices are')} to be redone.`, first('redo'));
  if (marks.open > 0)
    add('open', 'against', `${counted(marks.open, 'splice is', 'splices are')} open.`, first('open'));
  if (marks.owner > 0)
    add('owner', 'against', `${counted(marks.owner, 'splice waits', 'splices wait')} for the owner’s call.`, {
      at: 'calls',
    });
  for (const { tray, rollUp: own } of ledger.trays)
    if (own.meanOver)
      add('mean', 'against', `Tray ${tray}: ${overMean(own)} dB is over ${formatMean(limits.trayMean)} dB.`, {
        at: 'tray',
        tray,
      });
  if (rollUp.meanOver)
    add('mean', 'against', `Closure: ${overMean(rollUp)} dB is over ${formatMean(limits.closureMean)} dB.`);
  if (ledger.unplanned.size > 0)
    add(
      'unplanned',
      'against',
      `The plan was changed after splicing: ${counted(ledger.unplanned.size, 'splice', 'splices')} on record ${ledger.unplanned.size === 1 ? 'is' : 'are'} not in it.`,
    );
  const state = prepareState(facts);
  const dark = plan.ends.filter((end) => lightOf(state, end)?.body.seen !== 'far-end').length;
  if (dark > 0)
    add(
      'connectors',
      'against',
      `${counted(dark, 'connector has', 'connectors have')} no light check that passed.`,
      { at: 'connectors' },
    );
  if (!seal.sealed && !seal.state.pressure)
    add(
      seal.tickedOnly ? 'ticked-only' : 'seal',
      seal.tickedOnly ? 'told' : 'against',
      seal.tickedOnly
        ? 'It was ticked as sealed, with no points and no test on record.'
        : 'It is not sealed: see what stands between here and the seal.',
      { at: 'seal' },
    );

  if (marks.allowed > 0)
    add(
      'allowed',
      'told',
      `${counted(marks.allowed, 'splice', 'splices')} over a limit, allowed by the owner.`,
      first('allowed'),
    );
  const passed: string[] = [];
  let simulated = 0;
  for (const { facts: own } of states) {
    if (own.length === 0) continue;
    const { last } = spliceHistory(own);
    if (!last) continue;
    const [over] = passedOverAt(last.fact, book);
    if (over) passed.push(over.gearId);
    if (last.fact.body.simulated) simulated += 1;
  }
  if (passed.length > 0)
    add(
      'passed-over',
      'told',
      `${counted(passed.length, 'splice was', 'splices were')} made while something due at the gear was passed over.`,
      { at: 'gear', gearId: passed[0]! },
    );
  if (simulated > 0)
    add(
      'simulated',
      'told',
      `${counted(simulated, 'reading is', 'readings are')} simulated: no glass was involved.`,
    );
  const read = ledger.sortedLosses.length;
  const { measured } = rollUp;
  if (read > 0) {
    const left = read - (measured?.fibers ?? 0);
    if (!limits.measured)
      add(
        'estimates',
        'told',
        measured
          ? `${counted(measured.fibers, 'fiber was', 'fibers were')} measured, mean ${formatMean(measured.mean)} dB; the losses that count are estimates of the splicing machine.`
          : 'All losses are estimates of the splicing machine.',
      );
    else if (left > 0)
      add(
        'estimates',
        'against',
        `The owner wants measured losses: ${left} of ${counted(read, 'fiber is', 'fibers are')} not measured.`,
        firstEstimate(states),
      );
  }
  if (unread > 0)
    add(
      'unread',
      'told',
      `${counted(unread, 'record was', 'records were')} written by a newer Cordel and not counted.`,
    );
  return lines;
}

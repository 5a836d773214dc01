import { limitsPresets } from '@cordel/core';
import { cleanNights, Judge, redoOdds, workedNight, type Told } from '@cordel/core/judge';
import { at, report, timed } from './figures';

const splices = 7000;
const { limits } = limitsPresets[0]!;
const day = 24 * 3600_000;

/** Nights of single fibers and of ribbons, one a day, until there are so many splices. */
function job(): Told[] {
  const told: Told[] = [];
  let made = 0;
  for (let night = 0; made < splices; night += 1) {
    const scenario = cleanNights[night % 2 === 0 ? 1 : 3]!;
    for (const one of workedNight(scenario.plan(night + 1)).told) {
      if ('event' in one) told.push({ event: { ...one.event, at: one.event.at + night * day } });
      else {
        const { tried } = one;
        if (tried.nth === 1) made += 1;
        told.push({ tried: { ...tried, splice: `${night} ${tried.splice}`, at: tried.at + night * day } });
      }
    }
  }
  return told;
}

/** All rules over 7 000 splices, one more reading, and the odds. */
export function benchJudge(): void {
  const told = job();
  const tries = told.flatMap((one) => ('tried' in one ? [one.tried] : []));
  const judged = () => {
    const judge = new Judge({ limits });
    for (const one of told) judge.tell(one);
    judge.lastNights();
    return judge;
  };
  const all = at(0.5, timed(9, judged));
  // What this machine takes to read the same losses once and sort them.
  const plain = at(
    0.5,
    timed(9, () => Float64Array.from(tries.flatMap(({ losses }) => losses.map((loss) => loss ?? 0))).sort()),
  );
  report(
    `All rules over ${splices} splices (${tries.length} tries)`,
    `${all.toFixed(0)} ms (${(all / plain).toFixed(1)} × sorting their losses)`,
    'under 100 ms',
  );
  const judge = judged();
  const last = tries.at(-1)!;
  let more = 0;
  const one = timed(200, () => {
    more += 1;
    judge.tell({ tried: { ...last, attempt: `m${more}`, splice: `m${more}`, nth: 1, at: last.at + more } });
    judge.lastNights();
  });
  report(
    'One more reading',
    `median ${at(0.5, one).toFixed(2)} ms, worst ${at(1, one).toFixed(2)}`,
    'under 5 ms',
  );
  for (const [kind, fibers] of [
    ['single', 1],
    ['ribbon', 12],
  ] as const) {
    const asked = {
      kind,
      fibers,
      pair: last.pair,
      pairTerm: 0,
      machine: last.machine,
      worst: 0.14,
      failed: 1,
      lossMax: 0.1,
    };
    const odds = timed(500, () => redoOdds(asked, judge.record));
    report(`Odds of a redo, ${kind}`, `median ${at(0.5, odds).toFixed(3)} ms`, 'under 1 ms');
  }
}

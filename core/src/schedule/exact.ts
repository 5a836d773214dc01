import {
  allowed,
  compareScores,
  costOf,
  runFrom,
  runOn,
  scoreOf,
  type Place,
  type Plan,
  type Problem,
  type Run,
} from './problem';

/** A set of jobs as bits, done by one crew in one night in its best order. */
interface Choice {
  readonly set: number;
  /** Jobs outside of it that must have been done on an earlier night. */
  readonly needs: number;
  readonly overtime: number;
  readonly travel: number;
  readonly splits: number;
  readonly fits: boolean;
  readonly order: readonly number[];
}

/** The most jobs for which a plan is proven; beyond that there are too many sets of them. */
const mostJobs = 10;

/** Whether the best plan can be found by going through all of them in about a second. */
export function isSmall({ jobs, crews, nights }: Problem): boolean {
  const { length } = jobs;
  return length <= mostJobs && 3 ** length * crews.length * nights.length <= 3e6;
}

/** The same in about a tenth of one. */
export function isQuick({ jobs, crews, nights }: Problem): boolean {
  return jobs.length <= 8 && 3 ** jobs.length * crews.length * nights.length <= 2e5;
}

/**
 * The best plan there is, proven: for each crew and night the best order of every set of jobs that fits (dynamic programming over set and last job, as Held and Karp 1962), then
 * nights one after the other over what was done before (dynamic programming over sets). Yields the share of the work that is done.
 */
export function* exactPlan(problem: Problem): Generator<number, Plan> {
  const { jobs, crews, nights } = problem;
  const count = jobs.length;
  const known = new Map<string, readonly Choice[]>();
  const choices: (readonly Choice[])[][] = [];
  for (let night = 0; night < nights.length; night += 1) {
    const row: (readonly Choice[])[] = [];
    for (let crew = 0; crew < crews.length; crew += 1) {
      const key = sameNight(problem, crew, night);
      let own = known.get(key);
      if (!own) known.set(key, (own = choicesOf(problem, crew, night)));
      row.push(own);
      yield (0.5 * (night * crews.length + crew + 1)) / (nights.length * crews.length);
    }
    choices.push(row);
  }

  /** By the set that is done: the best way there. */
  let done = new Map<number, State>([[0, { score: [0, 0, 0, 0, 0, 0], before: null, taken: [] }]]);
  const groups = crewGroups(problem);
  for (let night = 0; night < nights.length; night += 1) {
    const next = new Map<number, State>();
    for (const [set, state] of done) {
      let tonight = new Map<number, State>([[0, { score: state.score, before: state, taken: [] }]]);
      for (const variants of groups) {
        const after = new Map(tonight);
        for (const [key, own] of tonight) {
          const taken = key % 2 ** count;
          const shared = Math.floor(key / 2 ** count);
          for (const crew of variants) {
            const bits = crews[crew]!.shared;
            if ((bits & shared) !== 0) continue;
            for (const choice of choices[night]![crew]!) {
              if ((choice.set & (set | taken)) !== 0 || (choice.needs & ~set) !== 0) continue;
              const [usedNights, overtime, travel, crewNights, splits, late] = own.score;
              const score: StateScore = [
                usedNights + (own.taken.length === 0 ? 1 : 0),
                overtime + choice.overtime,
                travel + choice.travel,
                crewNights + 1,
                splits + choice.splits,
                late + night * choice.order.length,
              ];
              const target = (taken | choice.set) + (shared | bits) * 2 ** count;
              const there = after.get(target);
              if (!there || compareScores(score, there.score) < 0)
                after.set(target, {
                  score,
                  before: state,
                  taken: [...own.taken, { night, crew, order: choice.order }],
                });
            }
          }
        }
        tonight = after;
      }
      for (const [key, own] of tonight) {
        const all = set | (key % 2 ** count);
        const there = next.get(all);
        if (!there || compareScores(own.score, there.score) < 0) next.set(all, own);
      }
    }
    done = next;
    yield 0.5 + (0.5 * (night + 1)) / nights.length;
  }

  let best: { readonly set: number; readonly state: State } | null = null;
  for (const [set, state] of done) {
    const order = best
      ? bitCount(best.set) - bitCount(set) || compareScores(state.score, best.state.score)
      : -1;
    if (order < 0) best = { set, state };
  }
  const places: Place[] = [];
  for (let state: State | null = best!.state; state; state = state.before) places.unshift(...state.taken);
  const left = jobs.flatMap((_, job) => ((best!.set >> job) & 1 ? [] : [job]));
  return { places, left, score: scoreOf(problem, places) };
}

type StateScore = readonly [number, number, number, number, number, number];

interface State {
  readonly score: StateScore;
  readonly before: State | null;
  /** What was done in the last night. */
  readonly taken: readonly Place[];
}

/** The ways in which each crew may be equipped. */
export function crewGroups({ crews }: Problem): number[][] {
  const groups: number[][] = [];
  for (const [index, { crew }] of crews.entries()) (groups[crew] ??= []).push(index);
  return groups.filter((group) => group !== undefined);
}

function bitCount(set: number): number {
  let bits = 0;
  for (let rest = set; rest; rest &= rest - 1) bits += 1;
  return bits;
}

/** The same for nights in which the same sets fit in the same order. */
function sameNight(problem: Problem, crew: number, night: number): string {
  const { jobs, nights, crews } = problem;
  const own = jobs.map((job, index) =>
    allowed(problem, index, crew, night) ? `${job.backBy[night] ?? ''}${job.pin ? 'p' : ''}` : '-',
  );
  return `${crew} ${nights[night]} ${crews[crew]!.calibration[night]} ${own.join(',')}`;
}

interface Label {
  readonly run: Run;
  /** s to the first site, which no other leg makes up for. */
  readonly order: readonly number[];
}

/** All sets of jobs that fit, each with its best order. What is pinned here may be more than fits, by itself. */
function choicesOf(problem: Problem, crew: number, night: number): Choice[] {
  const { jobs } = problem;
  const here = jobs.flatMap((_, job) => (allowed(problem, job, crew, night) ? [job] : []));
  const after = jobs.map((job) => job.after.reduce((set, one) => set | (1 << one), 0));
  const pinned = here.reduce((set, job) => (jobs[job]!.pin ? set | (1 << job) : set), 0);
  const found = new Map<number, Choice>();
  /** By set and last job; none is at least as good in everything as another. */
  let layer = new Map<string, { set: number; labels: Label[] }>([
    ['', { set: 0, labels: [{ run: runFrom(problem, crew, night), order: [] }] }],
  ]);
  while (layer.size > 0) {
    const next: typeof layer = new Map();
    for (const { set, labels } of layer.values())
      for (const job of here) {
        const bit = 1 << job;
        if (set & bit) continue;
        // What had to come before it is not done after it.
        if (jobs.some((_, other) => (set >> other) & 1 && after[other]! & bit)) continue;
        for (const label of labels) {
          const run = runOn(problem, label.run, crew, night, job);
          const cost = costOf(problem, run, crew, night);
          const all = set | bit;
          if (!cost.fits && (all & ~pinned) !== 0) continue;
          const order = [...label.order, job];
          const before = found.get(all);
          const score = [cost.fits ? 0 : 1, cost.overtime, cost.travel, cost.splits];
          if (
            !before ||
            compareScores(score, [before.fits ? 0 : 1, before.overtime, before.travel, before.splits]) < 0
          ) {
            const needs = order.reduce((sum, one) => sum | after[one]!, 0) & ~all;
            found.set(all, { set: all, needs, order, ...cost });
          }
          const key = `${all} ${job}`;
          const there = next.get(key) ?? { set: all, labels: [] };
          next.set(key, there);
          if (there.labels.some((one) => noWorse(one.run, run))) continue;
          there.labels = [...there.labels.filter((one) => !noWorse(run, one.run)), { run, order }];
        }
      }
    layer = next;
  }
  return [...found.values()];
}

function noWorse(a: Run, b: Run): boolean {
  return (
    a.fixed <= b.fixed &&
    a.mean <= b.mean &&
    a.variance <= b.variance &&
    a.travel <= b.travel &&
    a.splits <= b.splits &&
    (a.fits || !b.fits)
  );
}

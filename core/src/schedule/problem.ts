import { noWork, type Chances, type Work } from './chance';

/** A closure's work, or a part of it that is done in one go. */
export interface Job {
  /** Closure, and the part where there are several. */
  readonly id: string;
  readonly closureId: string;
  /** From 1; null: all that is left is one job. */
  readonly part: { readonly number: number; readonly of: number } | null;
  /** Row and column in `Problem.travel`. */
  readonly site: number;
  /** By crew as it is equipped: `Problem.crews`. null: it has not what it takes. */
  readonly works: readonly (Work | null)[];
  /** Setting up, at the first of it and again where it was left; by crew. */
  readonly setUps: readonly Work[];
  /** Jobs that are done on an earlier night, or by the same crew before it. Places in `Problem.jobs`. */
  readonly after: readonly number[];
  /** The part of the same closure before it; it needs no setting up where it follows that at once. */
  readonly follows: number | null;
  /** Sealed that many s after each night opens; null: by its end. */
  readonly backBy: readonly (number | null)[];
  /** The only night on which it may be done. */
  readonly onlyNight: number | null;
  readonly pin: { readonly night: number; readonly crew: number | null } | null;
  /** A crew that does not begin it in the first night: it went home. */
  readonly notTonight?: number;
  /** A crew is at it already: it is the first of its night. */
  readonly begun: boolean;
}

/** A crew, with what it carries where that is not always so: one that shares a machine stands in the list with it and without. */
export interface EquippedCrew {
  /** The same for all ways in which a crew may be equipped. */
  readonly crew: number;
  /** Shared machines that it then has, as bits. */
  readonly shared: number;
  /** s at the beginning of each night. */
  readonly calibration: readonly number[];
  /** Site; null: the way there does not count. */
  readonly start: number | null;
  /** By night. */
  readonly works: readonly boolean[];
}

export interface Problem {
  readonly jobs: readonly Job[];
  readonly crews: readonly EquippedCrew[];
  /** s of each night, in the order of time. */
  readonly nights: readonly number[];
  /** s between sites. */
  readonly travel: readonly (readonly number[])[];
  /** After a job, before the crew drives on. */
  readonly packUp: Work;
  readonly reserve: number;
  readonly chances: Chances;
  /** The first night goes on already: who is not at work has to get there in it. */
  readonly underWay: boolean;
}

/** One crew in one night, with its jobs in order. */
export interface Place {
  readonly night: number;
  /** In `Problem.crews`. */
  readonly crew: number;
  readonly order: readonly number[];
}

/** A plan: places that have something to do, in the order of nights and crews, and the jobs that fit nowhere. */
export interface Plan {
  readonly places: readonly Place[];
  readonly left: readonly number[];
  readonly score: Score;
}

/**
 * What plans are compared by, the first that differs: jobs that are left, nights used, minutes of overtime that are to be expected, minutes on the way, crews' nights, times that
 * a closure is left open, and the sum of the nights' numbers (sooner is better). Whole numbers, so that nothing depends on rounding.
 */
export type Score = readonly [
  left: number,
  nights: number,
  overtime: number,
  travel: number,
  crews: number,
  splits: number,
  late: number,
];

export function compareScores(a: readonly number[], b: readonly number[]): number {
  for (let at = 0; at < a.length; at += 1) if (a[at] !== b[at]) return a[at]! - b[at]!;
  return 0;
}

/** One job of a place, with its times in s since the night opened. */
export interface Timed {
  readonly job: number;
  /** The crew is there, and begins. Expected. */
  readonly begins: number;
  /** It is sealed and tested, or covered. Expected. */
  readonly ends: number;
  /** With the chance of the reserve. */
  readonly endsAtLatest: number;
  /** That it is done in time: by when its circuits are back, else by the end of the night. */
  readonly chance: number;
}

/** What becomes of a crew's night. */
export interface Outcome {
  readonly timed: readonly Timed[];
  /** Packed up, s since the night opened; expected. */
  readonly ends: number;
  readonly endsAtLatest: number;
  /** That everything is done in time. */
  readonly chance: number;
  /** s, expected. */
  readonly overtime: number;
  /** s on the way, there and back. */
  readonly travel: number;
}

/** What a place adds to the score of a plan. */
export interface Cost {
  /** Minutes that are to be expected; Infinity where it does not fit and is not pinned. */
  readonly overtime: number;
  /** Minutes. */
  readonly travel: number;
  readonly splits: number;
  /** Everything is done in time with the chance of the reserve. */
  readonly fits: boolean;
}

/** Running sums along the order of a place. */
export interface Run {
  fixed: number;
  mean: number;
  variance: number;
  /** s on the way so far. */
  travel: number;
  splits: number;
  last: number;
  fits: boolean;
}

/** A crew that has not begun its night. */
export function runFrom({ crews }: Problem, crew: number, night: number): Run {
  const { calibration } = crews[crew]!;
  return { fixed: calibration[night]!, mean: 0, variance: 0, travel: 0, splits: 0, last: -1, fits: true };
}

/** Whether the job may be there at all, whatever else is. */
export function allowed({ jobs, crews }: Problem, job: number, crew: number, night: number): boolean {
  const { works, onlyNight, pin, notTonight } = jobs[job]!;
  const equipped = crews[crew]!;
  if (!works[crew] || !equipped.works[night]) return false;
  if (night === 0 && notTonight === equipped.crew) return false;
  if (pin) return pin.night === night && (pin.crew === null || pin.crew === equipped.crew);
  return onlyNight === null || onlyNight === night;
}

/** The same night with one more job at its end. */
export function runOn(problem: Problem, run: Run, crew: number, night: number, job: number): Run {
  const { jobs, travel, packUp, crews, nights, chances, reserve, underWay } = problem;
  const { site, works, setUps, follows, backBy, part, begun } = jobs[job]!;
  const goesOn = follows !== null && follows === run.last;
  const before = run.last < 0 ? crews[crew]!.start : jobs[run.last]!.site;
  const first = run.last < 0;
  const way = before === null || goesOn || (begun && first) ? 0 : travel[before]![site]!;
  const setUp = goesOn ? noWork : setUps[crew]!;
  const pack = first || goesOn ? noWork : packUp;
  const work = works[crew]!;
  const next: Run = {
    // They are at the first site when the night opens.
    fixed: run.fixed + (first && !(underWay && night === 0) ? 0 : way),
    mean: run.mean + pack.mean + setUp.mean + work.mean,
    variance: run.variance + pack.variance + setUp.variance + work.variance,
    travel: run.travel + way,
    splits: run.splits + (part && part.number > 1 && !goesOn ? 1 : 0),
    last: job,
    fits: run.fits && !(begun && run.last >= 0 && !jobs[run.last]!.begun),
  };
  const due = backBy[night] ?? null;
  if (next.fits && due !== null) next.fits = chances.within(Math.min(due, nights[night]!), next) >= reserve;
  return next;
}

/** Work whose mean is more than the window ends in it with a chance below this: a factor with mean 1 is below it a little more often than not. */
const surely = 0.65;

/** The night with the last job packed up and the way back driven. */
export function costOf(problem: Problem, run: Run, crew: number, night: number): Cost {
  const { jobs, travel, packUp, crews, nights, chances, reserve } = problem;
  const { start } = crews[crew]!;
  const back = start === null || run.last < 0 ? 0 : travel[jobs[run.last]!.site]![start]!;
  const stretch = {
    fixed: run.fixed,
    mean: run.mean + packUp.mean,
    variance: run.variance + packUp.variance,
  };
  const window = nights[night]!;
  const fits =
    run.fits &&
    (stretch.fixed + stretch.mean <= window || reserve < surely) &&
    chances.within(window, stretch) >= reserve;
  // What does not fit is only there because somebody pinned it.
  const counts = fits || (run.last >= 0 && jobs[run.last]!.pin !== null);
  return {
    overtime: counts ? Math.round(chances.beyond(window, stretch) / 60) : Infinity,
    travel: Math.round((run.travel + back) / 60),
    splits: run.splits,
    fits,
  };
}

export function costOfOrder(problem: Problem, crew: number, night: number, order: readonly number[]): Cost {
  let run = runFrom(problem, crew, night);
  for (const job of order) run = runOn(problem, run, crew, night, job);
  return costOf(problem, run, crew, night);
}

/** Times and chances of a place, to be shown. */
export function outcomeOf(problem: Problem, { crew, night, order }: Place): Outcome {
  const { jobs, chances, reserve, nights, packUp } = problem;
  const window = nights[night]!;
  let run = runFrom(problem, crew, night);
  let chance = 1;
  const timed = order.map((job): Timed => {
    const before = run;
    run = runOn(problem, run, crew, night, job);
    const due = Math.min(jobs[job]!.backBy[night] ?? window, window);
    const own = chances.within(due, run);
    chance = Math.min(chance, own);
    const { works, setUps, follows } = jobs[job]!;
    const goesOn = follows !== null && follows === before.last;
    return {
      job,
      begins: run.fixed + run.mean - works[crew]!.mean - (goesOn ? 0 : setUps[crew]!.mean),
      ends: run.fixed + run.mean,
      endsAtLatest: chances.quantile(reserve, run),
      chance: own,
    };
  });
  const all = { fixed: run.fixed, mean: run.mean + packUp.mean, variance: run.variance + packUp.variance };
  const cost = costOf(problem, run, crew, night);
  return {
    timed,
    ends: all.fixed + all.mean,
    endsAtLatest: chances.quantile(reserve, all),
    chance: Math.min(chance, chances.within(window, all)),
    overtime: chances.beyond(window, all),
    travel: cost.travel * 60,
  };
}

/** The score of places and of what they leave. */
export function scoreOf(problem: Problem, places: readonly Place[]): Score {
  let [overtime, travel, splits, late, done] = [0, 0, 0, 0, 0];
  const nights = new Set<number>();
  for (const { crew, night, order } of places) {
    if (order.length === 0) continue;
    const cost = costOfOrder(problem, crew, night, order);
    overtime += cost.overtime;
    travel += cost.travel;
    splits += cost.splits;
    late += night * order.length;
    done += order.length;
    nights.add(night);
  }
  const crews = places.filter(({ order }) => order.length > 0).length;
  return [problem.jobs.length - done, nights.size, overtime, travel, crews, splits, late];
}

/** What in a plan breaks a rule, as a list of codes; empty for a sound one. Jobs that were pinned may be more than fits. */
export function breaches(problem: Problem, { places, left }: Pick<Plan, 'places' | 'left'>): string[] {
  const { jobs, crews } = problem;
  const found: string[] = [];
  const nightOf = new Map<number, { night: number; place: Place; at: number }>();
  const taken = new Map<number, number>();
  const crewsAt = new Set<string>();
  for (const place of places) {
    const { crew, night, order } = place;
    const equipped = crews[crew]!;
    if (order.length > 0 && crewsAt.has(`${night} ${equipped.crew}`))
      found.push(`crew twice in night ${night}`);
    crewsAt.add(`${night} ${equipped.crew}`);
    if (order.length > 0) {
      const used = taken.get(night) ?? 0;
      if ((used & equipped.shared) !== 0) found.push(`a machine in two places in night ${night}`);
      taken.set(night, used | equipped.shared);
    }
    for (const [at, job] of order.entries()) {
      if (nightOf.has(job)) found.push(`${jobs[job]!.id} twice`);
      nightOf.set(job, { night, place, at });
      if (!allowed(problem, job, crew, night)) found.push(`${jobs[job]!.id} is not allowed there`);
    }
    if (order.some((job) => !allowed(problem, job, crew, night))) continue;
    const cost = costOfOrder(problem, crew, night, order);
    if (order.length > 0 && !cost.fits && !order.every((job) => jobs[job]!.pin))
      found.push(`night ${night} does not fit`);
  }
  for (const [index, { after, id }] of jobs.entries()) {
    const own = nightOf.get(index);
    if (!own) {
      if (!left.includes(index)) found.push(`${id} is lost`);
      continue;
    }
    if (left.includes(index)) found.push(`${id} is left and planned`);
    for (const one of after) {
      const other = nightOf.get(one);
      const before = other && (other.night < own.night || (other.place === own.place && other.at < own.at));
      if (!before) found.push(`${id} before ${jobs[one]!.id}`);
    }
  }
  return found;
}

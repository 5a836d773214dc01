import { runFrom, runOn, type Job, type Problem } from './problem';
import { quickPlan } from './solve';

/** Whether to open a closure now. */
export interface OpenOrStop {
  readonly says: 'open' | 'stop';
  /** That it is sealed and tested in time, and all else of the crew's night before it. */
  readonly chance: number;
  /** s since now: sealed and tested, expected, and with the chance of the reserve. */
  readonly ends: number;
  readonly endsAtLatest: number;
  /** min of overtime that are to be expected if it is opened. */
  readonly overtime: number;
  /** What it costs to stop here: nights more, closures that then have no place, and min more on the way. */
  readonly stopping: { readonly nights: number; readonly left: number; readonly travel: number };
}

/** A minute of overtime costs as much as so many on another night. From memory. */
const overtimeWeighs = 4;
/** Nothing is opened that is as likely as not left open when the window closes. */
const leastChance = 0.5;

/**
 * Whether a crew opens a closure next, or stops here for tonight. Open where the chance to seal it in time is that of the reserve; never where it is below one half; in between where
 * stopping would cost more than the overtime that is to be expected: a night is worth its own length.
 * @param crew as it is equipped, with its place in `problem.crews`
 * @param done jobs that it does before, from now on: the one it is at
 * @param job the one to be opened
 */
export function openOrStop(problem: Problem, crew: number, done: readonly number[], job: number): OpenOrStop {
  const night = 0;
  const { nights, chances, reserve, crews, jobs } = problem;
  let run = runFrom(problem, crew, night);
  for (const one of [...done, job]) run = runOn(problem, run, crew, night, one);
  const overtime = Math.round(chances.beyond(nights[night]!, run) / 60);
  const due = Math.min(jobs[job]!.backBy[night] ?? nights[night]!, nights[night]!);
  const chance = chances.within(due, run);
  // The rest of the work with this crew gone home after what it is at; and as it is.
  const as = quickPlan(problem);
  const own = crews[crew]!.crew;
  // What somebody pinned to this night goes to another one then: it is not lost.
  const isPinnedHere = ({ pin }: Job) => pin?.night === night && (pin.crew === null || pin.crew === own);
  const home: Problem = {
    ...problem,
    jobs: jobs.map((one, index) =>
      done.includes(index) ? one : { ...one, notTonight: own, pin: isPinnedHere(one) ? null : one.pin },
    ),
  };
  const then = quickPlan(home);
  const stopping = {
    nights: then.score[1] - as.score[1],
    left: then.score[0] - as.score[0],
    travel: then.score[3] - as.score[3],
  };
  const nightMinutes = Math.max(...nights) / 60;
  const costs = {
    open: overtime * overtimeWeighs,
    stop:
      (Math.max(0, stopping.nights) + Math.max(0, stopping.left)) * nightMinutes +
      Math.max(0, stopping.travel),
  };
  const open = chance >= reserve || (chance >= leastChance && costs.open < costs.stop);
  return {
    says: open ? 'open' : 'stop',
    chance,
    ends: run.fixed + run.mean,
    endsAtLatest: chances.quantile(reserve, run),
    overtime,
    stopping,
  };
}

import { draws } from '../src/machine/draws';
import { Chances } from '../src/schedule/chance';
import type { EquippedCrew, Job, Problem } from '../src/schedule/problem';

export interface Made {
  readonly jobs: number;
  readonly crews: number;
  readonly nights: number;
  /** h */
  readonly window?: number;
  readonly seed?: number;
  readonly reserve?: number;
  /** Rules that bind: orders, only nights, pins, times to be back by. */
  readonly bound?: boolean;
  /** Jobs of two parts. */
  readonly parts?: number;
  /** Two crews share a ribbon machine. */
  readonly shared?: boolean;
  /** h, of a job of the slower crew. */
  readonly hours?: readonly [least: number, most: number];
}

/** A made-up problem: sites along a road, crews of one and of two, some jobs only for a crew with a ribbon machine. */
export function madeProblem({
  jobs: count,
  crews: crewCount,
  nights: nightCount,
  window = 7,
  seed = 1,
  reserve = 0.9,
  bound = false,
  parts = 0,
  shared = false,
  hours = [1, 4.5],
}: Made): Problem {
  const random = draws(seed, 'problem');
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  const sites = Array.from({ length: count + 1 }, (_, at) => (at === 0 ? 0 : between(0, 20_000)));
  const work = (mean: number) => ({ mean, variance: (0.12 * mean) ** 2 });
  const crews: EquippedCrew[] = [];
  for (let crew = 0; crew < crewCount; crew += 1) {
    const equipped = {
      crew,
      shared: 0,
      calibration: Array.from({ length: nightCount }, () => 600),
      start: 0,
      works: Array.from({ length: nightCount }, () => true),
    };
    crews.push(equipped);
    if (shared && crew < 2)
      crews.push({ ...equipped, shared: 1, calibration: equipped.calibration.map(() => 900) });
  }
  const ribbonAt = (index: number) => (shared ? crews[index]!.shared === 1 : crews[index]!.crew % 2 === 0);
  const jobs: Job[] = [];
  const add = (site: number, part: Job['part'], follows: number | null, closure: number) => {
    const mean = between(hours[0] * 3600, hours[1] * 3600) / (part ? 2 : 1);
    const ribbon = random.chance(0.4);
    jobs.push({
      id: `${closure}${part ? `.${part.number}` : ''}`,
      closureId: String(closure),
      part,
      site,
      works: crews.map((one, index) =>
        ribbon && !ribbonAt(index) ? null : work(one.crew % 2 === 0 ? mean * 0.7 : mean),
      ),
      setUps: crews.map(() => work(1200)),
      after: follows === null ? [] : [follows],
      follows,
      backBy: Array.from({ length: nightCount }, () => null),
      onlyNight: null,
      pin: null,
      begun: false,
    });
  };
  for (let closure = 0; jobs.length < count; closure += 1) {
    const site = 1 + (closure % count);
    if (closure < parts && jobs.length + 2 <= count) {
      add(site, { number: 1, of: 2 }, null, closure);
      add(site, { number: 2, of: 2 }, jobs.length - 1, closure);
    } else add(site, null, null, closure);
  }
  if (bound)
    for (const [index, job] of jobs.entries()) {
      const kind = random.uniform();
      if (kind < 0.15) jobs[index] = { ...job, onlyNight: Math.floor(random.uniform() * nightCount) };
      else if (kind < 0.3)
        jobs[index] = {
          ...job,
          backBy: job.backBy.map(() => between(0.5, 1) * window * 3600),
        };
      else if (kind < 0.45 && index > 0)
        jobs[index] = { ...job, after: [...new Set([...job.after, Math.floor(random.uniform() * index)])] };
      else if (kind < 0.55)
        jobs[index] = {
          ...job,
          pin: {
            night: Math.floor(random.uniform() * nightCount),
            crew: random.chance(0.5) ? 0 : null,
          },
        };
    }
  return {
    jobs,
    crews,
    nights: Array.from({ length: nightCount }, () => window * 3600),
    travel: sites.map((from) => sites.map((to) => (Math.abs(from - to) / 1000) * 120)),
    packUp: work(600),
    reserve,
    underWay: false,
    chances: new Chances(0.15),
  };
}

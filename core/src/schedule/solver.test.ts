import loadHighs from 'highs';
import { madeProblem } from '../../test/scheduleExample';
import { lowerBound } from './bound';
import { Chances } from './chance';
import type { Problem } from './problem';
import { solvedNights } from './solve';

/** With no spread and no way between sites a night is a bin, and planning is an integer program that a common solver proves: HiGHS (Q. Huangfu and J. A. J. Hall, "Parallelizing the dual revised simplex method", Mathematical Programming Computation 10, 2018). */
function withoutSpread(problem: Problem): Problem {
  const sure = <T extends { readonly mean: number }>(work: T) => ({ ...work, variance: 0 });
  return {
    ...problem,
    jobs: problem.jobs.map((job) => ({
      ...job,
      works: job.works.map((work) => work && sure(work)),
      setUps: job.setUps.map(sure),
    })),
    packUp: sure(problem.packUp),
    travel: problem.travel.map((row) => row.map(() => 0)),
    chances: new Chances(0),
  };
}

/** The program as text in the LP format: as few left as possible, then as few nights. */
function program({ jobs, crews, nights, packUp }: Problem): string {
  const put = (job: number, night: number, crew: number) => `x${job}_${night}_${crew}`;
  const able = (job: number) => crews.flatMap((_, crew) => (jobs[job]!.works[crew] ? [crew] : []));
  const rows: string[] = [];
  const binary = nights.map((_, night) => `y${night}`);
  for (const job of jobs.keys()) {
    binary.push(`u${job}`);
    const ways = nights.flatMap((_, night) => able(job).map((crew) => put(job, night, crew)));
    binary.push(...ways);
    rows.push(`${[...ways, `u${job}`].join(' + ')} = 1`);
  }
  for (const [night, window] of nights.entries()) {
    for (const [crew, { calibration }] of crews.entries()) {
      const takes = jobs.flatMap(({ works, setUps }, job) =>
        works[crew]
          ? [`${works[crew].mean + setUps[crew]!.mean + packUp.mean} ${put(job, night, crew)}`]
          : [],
      );
      if (takes.length > 0)
        rows.push(`${takes.join(' + ')} - ${window - calibration[night]!} y${night} <= 0`);
    }
    // Nights are alike: the first ones are used first.
    if (night > 0) rows.push(`y${night - 1} - y${night} >= 0`);
  }
  const goal = [
    ...jobs.map((_, job) => `${nights.length + 1} u${job}`),
    ...nights.map((_, night) => `y${night}`),
  ];
  return `Minimize\n ${goal.join(' + ')}\nSubject To\n ${rows.join('\n ')}\nBinary\n ${binary.join(' ')}\nEnd\n`;
}

test.each([
  { jobs: 8, crews: 2, nights: 4, seed: 2 },
  { jobs: 12, crews: 2, nights: 5, seed: 5 },
  { jobs: 14, crews: 2, nights: 3, seed: 7 },
  { jobs: 16, crews: 3, nights: 4, seed: 9 },
  { jobs: 18, crews: 3, nights: 2, seed: 11 },
  { jobs: 20, crews: 2, nights: 7, seed: 13 },
])('a common solver finds no better plan: $jobs closures, $crews crews, $nights nights', async (made) => {
  const highs = await loadHighs();
  const problem = withoutSpread(madeProblem(made));
  const { Status, ObjectiveValue } = highs.solve(program(problem), { time_limit: 60 });
  expect(Status).toBe('Optimal');
  const best = Math.round(ObjectiveValue);
  const [left, nights] = [Math.floor(best / (made.nights + 1)), best % (made.nights + 1)];
  const solved = solvedNights(problem);
  expect(solved.plan.score.slice(0, 2)).toEqual([left, nights]);
  const bound = lowerBound(problem, solved.plan.left.length);
  expect(bound.left).toBeLessThanOrEqual(left);
  if (bound.left === left) expect(bound.nights).toBeLessThanOrEqual(nights);
});

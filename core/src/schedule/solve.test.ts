import fc from 'fast-check';
import { madeProblem, type Made } from '../../test/scheduleExample';
import { Chances } from './chance';
import { lowerBound } from './bound';
import { exactPlan, isSmall } from './exact';
import { firstPlan, largePlan } from './large';
import { allowed, breaches, compareScores, costOfOrder, scoreOf, type Place, type Problem } from './problem';
import { gapOf, solvedNights } from './solve';

function run<T, R>(work: Generator<T, R>): R {
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
}

/** Every way to give the jobs to crews and nights, in every order. */
function bruteForce(problem: Problem): readonly number[] {
  const { jobs, crews, nights } = problem;
  const places = nights.flatMap((_, night) => crews.map((__, crew) => ({ night, crew })));
  let best: readonly number[] | null = null;
  const orders = new Map<string, readonly number[] | null>();
  const bestOrder = (place: number, set: readonly number[]): readonly number[] | null => {
    const key = `${place}:${set.join()}`;
    if (orders.has(key)) return orders.get(key)!;
    let found: readonly number[] | null = null;
    let cost: readonly number[] | null = null;
    for (const order of permutations(set)) {
      if (order.some((job, at) => order.slice(at).some((later) => jobs[job]!.after.includes(later))))
        continue;
      const own = costOfOrder(problem, places[place]!.crew, places[place]!.night, order);
      if (!own.fits && !order.every((job) => jobs[job]!.pin)) continue;
      const score = [own.fits ? 0 : 1, own.overtime, own.travel, own.splits];
      if (!cost || compareScores(score, cost) < 0) [found, cost] = [order, score];
    }
    orders.set(key, found);
    return found;
  };
  const at: number[] = [];
  const assign = (job: number) => {
    if (job === jobs.length) {
      const filled: Place[] = [];
      for (const [index, place] of places.entries()) {
        const own = at.flatMap((one, which) => (one === index ? [which] : []));
        if (own.length === 0) continue;
        const order = bestOrder(index, own);
        if (!order) return;
        filled.push({ ...place, order });
      }
      const left = at.flatMap((one, which) => (one < 0 ? [which] : []));
      if (breaches(problem, { places: filled, left }).length > 0) return;
      const score = scoreOf(problem, filled);
      if (!best || compareScores(score, best) < 0) best = score;
      return;
    }
    for (let place = -1; place < places.length; place += 1) {
      if (place >= 0 && !allowed(problem, job, places[place]!.crew, places[place]!.night)) continue;
      at[job] = place;
      assign(job + 1);
    }
  };
  assign(0);
  return best!;
}

function* permutations(list: readonly number[]): Generator<number[]> {
  if (list.length === 0) yield [];
  for (const [at, one] of list.entries())
    for (const rest of permutations([...list.slice(0, at), ...list.slice(at + 1)])) yield [one, ...rest];
}

const small = fc.record({
  jobs: fc.integer({ min: 1, max: 4 }),
  crews: fc.integer({ min: 1, max: 2 }),
  nights: fc.integer({ min: 1, max: 3 }),
  seed: fc.integer({ min: 1, max: 1e6 }),
  window: fc.constantFrom(4, 5.5, 7),
  reserve: fc.constantFrom(0.6, 0.9),
  bound: fc.boolean(),
  parts: fc.integer({ min: 0, max: 1 }),
  shared: fc.boolean(),
});

test('the proven plan is the best of all there are, in every goal', () => {
  fc.assert(
    fc.property(small, (made) => {
      const problem = madeProblem({ ...made, shared: made.shared && made.nights < 3 && made.jobs < 4 });
      const plan = run(exactPlan(problem));
      expect(breaches(problem, plan)).toEqual([]);
      expect(plan.score).toEqual(bruteForce(problem));
    }),
    { numRuns: 120 },
  );
});

const middle = fc.record({
  jobs: fc.integer({ min: 4, max: 8 }),
  crews: fc.integer({ min: 1, max: 3 }),
  nights: fc.integer({ min: 1, max: 5 }),
  seed: fc.integer({ min: 1, max: 1e6 }),
  window: fc.constantFrom(4, 5.5, 7),
  reserve: fc.constantFrom(0.5, 0.75, 0.9, 0.97),
  bound: fc.boolean(),
  parts: fc.integer({ min: 0, max: 2 }),
  shared: fc.boolean(),
});

test('whatever the problem, the plans of many are sound, and none is better than its bound says', () => {
  fc.assert(
    fc.property(middle, (made) => {
      const problem = madeProblem(made);
      const bound = lowerBound(problem);
      const best = isSmall(problem) ? run(exactPlan(problem)) : null;
      const first = firstPlan(problem);
      for (const plan of [first, run(largePlan(problem, first, bound)), ...(best ? [best] : [])]) {
        expect(breaches(problem, plan)).toEqual([]);
        expect(plan.score).toEqual(scoreOf(problem, plan.places));
        expect(compareScores(plan.score.slice(0, 2), [bound.left, bound.nights])).toBeGreaterThanOrEqual(0);
        if (best) expect(compareScores(plan.score, best.score)).toBeGreaterThanOrEqual(0);
      }
    }),
    { numRuns: 16 },
  );
});

const total = (problem: Problem) => solvedNights(problem).plan.score;

test('another night makes no plan worse, and the same problem gives the same plan', () => {
  fc.assert(
    fc.property(middle, (made) => {
      if (!isSmall(madeProblem(made))) return;
      const more: Made = { ...made, bound: false };
      expect(
        compareScores(total(madeProblem({ ...more, nights: made.nights + 1 })), total(madeProblem(more))),
      ).toBeLessThanOrEqual(0);
      expect(solvedNights(madeProblem(made))).toEqual(solvedNights(madeProblem(made)));
    }),
    { numRuns: 15 },
  );
});

test.each([2, 3, 7, 12])('nor one of many closures, no. %p', (seed) => {
  const made = { jobs: 12 + seed, crews: 1 + (seed % 3), nights: 3 + (seed % 3), seed };
  const [fewer, more] = [made.nights, made.nights + 1].map((nights) =>
    total(madeProblem({ ...made, nights })),
  );
  expect(compareScores(more!, fewer!)).toBeLessThanOrEqual(0);
});

test.each([4, 9, 12, 16, 28, 40])(
  'where the nights are too few, as many have a place as can have, no. %p',
  (seed) => {
    const few = {
      jobs: 9,
      crews: 1 + (seed % 2),
      nights: 2 + (seed % 3),
      seed,
      window: [4, 5.5, 7][seed % 3]!,
    };
    const problem = madeProblem(few);
    const best = run(exactPlan(problem));
    expect(best.score[0]).toBeGreaterThan(0);
    const first = firstPlan(problem);
    const plan = run(largePlan(problem, first, lowerBound(problem, first.left.length)));
    expect(plan.score.slice(0, 2)).toEqual(best.score.slice(0, 2));
  },
);

test.each([6, 12, 18, 24])('and of many closures that is proven, no. %p', (seed) => {
  const problem = madeProblem({ jobs: 12 + (seed % 10), crews: 1, nights: 3, seed, window: 4 });
  const solved = solvedNights(problem);
  expect(solved.bound!.left).toBeGreaterThan(0);
  expect(solved.plan.score[0]).toBe(solved.bound!.left);
});

test('many closures come within one night of what is proven', () => {
  const problem = madeProblem({ jobs: 24, crews: 3, nights: 12, seed: 3 });
  const solved = solvedNights(problem);
  expect(breaches(problem, solved.plan)).toEqual([]);
  expect(solved.plan.left).toEqual([]);
  expect(solved.plan.score[1] - solved.bound!.nights).toBeLessThanOrEqual(1);
  expect(gapOf(solved)).not.toBeNull();
});

/** Machines in parallel: crews that need nothing but time, one night as long as the makespan. */
function parallel(times: readonly number[], machines: number, makespan: number): Problem {
  const nothing = { mean: 0, variance: 0 };
  const base = madeProblem({ jobs: 1, crews: 1, nights: 1 });
  return {
    ...base,
    crews: Array.from({ length: machines }, (_, crew) => ({ ...base.crews[0]!, crew, calibration: [0] })),
    jobs: times.map((time, index) => ({
      ...base.jobs[0]!,
      id: String(index),
      works: Array.from({ length: machines }, () => ({ mean: time * 600, variance: 0 })),
      setUps: Array.from({ length: machines }, () => nothing),
    })),
    packUp: nothing,
    nights: [makespan * 600],
    travel: base.travel.map((row) => row.map(() => 0)),
    chances: new Chances(0),
  };
}

test.each([
  // R. L. Graham, "Bounds on multiprocessing timing anomalies", SIAM J. Appl. Math. 17, 1969: longest first takes 7.
  [[3, 3, 2, 2, 2], 2, 6],
  // M. L. Pinedo, "Scheduling", the example of the worst case of longest first, which takes 15; from memory.
  [[7, 7, 6, 6, 5, 5, 4, 4, 4], 4, 12],
])('parallel machines, published: %p on %p takes %p', (times, machines, best) => {
  expect(solvedNights(parallel(times, machines, best)).plan.left).toEqual([]);
  const shorter = solvedNights(parallel(times, machines, best - 1));
  expect(shorter.proven).toBe(true);
  expect(shorter.plan.left.length).toBeGreaterThan(0);
});

test('what a rule breaks is found', () => {
  const problem = madeProblem({ jobs: 2, crews: 1, nights: 2, hours: [1, 1.2] });
  const jobs = problem.jobs.map((job, index) => ({
    ...job,
    works: [{ mean: 3600, variance: 1e4 }],
    after: index ? [0] : [],
  }));
  const own = { ...problem, jobs };
  const place = (night: number, order: number[]) => ({ night, crew: 0, order });
  expect(breaches(own, { places: [place(0, [0, 1])], left: [] })).toEqual([]);
  expect(breaches(own, { places: [place(0, [1, 0])], left: [] })).toHaveLength(1);
  expect(breaches(own, { places: [place(1, [0]), place(0, [1])], left: [] })).toHaveLength(1);
  expect(breaches(own, { places: [place(0, [0])], left: [] })).toEqual(['1 is lost']);
  expect(breaches(own, { places: [place(0, [0]), place(0, [1])], left: [] })).toContain(
    'crew twice in night 0',
  );
});

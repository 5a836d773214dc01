import {
  closureOfModel,
  equalTubes,
  limitsPresets,
  newNightsSetup,
  type Cable,
  type Closure,
  type ProjectDefinition,
  type Site,
} from '@cordel/core';
import { builtInModels } from '@cordel/core/builtInModels';
import { readOrder } from '@cordel/core/order';
import { usualPace } from '@cordel/core/prepare';
import {
  costOfOrder,
  gapOf,
  nightsInput,
  nightsProblem,
  quickPlan,
  solveNights,
  type LookedAt,
  type NightsRecord,
  type Problem,
  type Solved,
} from '@cordel/core/schedule';
import { madeProblem } from '../../core/test/scheduleExample';
import { at, report, timed } from './figures';

/** Planning nights: a few closures proven, sixty within a bound, and replanned while the night goes on. */
export function benchNights(): void {
  const small = madeProblem({ jobs: 8, crews: 2, nights: 5, seed: 2 });
  const bound = madeProblem({ jobs: 8, crews: 2, nights: 5, seed: 3, bound: true });
  for (const [what, problem] of [
    ['8 closures, 2 crews, 5 nights, proven best', small],
    ['the same with orders, pins and times to be back by', bound],
  ] as const) {
    const plain = greedy(problem);
    const solved = solve(problem);
    report(
      `${what} (longest first: ${plain.ms.toFixed(1)} ms, ${plain.left} left, ${plain.nights} nights)`,
      `${solved.ms.toFixed(0)} ms, ${solved.proven ? 'proven' : 'NOT proven'}, ${solved.score[0]} left, ${solved.score[1]} nights`,
      'under 2 s',
    );
  }
  for (const seed of [1, 2, 3]) {
    const problem = madeProblem({ jobs: 60, crews: 4, nights: 30, seed });
    const plain = greedy(problem);
    const solved = solve(problem);
    report(
      `60 closures, 4 crews, no. ${seed} (longest first: ${plain.ms.toFixed(1)} ms, ${plain.nights} nights)`,
      `first ${solved.first.toFixed(0)} ms, all ${(solved.ms / 1000).toFixed(1)} s, ${solved.score[1]} nights, bound ${solved.bound}, gap ${(100 * solved.gap).toFixed(1)} %`,
      'first under 300 ms, 5 % under 10 s',
    );
  }
  // Too few nights: as many as have a place.
  const scarce = madeProblem({ jobs: 60, crews: 4, nights: 5, seed: 4 });
  const plainly = greedy(scarce, true);
  const most = solve(scarce);
  report(
    `60 closures, 4 crews, 5 nights, which are too few (shortest first: ${plainly.left} left)`,
    `first ${most.first.toFixed(0)} ms, all ${(most.ms / 1000).toFixed(1)} s, ${most.score[0]} left, at least ${most.left}`,
    'as above',
  );
  const rules = solve(madeProblem({ jobs: 60, crews: 4, nights: 30, seed: 5, bound: true, parts: 8 }));
  report(
    '60 closures with orders, pins, parts and times to be back by',
    `first ${rules.first.toFixed(0)} ms, all ${(rules.ms / 1000).toFixed(1)} s, ${rules.score[0]} left, ${rules.score[1]} nights, bound ${rules.bound}`,
    'as above',
  );

  const record = sixty();
  const lookedAt: LookedAt = new Map();
  const [whole] = timed(1, () => quickPlan(nightsProblem(nightsInput(record)).problem));
  const again = timed(20, () => quickPlan(nightsProblem(nightsInput(record, lookedAt)).problem));
  report(
    `Replan 60 closures of 96 in a night that goes on (the first time: ${whole!.toFixed(0)} ms)`,
    `${at(0.5, again).toFixed(0)} ms, slowest ${at(1, again).toFixed(0)} ms`,
    'under 200 ms',
  );
}

function solve(problem: Problem) {
  const began = performance.now();
  let first = 0;
  const work = solveNights(problem);
  let step = work.next();
  while (!step.done) {
    first ||= performance.now() - began;
    step = work.next();
  }
  const solved: Solved = step.value;
  return {
    ms: performance.now() - began,
    first,
    proven: solved.proven,
    score: solved.plan.score,
    left: solved.bound?.left ?? 0,
    bound: solved.bound?.nights ?? 0,
    gap: gapOf(solved) ?? NaN,
  };
}

/** What somebody does by hand: the longest first, or the shortest, each to the first crew and night where it still fits. */
function greedy(
  problem: Problem,
  shortestFirst = false,
): { readonly ms: number; readonly nights: number; readonly left: number } {
  const began = performance.now();
  const { jobs, crews, nights } = problem;
  const longest = (job: number) => Math.max(...jobs[job]!.works.map((work) => work?.mean ?? 0));
  const places = nights.flatMap((_, night) =>
    crews.map((__, crew) => ({ night, crew, order: [] as number[] })),
  );
  let left = 0;
  for (const job of [...jobs.keys()].sort((a, b) => (longest(b) - longest(a)) * (shortestFirst ? -1 : 1))) {
    const place = places.find(
      ({ night, crew, order }) =>
        jobs[job]!.works[crew] && costOfOrder(problem, crew, night, [...order, job]).fits,
    );
    if (place) place.order.push(job);
    else left += 1;
  }
  const used = new Set(places.filter(({ order }) => order.length > 0).map(({ night }) => night));
  return { ms: performance.now() - began, nights: used.size, left };
}

const uuid = (number: number) => `0190bbbb-0000-7000-8000-${String(number).padStart(12, '0')}`;

/** A route with sixty closures in which 96 fibers are spliced, an hour into the first of forty nights. */
function sixty(): NightsRecord {
  const count = 60;
  const opens = Date.parse('2026-04-15T01:00:00.000Z');
  const sites = Array.from({ length: count + 1 }, (_, index): Site => ({
    id: uuid(index),
    name: `U${index}`,
    kind: index === 0 ? 'hub' : 'closure',
    chainage: index * 800,
    placement: 'handhole',
  }));
  const cables = Array.from({ length: count + 1 }, (_, index): Cable => ({
    id: uuid(100 + index),
    label: `Cable ${index}`,
    schemeId: 'tia-598-d',
    construction: equalTubes(8, 12),
    siteIds: sites.slice(index, index + 2).map(({ id }) => id),
  }));
  const model = builtInModels.find(({ name }) => name === 'Dome 96')!;
  const closures = Array.from({ length: count }, (_, index): Closure => {
    const entries = [index, index + 1].map((cable) => ({
      cableId: uuid(100 + cable),
      manner: 'cut' as const,
    }));
    return {
      ...closureOfModel(model),
      id: uuid(200 + index),
      siteId: uuid(index + 1),
      entries,
      order: readOrder('A 1-96 > B 1-96', entries).lines.map((line) => ({ id: uuid(300 + index), ...line })),
      version: 1,
    };
  });
  const nights = Array.from({ length: 40 }, (_, index) => ({
    id: uuid(500 + index),
    opens: new Date(opens + index * 86_400_000).toISOString(),
    closes: new Date(opens + index * 86_400_000 + 9 * 3_600_000).toISOString(),
  }));
  const crews = [1, 2, 3, 4].map((crew) => ({
    id: uuid(600 + crew),
    name: `Crew ${crew}`,
    people: crew % 2 === 0 ? ['A', 'B'] : ['C'],
    machines: [{ gearId: null, name: 'Machine', splices: 'both' as const, heaters: 1 }],
    calibration: 600,
    startSiteId: uuid(0),
    offNightIds: [],
    contacts: '',
  }));
  const definition: ProjectDefinition = {
    project: {
      id: uuid(999),
      name: 'Sixty',
      units: 'mm',
      timeZone: 'America/Sao_Paulo',
      limits: limitsPresets[0]!.limits,
      window: null,
      nights: { ...newNightsSetup, nights, crews },
      version: 1,
      lineVersion: 1,
    },
    sites,
    cables,
    closures,
  };
  return { definition, facts: [], pace: usualPace, gear: [], now: opens + 3_600_000 };
}

import { draws, type Draws } from '../machine/draws';
import type { Bound } from './bound';
import { copyOf, draftFrom, draftOf, planOf, standing, take, type Draft } from './draft';
import { filled } from './insertion';
import { compareScores, type Plan, type Problem } from './problem';

/** How often a part of the plan is taken apart and put together again. */
const rounds = 16_000;
/** Of these so many without anything better end a search. */
const patience = 4000;

/**
 * A good plan for many jobs: the first one (by regret insertion; Potvin and Rousseau 1993) is made better by taking parts of it apart and putting them together again (ruin and recreate; Schrimpf,
 * Schneider, Stamm-Wilbrandt and Dueck 2000), first with fewer nights, then in the other goals. The same problem gives the same plan: it stops by rounds, not by a clock.
 * Yields each better plan, and now and then the share that is done.
 */
export function* largePlan(
  problem: Problem,
  first: Plan,
  bound: Bound,
): Generator<{ readonly plan: Plan; readonly share: number }, Plan> {
  const random = draws(16, 'nights', problem.jobs.length);
  const everyNight = problem.nights.map((_, night) => night);
  let best = first;
  // Fewer nights first: one is taken away until what it held finds no place in the others.
  for (;;) {
    const used = [...new Set(best.places.map(({ night }) => night))].sort((a, b) => a - b);
    if (best.left.length <= bound.left && used.length <= bound.nights) break;
    // Nights may have been left empty that would do as well: the fewest from the beginning on, and those that something is bound to.
    const fewer = best.left.length > bound.left ? everyNight : fewerNights(problem, best, used);
    if (!fewer) break;
    const work = search(problem, draftFrom(problem, fewer, best), random, (at) => at[0]! <= bound.left);
    let step = work.next();
    while (!step.done) {
      yield { plan: best, share: 0.5 * step.value };
      step = work.next();
    }
    if (compareScores(step.value.score, best.score) >= 0) break;
    best = step.value;
    yield { plan: best, share: 0.5 };
  }
  const used = [...new Set(best.places.map(({ night }) => night))];
  const polished = search(problem, draftFrom(problem, used, best), random, () => false);
  let step = polished.next();
  while (!step.done) {
    yield { plan: best, share: 0.5 + 0.5 * step.value };
    step = polished.next();
  }
  return compareScores(step.value.score, best.score) < 0 ? step.value : best;
}

/** By regret insertion alone, at once. */
export function firstPlan(problem: Problem): Plan {
  return planOf(
    problem,
    filled(
      problem,
      draftOf(
        problem,
        problem.nights.map((_, night) => night),
      ),
    ),
  );
}

/** One night less: the one whose jobs are fewest, of those to which nothing is bound. null: there is none. */
function fewerNights({ jobs }: Problem, { places }: Plan, used: readonly number[]): number[] | null {
  const bound = new Set(jobs.flatMap(({ pin, onlyNight }) => pin?.night ?? onlyNight ?? []));
  const load = (night: number) =>
    places.filter((place) => place.night === night).reduce((sum, { order }) => sum + order.length, 0);
  const free = used.filter((night) => !bound.has(night));
  if (free.length === 0) return null;
  const gone = free.reduce((least, night) => (load(night) <= load(least) ? night : least));
  return used.filter((night) => night !== gone);
}

/** Takes parts of a draft apart and puts them together again, as long as it gets better. Yields the share that is done. */
function* search(
  problem: Problem,
  from: Draft,
  random: Draws,
  enough: (score: readonly number[]) => boolean,
): Generator<number, Plan> {
  let now = filled(problem, from);
  let best = now;
  let [nowAt, bestAt] = [standing(problem, now), standing(problem, now)];
  let since = 0;
  for (let round = 0; round < rounds && since < patience && !enough(bestAt); round += 1) {
    if (round % 50 === 0) yield Math.max(round / rounds, since / patience);
    const draft = filled(problem, ruined(problem, copyOf(now), random), random);
    const at = standing(problem, draft);
    since += 1;
    // Record to record: a little worse than the best is gone on from, in what it costs, not in what it leaves.
    const near =
      at[0] === bestAt[0] &&
      at[2] === bestAt[2] &&
      at[3]! <= bestAt[3]! * 1.03 + 2 &&
      at[4]! <= bestAt[4]! * 1.05 + 5;
    const nearLeft = bestAt[0]! > 0 && at[0] === bestAt[0] && at[1]! <= bestAt[1]! * 1.1;
    if (compareScores(at, nowAt) <= 0 || near || nearLeft) {
      now = draft;
      nowAt = at;
    }
    if (compareScores(at, bestAt) < 0) {
      best = draft;
      bestAt = at;
      since = 0;
    }
  }
  return planOf(problem, best);
}

/** Jobs of a few places taken out: whole nights of a crew, those near a site, or any. */
function ruined(problem: Problem, draft: Draft, random: Draws): Draft {
  const { jobs, travel } = problem;
  const placed = [...jobs.keys()].filter((job) => draft.at[job]! >= 0 && !jobs[job]!.pin);
  if (placed.length === 0) return draft;
  const pick = <T>(list: readonly T[]): T =>
    list[Math.min(list.length - 1, Math.floor(random.uniform() * list.length))]!;
  const seed = pick(placed);
  const out = new Set<number>();
  const kind = random.uniform();
  if (kind < 0.45) {
    const slots = draft.slots.filter(({ order }) => order.length > 0);
    for (let count = 0; count < 2 + Math.floor(random.uniform() * 2); count += 1)
      for (const job of pick(slots).order) out.add(job);
    for (const job of draft.slots[draft.at[seed]!]!.order) out.add(job);
  } else {
    const most = Math.max(2, Math.min(12, Math.ceil(placed.length * (0.05 + 0.15 * random.uniform()))));
    const near =
      kind < 0.75
        ? [...placed].sort(
            (a, b) =>
              travel[jobs[seed]!.site]![jobs[a]!.site]! - travel[jobs[seed]!.site]![jobs[b]!.site]! || a - b,
          )
        : null;
    for (let count = 0; count < most; count += 1) out.add(near ? near[count]! : pick(placed));
  }
  for (const job of out) if (jobs[job]?.pin) out.delete(job);
  // What waits for one that is out is out as well.
  for (let before = -1; before < out.size;) {
    before = out.size;
    for (const job of placed) if (jobs[job]!.after.some((one) => out.has(one))) out.add(job);
  }
  for (const job of out) if (job !== undefined && draft.at[job]! >= 0) take(problem, draft, job);
  return draft;
}

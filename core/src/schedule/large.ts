import { draws, type Draws } from '../machine/draws';
import { placeless, type Bound } from './bound';
import { copyOf, draftFrom, draftOf, planOf, standing, take, type Draft } from './draft';
import { farness, filled, type Aim } from './insertion';
import { compareScores, type Plan, type Problem } from './problem';

/** How often a part of the plan is taken apart and put together again. */
const rounds = 12_000;
/** Of these so many without anything better end a search. */
const patience = 2000;

/**
 * A good plan for many jobs: the first one (by regret insertion; Potvin and Rousseau 1993) is made better by taking parts of it apart and putting them together again (ruin and recreate; Schrimpf,
 * Schneider, Stamm-Wilbrandt and Dueck 2000), first until as many have a place as may be, then with fewer nights, then in the other goals. The same problem gives the same plan: it stops by rounds, not by a clock.
 * Yields each better plan, and now and then the share that is done.
 */
export function* largePlan(
  problem: Problem,
  first: Plan,
  bound: Bound,
): Generator<{ readonly plan: Plan; readonly share: number }, Plan> {
  const random = draws(16, 'nights', problem.jobs.length);
  const everyNight = problem.nights.map((_, night) => night);
  const alone = placeless(problem).size;
  let best = first;
  function* better(
    nights: readonly number[],
    aim: Aim,
    guided: boolean,
    enough: (left: number) => boolean,
    from: number,
    to: number,
  ) {
    const work = search(problem, draftFrom(problem, nights, best), aim, guided, random, enough);
    const before = best;
    const take = (plan: Plan | null) => {
      if (plan && compareScores(plan.score, best.score) < 0) best = plan;
    };
    let step = work.next();
    while (!step.done) {
      take(step.value.better);
      yield { plan: best, share: from + (to - from) * step.value.share };
      step = work.next();
    }
    take(step.value);
    return best !== before;
  }
  // A place for all of them, unless that is proven to be in vain; else for as many as possible.
  const covers = (left: number) => left <= bound.left;
  if (!covers(best.left.length) && bound.left <= alone) yield* better(everyNight, all, true, covers, 0, 0.25);
  const aim = best.left.length > alone ? many(problem, bound.worth) : all;
  if (aim !== all) yield* better(everyNight, aim, true, covers, 0.25, 0.5);
  // Fewer nights: one is taken away until what it held finds no place in the others.
  for (;;) {
    const used = nightsOf(best);
    if (!covers(best.left.length) || used.length <= bound.nights) break;
    // Nights may have been left empty that would do as well: the fewest from the beginning on, and those that something is bound to.
    const fewer = fewerNights(problem, best, used);
    if (!fewer || !(yield* better(fewer, aim, true, covers, 0.5, 0.75))) break;
  }
  yield* better(nightsOf(best), aim, false, () => false, 0.75, 1);
  return best;
}

const all: Aim = { kind: 'all' };

const many = ({ crews }: Problem, worth: readonly number[] | null): Aim => ({
  kind: 'many',
  worth: worth ?? crews.map(() => 1),
});

const nightsOf = ({ places }: Plan): number[] =>
  [...new Set(places.map(({ night }) => night))].sort((a, b) => a - b);

/** By insertion alone, at once. */
export function firstPlan(problem: Problem): Plan {
  const everyNight = problem.nights.map((_, night) => night);
  const by = (aim: Aim) => planOf(problem, filled(problem, draftOf(problem, everyNight), aim));
  const plan = by(all);
  if (plan.left.length === 0) return plan;
  const other = by(many(problem, null));
  return compareScores(other.score, plan.score) < 0 ? other : plan;
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

/**
 * Takes parts of a draft apart and puts them together again, as long as it gets better. Yields the share that is done, and what is better than at the yield before.
 * @param guided what comes nearer to a place for one more is better than what costs less
 */
function* search(
  problem: Problem,
  from: Draft,
  aim: Aim,
  guided: boolean,
  random: Draws,
  enough: (left: number) => boolean,
): Generator<{ readonly share: number; readonly better: Plan | null }, Plan> {
  let now = filled(problem, from, aim);
  let best = now;
  const look = (draft: Draft): Standing => ({
    score: standing(draft),
    far: guided ? farness(problem, draft, aim) : 0,
  });
  let [nowAt, bestAt] = [look(now), look(now)];
  const compare = (a: Standing, b: Standing) =>
    a.score[0]! - b.score[0]! || a.far - b.far || compareScores(a.score, b.score);
  let told: Draft | null = null;
  let since = 0;
  for (let round = 0; round < rounds && since < patience && !enough(bestAt.score[0]!); round += 1) {
    if (round % 50 === 0) {
      yield {
        share: Math.max(round / rounds, since / patience),
        better: best === told ? null : planOf(problem, best),
      };
      told = best;
    }
    const draft = filled(problem, ruined(problem, copyOf(now), random), aim, random);
    const at = look(draft);
    since += 1;
    if (compare(at, nowAt) <= 0 || isNear(at, bestAt, guided)) {
      now = draft;
      nowAt = at;
    }
    if (compare(at, bestAt) < 0) {
      best = draft;
      bestAt = at;
      since = 0;
    }
  }
  return planOf(problem, best);
}

interface Standing {
  readonly score: readonly number[];
  readonly far: number;
}

/** Record to record: a little worse than the best is gone on from, in what it costs or how far it is from a place for one more, not in what it leaves. */
function isNear({ score, far }: Standing, best: Standing, guided: boolean): boolean {
  const [left, nights, overtime, travel] = score;
  if (left !== best.score[0]) return false;
  if (guided && left! > 0) return far <= best.far + 0.1 * Math.abs(best.far);
  return (
    nights === best.score[1] && overtime! <= best.score[2]! * 1.03 + 2 && travel! <= best.score[3]! * 1.05 + 5
  );
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

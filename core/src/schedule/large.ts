import { draws, type Draws } from '../machine/draws';
import { roomOf, sizeOf, type Bound } from './bound';
import { crewGroups } from './exact';
import {
  allowed,
  compareScores,
  costOf,
  runFrom,
  runOn,
  scoreOf,
  type Cost,
  type Place,
  type Plan,
  type Problem,
} from './problem';

/** A plan under way: for each night and crew the jobs in order. */
interface Draft {
  /** By night × crew group. */
  readonly slots: Slot[];
  readonly left: Set<number>;
  /** By job: its slot, or −1. */
  readonly at: Int32Array;
}

interface Slot {
  readonly night: number;
  /** Ways in which the crew may be equipped; the first that can do it is taken. */
  readonly variants: readonly number[];
  /** The same for nights of a crew that are alike. */
  readonly kind: number;
  crew: number;
  order: readonly number[];
  cost: Cost;
}

interface Insertion {
  readonly job: number;
  readonly night: number;
  readonly slot: number;
  readonly crew: number;
  readonly order: readonly number[];
  readonly cost: Cost;
  /** What it adds, compared from the first. */
  readonly adds: readonly number[];
}

const nothing: Cost = { overtime: 0, travel: 0, splits: 0, fits: true };

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

function draftOf(problem: Problem, nights: readonly number[]): Draft {
  const groups = crewGroups(problem);
  const kinds = new Map<string, number>();
  const kindOf = (night: number, variants: readonly number[]) => {
    const { works, calibration } = problem.crews[variants[0]!]!;
    const key = `${variants[0]} ${problem.nights[night]} ${works[night]} ${calibration[night]} ${night === 0 && problem.underWay}`;
    return kinds.get(key) ?? (kinds.set(key, kinds.size), kinds.size - 1);
  };
  const slots = [...nights]
    .sort((a, b) => a - b)
    .flatMap((night) =>
      groups.map((variants): Slot => ({
        kind: kindOf(night, variants),
        night,
        variants,
        crew: variants[0]!,
        order: [],
        cost: nothing,
      })),
    );
  return { slots, left: new Set(problem.jobs.keys()), at: new Int32Array(problem.jobs.length).fill(-1) };
}

/** As much of a plan as lies in these nights. */
function draftFrom(problem: Problem, nights: readonly number[], { places }: Plan): Draft {
  const draft = draftOf(problem, nights);
  for (const { night, crew, order } of places) {
    const index = draft.slots.findIndex((slot) => slot.night === night && slot.variants.includes(crew));
    if (index >= 0) set(problem, draft, index, crew, order);
  }
  // What waited for something that is not there any more is out as well.
  for (let loose = true; loose;) {
    loose = false;
    for (const [job, { after }] of problem.jobs.entries())
      if (draft.at[job]! >= 0 && after.some((one) => draft.left.has(one))) {
        take(problem, draft, job);
        loose = true;
      }
  }
  return draft;
}

function set(problem: Problem, draft: Draft, index: number, crew: number, order: readonly number[]): void {
  const slot = draft.slots[index]!;
  for (const job of slot.order) {
    draft.at[job] = -1;
    draft.left.add(job);
  }
  slot.order = order;
  slot.crew = order.length > 0 ? crew : slot.variants[0]!;
  slot.cost = order.length > 0 ? costIn(problem, slot.night, crew, order) : nothing;
  for (const job of order) {
    draft.at[job] = index;
    draft.left.delete(job);
  }
}

function costIn(problem: Problem, night: number, crew: number, order: readonly number[]): Cost {
  let run = runFrom(problem, crew, night);
  for (const job of order) run = runOn(problem, run, crew, night, job);
  return costOf(problem, run, crew, night);
}

function take(problem: Problem, draft: Draft, job: number): void {
  const index = draft.at[job]!;
  const slot = draft.slots[index]!;
  set(
    problem,
    draft,
    index,
    slot.crew,
    slot.order.filter((one) => one !== job),
  );
}

function copyOf({ slots, left, at }: Draft): Draft {
  return { slots: slots.map((slot) => ({ ...slot })), left: new Set(left), at: at.slice() };
}

/** Puts what is left where it adds least, the job first that would lose most by waiting. */
function filled(problem: Problem, draft: Draft, random: Draws | null = null): Draft {
  const { jobs } = problem;
  const { related, shares, longest } = tiesOf(problem);
  /** By job and slot, as long as the slot stays as it is. */
  const known = new Map<number, (Insertion | null | undefined)[]>();
  for (;;) {
    const openNights = new Set(draft.slots.filter(({ order }) => order.length > 0).map(({ night }) => night));
    let chosen: Insertion | null = null;
    let most: readonly number[] | null = null;
    for (const job of draft.left) {
      // What it waits for comes first.
      if (jobs[job]!.after.some((one) => draft.left.has(one))) continue;
      let row = known.get(job);
      if (!row) known.set(job, (row = draft.slots.map(() => undefined)));
      let best: Insertion | null = null;
      let second: Insertion | null = null;
      const free = isFree(problem, job);
      const seen = new Set<number>();
      for (let index = 0; index < draft.slots.length; index += 1) {
        const slot = draft.slots[index]!;
        const opens = !openNights.has(slot.night);
        // Of nights that are still empty and alike, the first says it for all.
        if (free && opens) {
          if (seen.has(slot.kind)) continue;
          seen.add(slot.kind);
        }
        let own = row[index];
        if (own === undefined) row[index] = own = insertion(problem, draft, index, job);
        if (!own || (random && best && random.chance(0.05))) continue;
        if (!best || compareInsertions(own, best, openNights) < 0) {
          second = best;
          best = own;
        } else if (!second || compareInsertions(own, second, openNights) < 0) second = own;
      }
      if (!best) continue;
      // Pinned first, then where only one place is left, then by what is lost, then the longest.
      const opensNight = (one: Insertion) => (openNights.has(one.night) ? 0 : 1);
      const regret = second
        ? [opensNight(second) - opensNight(best), second.adds[0]! - best.adds[0]!]
        : [Number.MAX_SAFE_INTEGER, Number.MAX_SAFE_INTEGER];
      const rank = [jobs[job]!.pin ? 1 : 0, second ? 0 : 1, ...regret, longest[job]!];
      if (!most || compareScores(rank, most) > 0) {
        most = rank;
        chosen = best;
      }
    }
    if (!chosen) return draft;
    set(problem, draft, chosen.slot, chosen.crew, chosen.order);
    const { night } = draft.slots[chosen.slot]!;
    // Shared machines bind the crews of a night.
    const changed = shares
      ? draft.slots.flatMap((slot, index) => (slot.night === night ? [index] : []))
      : [chosen.slot];
    for (const row of known.values()) for (const index of changed) row[index] = undefined;
    // Where something may go depends on where that is which it waits for.
    for (const one of related[chosen.job]!) known.delete(one);
  }
}

/** Which jobs wait for which, and whether crews share a machine. */
interface Ties {
  readonly waiting: readonly (readonly number[])[];
  readonly related: readonly (readonly number[])[];
  readonly shares: boolean;
  /** What a night of a crew holds at the most, s, and what of it each job takes at the least; by crew, and by crew and job. */
  readonly rooms: readonly number[];
  /** By job, s of its slowest crew. */
  readonly longest: readonly number[];
  readonly sizes: readonly Float64Array[];
}

const ties = new WeakMap<Problem, Ties>();

function tiesOf(problem: Problem): Ties {
  const known = ties.get(problem);
  if (known) return known;
  const { jobs, crews } = problem;
  const rooms = crews.map((_, crew) => roomOf(problem, crew));
  const waiting = jobs.map((_, job) => jobs.flatMap(({ after }, one) => (after.includes(job) ? [one] : [])));
  const own: Ties = {
    waiting,
    related: jobs.map(({ after }, job) => [...after, ...waiting[job]!]),
    shares: crews.some(({ shared }) => shared !== 0),
    rooms: rooms.map(({ minutes }) => minutes * 60),
    longest: jobs.map(({ works }) => Math.max(...works.map((work) => work?.mean ?? 0))),
    sizes: crews.map((_, crew) =>
      Float64Array.from(jobs, ({ works }, job) =>
        works[crew] ? sizeOf(problem, job, crew, rooms[crew]!) : Infinity,
      ),
    ),
  };
  ties.set(problem, own);
  return own;
}

/** By what two insertions add; a night that is opened by it comes first. */
function compareInsertions(a: Insertion, b: Insertion, openNights: ReadonlySet<number>): number {
  const opens = Number(!openNights.has(a.night)) - Number(!openNights.has(b.night));
  return opens || compareScores(a.adds, b.adds);
}

/** Whether a job costs the same in all nights that are alike. */
function isFree(problem: Problem, job: number): boolean {
  const { pin, onlyNight, after, notTonight, backBy } = problem.jobs[job]!;
  return (
    !pin &&
    notTonight === undefined &&
    onlyNight === null &&
    after.length === 0 &&
    backBy.every((due) => due === null) &&
    tiesOf(problem).waiting[job]!.length === 0
  );
}

/** The best way to put a job into a slot; null where there is none. */
function insertion(problem: Problem, draft: Draft, index: number, job: number): Insertion | null {
  const slot = draft.slots[index]!;
  const { jobs, crews } = problem;
  const { night } = slot;
  // Shared machines that others have in that night.
  let shared = 0;
  for (const other of tiesOf(problem).shares ? draft.slots : [])
    if (other !== slot && other.night === night && other.order.length > 0)
      shared |= crews[other.crew]!.shared;
  const nightAt = (one: number) => (draft.at[one]! < 0 ? -1 : draft.slots[draft.at[one]!]!.night);
  // Between what it waits for and what waits for it, in this slot; elsewhere by nights.
  let from = 0;
  let to = slot.order.length;
  for (const one of jobs[job]!.after)
    if (draft.at[one] === index) from = Math.max(from, slot.order.indexOf(one) + 1);
    else if (nightAt(one) >= night || nightAt(one) < 0) return null;
  for (const [place, one] of slot.order.entries())
    if (jobs[one]!.after.includes(job)) to = Math.min(to, place);
  for (const one of tiesOf(problem).waiting[job]!)
    if (draft.at[one]! >= 0 && draft.at[one] !== index && nightAt(one) <= night) return null;
  let best: Insertion | null = null;
  const { rooms, sizes } = tiesOf(problem);
  const mayBeOver = jobs[job]!.pin !== null && slot.order.every((one) => jobs[one]!.pin);
  for (const crew of slot.variants) {
    // Most nights are full: that is seen at once.
    let size = sizes[crew]![job]!;
    for (const one of slot.order) size += sizes[crew]![one]!;
    if (size > rooms[crew]! && !mayBeOver) continue;
    if ((crews[crew]!.shared & shared) !== 0 || !allowed(problem, job, crew, night)) continue;
    if (crew !== slot.crew && !slot.order.every((one) => allowed(problem, one, crew, night))) continue;
    for (let place = from; place <= to; place += 1) {
      const order = [...slot.order.slice(0, place), job, ...slot.order.slice(place)];
      const cost = costIn(problem, night, crew, order);
      if (!cost.fits && !order.every((one) => jobs[one]!.pin)) continue;
      const adds = [
        cost.overtime - slot.cost.overtime,
        cost.travel - slot.cost.travel,
        slot.order.length === 0 ? 1 : 0,
        cost.splits - slot.cost.splits,
        night,
      ];
      if (!best || compareScores(adds, best.adds) < 0)
        best = { job, night, slot: index, crew, order, cost, adds };
    }
  }
  return best;
}

function planOf(problem: Problem, { slots, left }: Draft): Plan {
  const places: Place[] = slots
    .filter(({ order }) => order.length > 0)
    .map(({ night, crew, order }) => ({ night, crew, order }));
  return { places, left: [...left].sort((a, b) => a - b), score: scoreOf(problem, places) };
}

/** How much of a draft is left and what it costs; the work that is left stands behind the number of jobs, so that a search sees that it comes closer. */
function standing({ jobs }: Problem, { slots, left }: Draft): number[] {
  const sum = (of: (slot: Slot) => number) => slots.reduce((all, slot) => all + of(slot), 0);
  const work = [...left].reduce(
    (all, job) =>
      all + Math.min(...jobs[job]!.works.map((one) => one?.mean ?? Infinity).filter(Number.isFinite), 1e6),
    0,
  );
  const used = new Set(slots.filter(({ order }) => order.length > 0).map(({ night }) => night));
  return [
    left.size,
    Math.round(work),
    used.size,
    sum(({ cost }) => cost.overtime),
    sum(({ cost }) => cost.travel),
    sum(({ order }) => (order.length > 0 ? 1 : 0)),
    sum(({ cost }) => cost.splits),
    sum(({ night, order }) => night * order.length),
  ];
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

import { crewGroups } from './exact';
import { costOfOrder, scoreOf, type Cost, type Place, type Plan, type Problem } from './problem';

/** A plan under way: for each night and crew the jobs in order. */
export interface Draft {
  /** By night × crew group. */
  readonly slots: Slot[];
  readonly left: Set<number>;
  /** By job: its slot, or −1. */
  readonly at: Int32Array;
}

export interface Slot {
  readonly night: number;
  /** Ways in which the crew may be equipped; the first that can do it is taken. */
  readonly variants: readonly number[];
  /** The same for nights of a crew that are alike. */
  readonly kind: number;
  crew: number;
  order: readonly number[];
  cost: Cost;
}

const nothing: Cost = { overtime: 0, travel: 0, splits: 0, fits: true };

/** Nothing planned yet, in these nights. */
export function draftOf(problem: Problem, nights: readonly number[]): Draft {
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
export function draftFrom(problem: Problem, nights: readonly number[], { places }: Plan): Draft {
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

/** Gives a crew’s night another order; what was in it is left. */
export function set(
  problem: Problem,
  draft: Draft,
  index: number,
  crew: number,
  order: readonly number[],
): void {
  const slot = draft.slots[index]!;
  for (const job of slot.order) {
    draft.at[job] = -1;
    draft.left.add(job);
  }
  slot.order = order;
  slot.crew = order.length > 0 ? crew : slot.variants[0]!;
  slot.cost = order.length > 0 ? costOfOrder(problem, crew, slot.night, order) : nothing;
  for (const job of order) {
    draft.at[job] = index;
    draft.left.delete(job);
  }
}

/** Takes a job out. */
export function take(problem: Problem, draft: Draft, job: number): void {
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

export function copyOf({ slots, left, at }: Draft): Draft {
  return { slots: slots.map((slot) => ({ ...slot })), left: new Set(left), at: at.slice() };
}

export function planOf(problem: Problem, { slots, left }: Draft): Plan {
  const places: Place[] = slots
    .filter(({ order }) => order.length > 0)
    .map(({ night, crew, order }) => ({ night, crew, order }));
  return { places, left: [...left].sort((a, b) => a - b), score: scoreOf(problem, places) };
}

/** What a draft costs, as the score of a plan. */
export function standing({ slots, left }: Draft): number[] {
  const sum = (of: (slot: Slot) => number) => slots.reduce((all, slot) => all + of(slot), 0);
  const used = new Set(slots.filter(({ order }) => order.length > 0).map(({ night }) => night));
  return [
    left.size,
    used.size,
    sum(({ cost }) => cost.overtime),
    sum(({ cost }) => cost.travel),
    sum(({ order }) => (order.length > 0 ? 1 : 0)),
    sum(({ cost }) => cost.splits),
    sum(({ night, order }) => night * order.length),
  ];
}

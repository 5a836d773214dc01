import type { Draws } from '../machine/draws';
import { roomOf, sizeOf } from './bound';
import { set, type Draft } from './draft';
import { allowed, compareScores, costOfOrder, type Cost, type Problem } from './problem';

interface Insertion {
  readonly job: number;
  readonly night: number;
  readonly slot: number;
  readonly crew: number;
  readonly order: readonly number[];
  readonly cost: Cost;
  /** Of what the nights are worth, thousandths of a job; 0 where all are to have a place. */
  readonly takes: number;
  /** What it adds, compared from the first. */
  readonly adds: readonly number[];
}

/** Which job is put in first. */
export type Aim =
  /** All are to have a place: the one that would lose most by waiting. */
  | { readonly kind: 'all' }
  /** As many as possible are to have one: the one that takes least of the nights, by what a night of each crew is worth. */
  | { readonly kind: 'many'; readonly worth: readonly number[] };

/** Puts what is left where it adds least. */
export function filled(problem: Problem, draft: Draft, aim: Aim, random: Draws | null = null): Draft {
  const { jobs } = problem;
  const { related, shares, longest } = tiesOf(problem);
  // About the least first: what was tried once in vain is not tried again and again.
  const spread = random ? (random.chance(0.3) ? 0.8 : 0.2) : 0;
  const weights = jobs.map(() => 1 + spread * (random ? 2 * random.uniform() - 1 : 0));
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
        if (own === undefined) row[index] = own = insertion(problem, draft, index, job, aim);
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
      const pinned = jobs[job]!.pin ? 1 : 0;
      const rank =
        aim.kind === 'many'
          ? [pinned, -best.takes * weights[job]!]
          : [pinned, second ? 0 : 1, ...regret, longest[job]!];
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

/**
 * How near a draft is to a place for one more of those that are left; less is nearer. Where all are to have one: the work that is left, s of the quickest crew. Where as many as
 * possible are: room that is left together rather than here and there (as for packing bins: the sum of its squares; Falkenauer 1996).
 */
export function farness(problem: Problem, { slots, left }: Draft, aim: Aim): number {
  const { rooms, sizes, shortest } = tiesOf(problem);
  if (aim.kind === 'all') return Math.round([...left].reduce((sum, job) => sum + shortest[job]!, 0));
  return -Math.round(
    slots.reduce((sum, { crew, order }) => {
      const room = order.reduce((rest, job) => rest - sizes[crew]![job]!, rooms[crew]!) / 60;
      return sum + Math.max(0, room) ** 2;
    }, 0),
  );
}

/** Which jobs wait for which, and whether crews share a machine. */
interface Ties {
  readonly waiting: readonly (readonly number[])[];
  readonly related: readonly (readonly number[])[];
  readonly shares: boolean;
  /** What a night of a crew holds at the most, s, and what of it each job takes at the least; by crew, and by crew and job. */
  readonly rooms: readonly number[];
  /** By job, s of its slowest crew, and of its quickest. */
  readonly longest: readonly number[];
  readonly shortest: readonly number[];
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
    shortest: jobs.map(({ works }) => Math.min(...works.map((work) => work?.mean ?? 1e6))),
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
  return opens || a.takes - b.takes || compareScores(a.adds, b.adds);
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
function insertion(problem: Problem, draft: Draft, index: number, job: number, aim: Aim): Insertion | null {
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
      const cost = costOfOrder(problem, crew, night, order);
      if (!cost.fits && !order.every((one) => jobs[one]!.pin)) continue;
      const adds = [
        cost.overtime - slot.cost.overtime,
        cost.travel - slot.cost.travel,
        slot.order.length === 0 ? 1 : 0,
        cost.splits - slot.cost.splits,
        night,
      ];
      const room = sizes[crew]![job]! + 60 * (cost.travel - slot.cost.travel);
      const takes =
        aim.kind === 'many' ? Math.round((1000 * aim.worth[crew]! * room) / Math.max(1, rooms[crew]!)) : 0;
      if (!best || (takes - best.takes || compareScores(adds, best.adds)) < 0)
        best = { job, night, slot: index, crew, order, cost, takes, adds };
    }
  }
  return best;
}

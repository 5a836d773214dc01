import { crewGroups } from './exact';
import { allowed, breaches, costOfOrder, outcomeOf, type Place, type Plan } from './problem';
import type { NightsProblem } from './problemOf';

/** Why a job is where it is. */
export interface Why {
  readonly kind: 'pinned' | 'begun' | 'first' | 'later' | 'only-night';
  /** Why it is on none of the nights before, night by night. */
  readonly before: readonly WhyNot[];
}

/** Why a job is not in a night. */
export interface WhyNot {
  readonly night: number;
  readonly because:
    /** Nobody who works that night has the machines. */
    | { readonly kind: 'machines' }
    | { readonly kind: 'nobody' }
    | { readonly kind: 'only-night' }
    /** It waits for another that is done no sooner. */
    | { readonly kind: 'waits'; readonly job: number }
    /** With the crew that would be through soonest it would end so, s since the night begins; the chance that all is done in time. */
    | {
        readonly kind: 'late';
        readonly crew: number;
        readonly ends: number;
        readonly chance: number;
        /** Whether its own time to be back by is what fails. */
        readonly backBy: boolean;
      }
    /** It would do, and cost more. Minutes more of overtime and on the way; crews more. */
    | {
        readonly kind: 'dearer';
        readonly crew: number;
        readonly overtime: number;
        readonly travel: number;
        readonly crews: number;
      };
}

/** Why a job is where a plan has it: what stands against each night before. */
export function whyThere(nights: NightsProblem, plan: Plan, job: number): Why {
  const { problem } = nights;
  const own = problem.jobs[job]!;
  const place = plan.places.find(({ order }) => order.includes(job));
  if (!place) return { kind: 'first', before: [] };
  if (own.begun) return { kind: 'begun', before: [] };
  if (own.pin) return { kind: 'pinned', before: [] };
  if (own.onlyNight !== null) return { kind: 'only-night', before: [] };
  const before = Array.from({ length: place.night }, (_, night) => whyNot(nights, plan, job, night));
  return { kind: place.night === 0 ? 'first' : 'later', before };
}

/** Why a job is not in this night. */
export function whyNot({ problem }: NightsProblem, plan: Plan, job: number, night: number): WhyNot {
  const { jobs, crews } = problem;
  const own = jobs[job]!;
  if (own.onlyNight !== null && own.onlyNight !== night) return { night, because: { kind: 'only-night' } };
  const working = crews.flatMap((crew, index) => (crew.works[night] ? [index] : []));
  if (working.length === 0) return { night, because: { kind: 'nobody' } };
  if (working.every((crew) => !own.works[crew])) return { night, because: { kind: 'machines' } };
  const nightOf = (one: number) => plan.places.find(({ order }) => order.includes(one))?.night ?? Infinity;
  const waits = own.after.find((one) => nightOf(one) > night);
  if (waits !== undefined) return { night, because: { kind: 'waits', job: waits } };
  const without = plan.places
    .map((place) => ({ ...place, order: place.order.filter((one) => one !== job) }))
    .filter(({ order }) => order.length > 0);
  let best: {
    readonly place: Place;
    readonly chance: number;
    readonly ends: number;
    readonly fits: boolean;
    readonly own: number;
  } | null = null;
  for (const variants of crewGroups(problem)) {
    const there = without.find((place) => place.night === night && variants.includes(place.crew));
    for (const crew of there ? [there.crew, ...variants.filter((one) => one !== there.crew)] : variants) {
      const order = there?.order ?? [];
      if (!own.works[crew] || !crews[crew]!.works[night]) continue;
      if (!order.every((one) => allowed(problem, one, crew, night))) continue;
      for (let at = 0; at <= order.length; at += 1) {
        const place: Place = { night, crew, order: [...order.slice(0, at), job, ...order.slice(at)] };
        const others = without.filter((one) => one !== there);
        // Orders and machines are kept; whether it fits is what is asked.
        const broken = breaches(problem, { places: [...others, place], left: plan.left }).filter(
          (words) => !words.endsWith('does not fit'),
        );
        if (broken.length > 0) continue;
        const outcome = outcomeOf(problem, place);
        const { fits } = costOfOrder(problem, crew, night, place.order);
        if (!best || Number(fits) > Number(best.fits) || (fits === best.fits && outcome.chance > best.chance))
          best = { place, chance: outcome.chance, ends: outcome.ends, fits, own: outcome.timed[at]!.chance };
      }
    }
  }
  if (!best) {
    const first = own.after.find((one) => nightOf(one) === night) ?? own.after[0];
    return { night, because: first === undefined ? { kind: 'machines' } : { kind: 'waits', job: first } };
  }
  const { place, chance, ends, fits } = best;
  if (!fits) {
    const backBy = own.backBy[night] ?? null;
    return {
      night,
      because: {
        kind: 'late',
        crew: place.crew,
        ends,
        chance,
        backBy: backBy !== null && best.own < problem.reserve,
      },
    };
  }
  const sum = (places: readonly Place[]) => {
    let [overtime, travel] = [0, 0];
    for (const one of places) {
      const cost = costOfOrder(problem, one.crew, one.night, one.order);
      overtime += cost.overtime;
      travel += cost.travel;
    }
    return { overtime, travel, crews: places.length };
  };
  const replaced = without.filter(
    (one) => !(one.night === night && crews[one.crew]!.crew === crews[place.crew]!.crew),
  );
  const [now, then] = [sum(plan.places), sum([...replaced, place])];
  return {
    night,
    because: {
      kind: 'dearer',
      crew: place.crew,
      overtime: then.overtime - now.overtime,
      travel: then.travel - now.travel,
      crews: then.crews - now.crews,
    },
  };
}

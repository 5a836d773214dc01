import { compareFacts, type Calibration, type Conditions, type DueAbout, type GearFact } from '../facts';
import type { Cleaver, Machine } from './gear';
import type { CalibrationRules } from './rules';
import type { GearBook, GearUse } from './use';

/** Something that is due, by one rule, with what tripped it and the rule's own number (`limit`). */
export type Due = { readonly about: DueAbout } & (
  | { readonly rule: 'session'; readonly params: { readonly calibrated: boolean; readonly limit: number } }
  | {
      readonly rule: 'temperature' | 'humidity' | 'pressure';
      /** °C, % and kPa, at the last calibration and now. */
      readonly params: { readonly then: number; readonly now: number; readonly limit: number };
    }
  | { readonly rule: 'disuse'; readonly params: { readonly days: number; readonly limit: number } }
  | { readonly rule: 'electrodes'; readonly params: Readonly<Record<string, never>> }
  | { readonly rule: 'badRun'; readonly params: { readonly limit: number } }
  | {
      readonly rule: 'splices125' | 'splices400';
      readonly params: {
        readonly counts: Readonly<Record<125 | 400, number>>;
        readonly limits: Readonly<Record<125 | 400, number | null>>;
      };
    }
  | { readonly rule: 'electrodeLife'; readonly params: { readonly arcs: number; readonly limit: number } }
  | {
      readonly rule: 'cleaves';
      readonly params: {
        readonly cleaves: number;
        readonly position: number;
        readonly positions: number;
        readonly limit: number;
      };
    }
);

interface Standing {
  /** All that is due. */
  readonly due: readonly Due[];
  /** What of it the person has not passed over in this session: the bench asks for these. */
  readonly asks: readonly Due[];
}

export interface MachineStanding extends Standing {
  /** The last calibration that passed, or null. */
  readonly calibrated: Calibration | null;
  /** Tries that failed after it. */
  readonly failed: number;
  /** Splices after it. */
  readonly splices: number;
  /** On these electrodes: one for every splice and those of every try at a calibration, counted on from what the machine's own counter was read as. */
  readonly arcs: number;
  /** The weather as it was last looked at. */
  readonly weather: Conditions | null;
}

export interface CleaverStanding extends Standing {
  /** Ends cleaved on this position: two for every fiber spliced and every try at a calibration, and those that were cleaved again before the arc. */
  readonly cleaves: number;
  /** From 1. */
  readonly position: number;
}

/** What a try at a calibration fuses, where the machine's settings do not say: from memory, one pair of ends. */
export const usualCalibrationArcs = 1;

const hour = 3600 * 1000;
/** A night ends where nothing was done for so long, where no rule says otherwise. h */
const usualSession = 8;

/**
 * What is due at a splicing machine, by its rules.
 * @param now UTC
 */
export function machineStanding(machine: Machine, book: GearBook, now: string): MachineStanding {
  const { rules } = machine;
  const facts = factsOf(book, machine.id);
  const uses = usesOf(book, 'machine', machine.id);
  const calibrations = facts.filter((fact): fact is Calibration => fact.kind === 'calibration');
  const calibrated = calibrations.findLast((fact) => fact.body.passed) ?? null;
  const after = <T extends { readonly id: string; readonly madeAt: string }>(list: readonly T[]) =>
    calibrated ? list.filter((one) => compareFacts(one, calibrated) > 0) : list;

  const since = after(uses);
  const replaced = facts.findLast(
    (fact) =>
      fact.kind === 'gear-event' &&
      (fact.body.event === 'electrodes-replaced' || fact.body.event === 'arcs-read'),
  );
  const arcs =
    (replaced?.kind === 'gear-event' && replaced.body.event === 'arcs-read'
      ? (replaced.body.value ?? 0)
      : 0) +
    uses.filter((use) => !replaced || compareFacts(use, replaced) > 0).length +
    calibrations.filter((one) => !replaced || compareFacts(one, replaced) > 0).length *
      (machine.calibrationArcs ?? usualCalibrationArcs);
  const weather = lastWeather(facts);

  const session = sessionFrom(
    [
      ...uses,
      ...facts.filter((fact) => fact.kind === 'went-on' || (fact.kind === 'calibration' && fact.body.passed)),
    ],
    now,
    rules.session ?? usualSession,
  );
  const due: Due[] = [];
  const about = 'calibration';
  if (rules.session !== null && !(calibrated && Date.parse(calibrated.madeAt) >= session))
    due.push({
      about,
      rule: 'session',
      params: { calibrated: calibrated !== null, limit: rules.session },
    });
  if (calibrated && weather)
    for (const rule of ['temperature', 'humidity', 'pressure'] as const) {
      const [then, is, limit] = [calibrated.body.conditions[rule], weather[rule], rules[rule]];
      // Decimal fractions of a degree must not decide.
      if (then === null || is === null || limit === null || Math.abs(is - then) < limit - 1e-9) continue;
      due.push({ about, rule, params: { then, now: is, limit } });
    }
  const idle = lastOf([...uses, ...calibrations.filter((fact) => fact.body.passed)]);
  const days = idle === null ? 0 : (Date.parse(now) - idle) / (24 * hour);
  if (rules.disuse !== null && days >= rules.disuse)
    due.push({ about, rule: 'disuse', params: { days, limit: rules.disuse } });
  const handled = after(facts).filter(
    (fact) =>
      fact.kind === 'gear-event' &&
      (fact.body.event === 'electrodes-cleaned' || fact.body.event === 'electrodes-replaced'),
  ).length;
  if (rules.electrodes !== null && handled >= rules.electrodes)
    due.push({ about, rule: 'electrodes', params: {} });
  if (
    rules.badRun !== null &&
    since.length >= rules.badRun &&
    since.slice(-rules.badRun).every((use) => use.bad)
  )
    due.push({ about, rule: 'badRun', params: { limit: rules.badRun } });
  due.push(...countRules(rules, since));
  if (rules.electrodeLife !== null && arcs >= rules.electrodeLife)
    due.push({ about: 'electrodes', rule: 'electrodeLife', params: { arcs, limit: rules.electrodeLife } });

  return {
    calibrated,
    failed: after(calibrations).filter((fact) => !fact.body.passed).length,
    splices: since.length,
    arcs,
    weather,
    due,
    asks: stillAsked(due, facts, session),
  };
}

/** 400 μm fiber wears faster. Where a machine did both, each counts by its own rule's share. */
function countRules(rules: CalibrationRules, since: readonly GearUse[]): Due[] {
  const counts = { 125: 0, 400: 0 };
  for (const use of since) counts[use.cladding] += 1;
  const limits = { 125: rules.splices125, 400: rules.splices400 };
  const share = (cladding: 125 | 400) =>
    limits[cladding] === null ? 0 : counts[cladding] / limits[cladding];
  // Ten times a tenth is not quite one.
  if (share(125) + share(400) < 1 - 1e-9) return [];
  const rule = share(400) > share(125) ? 'splices400' : 'splices125';
  return [{ about: 'calibration', rule, params: { counts, limits } }];
}

/** What is due at a cleaver. */
export function cleaverStanding(cleaver: Cleaver, book: GearBook, now: string): CleaverStanding {
  const facts = factsOf(book, cleaver.id);
  const uses = usesOf(book, 'cleaver', cleaver.id);
  let position = 1;
  let base = 0;
  let from: GearFact | null = null;
  for (const fact of facts) {
    if (fact.kind !== 'gear-event') continue;
    if (fact.body.event === 'position-read')
      position = Math.min(cleaver.positions, Math.max(1, fact.body.value ?? 1));
    else if (fact.body.event === 'blade-turned') position = Math.min(cleaver.positions, position + 1);
    else if (fact.body.event === 'blade-replaced') position = 1;
    else if (fact.body.event !== 'cleaves-read') continue;
    // Reading the position does not say how much it has cleaved.
    if (fact.body.event === 'position-read') continue;
    base = fact.body.event === 'cleaves-read' ? (fact.body.value ?? 0) : 0;
    from = fact;
  }
  const counts = (one: { readonly id: string; readonly madeAt: string }) =>
    from === null || compareFacts(one, from) > 0;
  const cleaves =
    base +
    uses.filter(counts).reduce((sum, use) => sum + 2 * use.fibers, 0) +
    facts.reduce((sum, fact) => (fact.kind === 'recleave' && counts(fact) ? sum + fact.body.ends : sum), 0) +
    2 * calibrationsWith(cleaver.id, book, counts);
  const limit = cleaver.rules.cleaves;
  const due: Due[] =
    limit !== null && cleaves >= limit
      ? [
          {
            about: 'blade',
            rule: 'cleaves',
            params: { cleaves, position, positions: cleaver.positions, limit },
          },
        ]
      : [];
  const session = sessionFrom(
    [...uses, ...facts.filter((fact) => fact.kind === 'went-on')],
    now,
    usualSession,
  );
  return { cleaves, position, due, asks: stillAsked(due, facts, session) };
}

/** In their order, whatever order the book came in: a calibration may arrive hours late. */
function factsOf(book: GearBook, id: string): GearFact[] {
  return book.facts.filter((fact) => fact.subject.gearId === id).sort(compareFacts);
}

/**
 * How many tries at calibrations had their fiber cleaved with this cleaver: that with which the next splice at the same machine was made, or else the last one.
 * @param counts which tries are counted
 */
function calibrationsWith(cleaverId: string, book: GearBook, counts: (one: GearFact) => boolean): number {
  const tries = book.facts.filter((fact) => fact.kind === 'calibration' && counts(fact));
  const machines = new Set(tries.map((fact) => fact.subject.gearId));
  // The book may be years long: only what those machines made is looked through.
  const uses = book.uses
    .filter(({ machine, cleaver }) => machine !== null && cleaver !== null && machines.has(machine))
    .sort(compareFacts);
  return tries.filter((one) => {
    const own = uses.filter(({ machine }) => machine === one.subject.gearId);
    const next = own.find((use) => compareFacts(use, one) > 0) ?? own.at(-1);
    return next?.cleaver === cleaverId;
  }).length;
}

function usesOf(book: GearBook, as: 'machine' | 'cleaver', id: string): GearUse[] {
  const withdrawn = new Set(book.withdrawn);
  // In order of making, so that the last word stands.
  const bad = new Map([...book.corrected].sort(compareFacts).map((one) => [one.attemptId, one.bad]));
  return book.uses
    .filter((use) => use[as] === id && !withdrawn.has(use.id))
    .map((use) => {
      const is = bad.get(use.id) ?? use.bad;
      return is === use.bad ? use : { ...use, bad: is };
    })
    .sort(compareFacts);
}

/** Each value as it was last looked at. */
function lastWeather(facts: readonly GearFact[]): Conditions | null {
  let known = null as Conditions | null;
  for (const fact of facts) {
    if (fact.kind !== 'weather' && fact.kind !== 'calibration') continue;
    const { temperature, humidity, pressure } = fact.body.conditions;
    known = {
      temperature: temperature ?? known?.temperature ?? null,
      humidity: humidity ?? known?.humidity ?? null,
      pressure: pressure ?? known?.pressure ?? null,
    };
  }
  return known;
}

function lastOf(list: readonly { readonly madeAt: string }[]): number | null {
  // One by one: a list of a hundred thousand is too long for the arguments of Math.max.
  return list.reduce<number | null>(
    (last, { madeAt }) => Math.max(last ?? -Infinity, Date.parse(madeAt)),
    null,
  );
}

/** When the session began that still goes on: walking back from now until there is a gap of `hours` or more. ms since 1970 */
function sessionFrom(activity: readonly { readonly madeAt: string }[], now: string, hours: number): number {
  let begin = Date.parse(now);
  for (const at of activity.map((one) => Date.parse(one.madeAt)).sort((a, b) => b - a)) {
    if (begin - at >= hours * hour) break;
    begin = Math.min(begin, at);
  }
  return begin;
}

/**
 * What was passed over in this session is not asked again until it was put right or another rule trips. `session` is when it began.
 */
function stillAsked(due: readonly Due[], facts: readonly GearFact[], session: number): Due[] {
  const passedOver = new Set<string>();
  for (const fact of facts) {
    if (fact.kind === 'went-on') {
      if (Date.parse(fact.madeAt) >= session)
        fact.body.rules.forEach((rule) => passedOver.add(`${fact.body.about} ${rule}`));
    } else if (putsRight(fact)) {
      const about = putsRight(fact);
      for (const key of passedOver) if (key.startsWith(`${about} `)) passedOver.delete(key);
    }
  }
  return due.filter(({ about, rule }) => !passedOver.has(`${about} ${rule}`));
}

/** What a fact puts right, or null. */
export function putsRight(fact: GearFact): DueAbout | null {
  if (fact.kind === 'calibration') return fact.body.passed ? 'calibration' : null;
  if (fact.kind !== 'gear-event') return null;
  switch (fact.body.event) {
    case 'electrodes-replaced':
      return 'electrodes';
    case 'blade-turned':
    case 'blade-replaced':
      return 'blade';
    default:
      return null;
  }
}

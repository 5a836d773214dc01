import type { Cable } from '../../line/cable';
import { fiberUnits } from '../../line/fiberNumber';
import { spliceIdOf, type Attempt, type Fact } from '../../facts';
import { goesThrough, type Closure } from '../../plan/closure';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import { looseSides } from '../../splice/bench/looseSides';
import { quantileSorted } from '../../statistics/quantile';
import { isOpened, openedUnits } from '../../plan/opened/openedUnits';

/**
 * How long things take, in seconds. Common practice and from memory, to be replaced by what this crew measures.
 */
export interface Pace {
  /** Going there, setting up, looking round. */
  readonly setUp: number;
  /** Sheath and strength member of a cable that ends here; of one that goes through; of a drop or pigtail. */
  readonly openEnd: number;
  readonly openThrough: number;
  readonly openDrop: number;
  /** A tube taken off and its fibers cleaned; a pair of ribbons in its mesh. */
  readonly tube: number;
  readonly ribbonPair: number;
  /** Sleeve on, strip, clean, cleave, load, fuse, place: what the hands do for one splice. */
  readonly single: number;
  readonly ribbon: number;
  /** What the heater does for one sleeve. */
  readonly singleHeater: number;
  readonly ribbonHeater: number;
  /** Loose fibers into one ribbon, drying included. */
  readonly ribbonize: number;
  readonly seal: number;
  readonly test: number;
}

export const usualPace: Pace = {
  setUp: 20 * 60,
  openEnd: 20 * 60,
  openThrough: 30 * 60,
  openDrop: 8 * 60,
  tube: 4 * 60,
  ribbonPair: 2 * 60,
  single: 150,
  ribbon: 420,
  singleHeater: 40,
  ribbonHeater: 60,
  ribbonize: 300,
  seal: 25 * 60,
  test: 15 * 60,
};

/** One line of the arithmetic. Seconds. */
export interface EstimateLine {
  readonly id: 'set-up' | 'cable' | 'single' | 'ribbon' | 'ribbonize' | 'seal' | 'test';
  readonly what: string;
  readonly seconds: number;
  /** How it was computed, in numbers. */
  readonly how: string;
}

export interface Estimate {
  readonly lines: readonly EstimateLine[];
  readonly seconds: number;
}

/**
 * Time for `count` splices one after the other, seconds: the heater works on one sleeve while the hands prepare the next, so the slower of
 * the two sets the pace, and the first preparation and the last heating stand alone.
 */
export function splicingTime(count: number, hands: number, heater: number): number {
  return count === 0 ? 0 : hands + (count - 1) * Math.max(hands, heater) + heater;
}

export interface WorkLeft {
  /** 1 when nothing of a cable is prepared, 0 when all of it is; by cable. */
  readonly unprepared: ReadonlyMap<string, number>;
  /** Splices that are not settled yet. */
  readonly singles: number;
  readonly ribbons: number;
  readonly sealed: boolean;
}

/** What is to be done when nothing was done yet. */
export function allWork(closure: Closure, plan: ClosurePlan): WorkLeft {
  const splices = [...plan.splices, ...plan.unplaced];
  const singles = splices.filter((splice) => splice.kind === 'single').length;
  return {
    unprepared: new Map(closure.entries.map((entry) => [entry.cableId, 1])),
    singles,
    ribbons: splices.length - singles,
    sealed: false,
  };
}

/** The time that the rest of a closure takes, with its arithmetic. */
export function estimateClosure(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  left: WorkLeft,
  pace: Pace,
  measured: MeasuredPace = { single: null, ribbon: null },
): Estimate {
  const lines: EstimateLine[] = [];
  const add = (id: EstimateLine['id'], what: string, seconds: number, how: string) => {
    if (seconds > 0) lines.push({ id, what, seconds, how });
  };
  const unprepared = closure.entries.filter((entry) => (left.unprepared.get(entry.cableId) ?? 1) > 0);
  const opening = unprepared.some((entry) => isOpened(plan, closure, entry.cableId));
  if (opening || left.singles + left.ribbons > 0) add('set-up', 'Set up', pace.setUp, minutes(pace.setUp));
  for (const entry of unprepared) {
    const cable = cables.get(entry.cableId);
    if (!cable || !isOpened(plan, closure, cable.id)) continue;
    const share = left.unprepared.get(cable.id) ?? 1;
    const { kind } = cable.construction;
    const small = kind === 'drop' || kind === 'pigtails';
    const open = small ? pace.openDrop : goesThrough(entry.manner) ? pace.openThrough : pace.openEnd;
    const { opened } = openedUnits(plan, cable, entry.manner);
    const ribbons = fiberUnits(cable.construction)[0]!.kind === 'ribbon';
    const units = small ? 0 : opened.length;
    const pairs = Math.ceil(units / 2);
    const inside = ribbons && kind === 'central-ribbon' ? pairs * pace.ribbonPair : units * pace.tube;
    add(
      'cable',
      `Prepare ${cable.label}`,
      share * (open + inside),
      [
        minutes(open),
        units === 0
          ? null
          : kind === 'central-ribbon'
            ? `${pairs} ${pairs === 1 ? 'pair' : 'pairs'} × ${minutes(pace.ribbonPair)}`
            : `${units} ${units === 1 ? 'tube' : 'tubes'} × ${minutes(pace.tube)}`,
        share < 1 ? `${Math.round(share * 100)} % left` : null,
      ]
        .filter(Boolean)
        .join(' + ')
        .replace(/ \+ (\d+ % left)$/, ', $1'),
    );
  }
  const loose = ribbonizedSides(plan, cables);
  const all = allWork(closure, plan).ribbons;
  if (loose > 0 && left.ribbons > 0) {
    const share = Math.ceil((loose * left.ribbons) / all);
    add(
      'ribbonize',
      'Make ribbons of loose fibers',
      share * pace.ribbonize,
      `${share} × ${minutes(pace.ribbonize)}`,
    );
  }
  const splice = (
    id: 'single' | 'ribbon',
    count: number,
    hands: number,
    heater: number,
    own: number | null,
  ) => {
    if (count === 0) return;
    const what = `${count} ${id === 'single' ? 'single splices' : count === 1 ? 'ribbon' : 'ribbons'}`;
    if (own !== null) add(id, what, count * own, `${count} × ${minutes(own)}, as measured here`);
    else
      add(
        id,
        what,
        splicingTime(count, hands, heater),
        `${count} × ${minutes(Math.max(hands, heater))} (${heater > hands ? 'the heater sets the pace' : 'the heater works alongside'}) + ${minutes(Math.min(hands, heater))}`,
      );
  };
  splice('single', left.singles, pace.single, pace.singleHeater, measured.single);
  splice('ribbon', left.ribbons, pace.ribbon, pace.ribbonHeater, measured.ribbon);
  if (!left.sealed) {
    add('seal', 'Seal', pace.seal, minutes(pace.seal));
    if ((closure.testPressure ?? 0) > 0) add('test', 'Flash test', pace.test, minutes(pace.test));
  }
  return { lines, seconds: lines.reduce((sum, line) => sum + line.seconds, 0) };
}

function ribbonizedSides(plan: ClosurePlan, cables: ReadonlyMap<string, Cable>): number {
  let sides = 0;
  for (const { kind, left, right } of [...plan.splices, ...plan.unplaced])
    sides += looseSides({ kind, left, right }, cables).length;
  return sides;
}

/**
 * What it would save to make ribbons of the loose fibers, seconds; negative when it would cost time. Twelve singles become one ribbon, and both
 * sides are glued first.
 */
export function ribbonizingSaves(
  singles: number,
  pace: Pace,
): { readonly ribbons: number; readonly seconds: number } {
  const ribbons = Math.ceil(singles / 12);
  const now = splicingTime(singles, pace.single, pace.singleHeater);
  const then = splicingTime(ribbons, pace.ribbon, pace.ribbonHeater) + 2 * ribbons * pace.ribbonize;
  return { ribbons, seconds: now - then };
}

export interface MeasuredPace {
  /** Seconds a splice, redos included; null while there are too few. */
  readonly single: number | null;
  readonly ribbon: number | null;
}

/** A longer pause was not splicing, seconds. */
const pause = 20 * 60;
/** Fewer intervals say nothing about a pace. */
const fewest = 8;

/**
 * The pace of a closure so far: the median time from one attempt to the next of the same person, times the tries that a splice took. Pauses
 * are left out.
 */
export function measuredPace(facts: Iterable<Fact>): MeasuredPace {
  const attempts: Attempt[] = [];
  const withdrawn = new Set<string>();
  for (const fact of facts) {
    if (fact.kind === 'attempt') attempts.push(fact);
    else if (fact.kind === 'correction' && fact.body.result === null) withdrawn.add(fact.body.attemptId);
  }
  const standing = attempts.filter((attempt) => !withdrawn.has(attempt.id));
  return { single: paceOf(standing, false), ribbon: paceOf(standing, true) };
}

function paceOf(attempts: readonly Attempt[], ribbons: boolean): number | null {
  const own = attempts.filter((attempt) => attempt.body.readings.length > 1 === ribbons);
  const byPerson = new Map<string | null, number[]>();
  for (const attempt of own) {
    const times = byPerson.get(attempt.by) ?? [];
    times.push(Date.parse(attempt.madeAt) / 1000);
    byPerson.set(attempt.by, times);
  }
  const intervals: number[] = [];
  for (const times of byPerson.values()) {
    times.sort((a, b) => a - b);
    for (let index = 1; index < times.length; index += 1) {
      const interval = times[index]! - times[index - 1]!;
      if (interval > 0 && interval <= pause) intervals.push(interval);
    }
  }
  if (intervals.length < fewest) return null;
  const tries = own.length / new Set(own.map(spliceIdOf)).size;
  return (
    quantileSorted(
      intervals.sort((a, b) => a - b),
      0.5,
    )! * tries
  );
}

/** Against the window: when it ends, and what is spare (negative: over). Times in UTC. */
export function againstWindow(
  seconds: number,
  now: string,
  window: { readonly opens: string; readonly closes: string } | null,
): { readonly begins: string; readonly ends: string; readonly spare: number | null } {
  const at = Date.parse(now);
  const opens = window ? Date.parse(window.opens) : at;
  const closes = window ? Date.parse(window.closes) : null;
  // A night that is still to come, or over, is reckoned from its beginning.
  const begins = closes !== null && (at < opens || at >= closes) ? opens : at;
  const ends = begins + seconds * 1000;
  return {
    begins: new Date(begins).toISOString(),
    ends: new Date(ends).toISOString(),
    spare: closes === null ? null : (closes - ends) / 1000,
  };
}

/** "2 h 05 min", "40 min", "35 s". */
export function minutes(seconds: number): string {
  const sign = seconds < 0 ? '−' : '';
  const length = Math.abs(seconds);
  if (length < 60) return `${sign}${Math.round(length)} s`;
  if (length < 600 && length % 60 !== 0) {
    const whole = Math.round(length);
    return `${sign}${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, '0')} s`;
  }
  const total = Math.round(length / 60);
  if (total < 60) return `${sign}${total} min`;
  return `${sign}${Math.floor(total / 60)} h ${String(total % 60).padStart(2, '0')} min`;
}

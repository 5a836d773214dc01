import type { Attempt, Fact } from '../../facts';
import { spliceHistory } from '../../splice/record/history';
import type { ClosureLedger } from '../../splice/record/ledger';
import type { Reading } from '../../splice/record/reading';
import { pairsOf } from './rows';
import { westernElectric, type WesternElectricRule } from '../../statistics/controlCharts';
import { quantileSorted } from '../../statistics/quantile';
import { rankSum } from '../../statistics/rankSum';
import { normalCdf } from '../../statistics/normal';
import { happenedOf } from '../series/seriesOf';
import { evened, halfStep, levelOf, type Happened } from '../series/tried';

/** A try in the order of time, against what such tries read. */
export interface TimePoint {
  readonly attempt: string;
  readonly splice: string;
  readonly closureId: string;
  /** ms since 1970. */
  readonly at: number;
  readonly kind: 'single' | 'ribbon';
  /** dB: of a single fiber what it read, of a ribbon its middle (or the one position that is looked at). */
  readonly loss: number;
  /** How many deviations it lies above the middle. */
  readonly z: number;
  readonly rules: readonly WesternElectricRule[];
  readonly person: string | null;
  readonly machine: string | null;
}

/** What happened between the tries: before the point with this index. */
export interface TimeMark {
  readonly before: number;
  readonly event: Happened;
}

/** The middle and the three-deviation lines of a kind, dB. */
export interface TimeLimits {
  readonly kind: 'single' | 'ribbon';
  readonly middle: number;
  readonly upper: number;
  readonly lower: number;
}

/** What a calibration did: the tries before it against those after. */
export interface AfterCalibration {
  readonly at: number;
  readonly machine: string;
  readonly kind: 'single' | 'ribbon';
  readonly before: { readonly count: number; readonly median: number };
  readonly after: { readonly count: number; readonly median: number };
  /** The chance of such a difference where the calibration did nothing (rank sum, both sides). */
  readonly chance: number;
  readonly says: 'better' | 'worse' | 'no-difference';
}

export interface InTime {
  readonly points: readonly TimePoint[];
  readonly marks: readonly TimeMark[];
  readonly limits: readonly TimeLimits[];
  readonly calibrations: readonly AfterCalibration[];
}

/**
 * Better or not after a calibration: Wilcoxon's rank sum (1945) of up to so many tries on either side, at least so many, of one machine and kind. At this threshold 1 in 20 calibrations
 * that did nothing is called one that did.
 */
export const calibrationRule = { name: 'calibration', threshold: 1.96, most: 20, least: 8, errorRate: 0.05 };

/** A try as the chart looks at it, with its fibers as the plan names them. */
export interface TimedTry {
  readonly attempt: string;
  readonly splice: string;
  readonly closureId: string;
  readonly at: number;
  readonly kind: 'single' | 'ribbon';
  /** dB, by position. */
  readonly losses: readonly (number | null)[];
  readonly pair: string;
  readonly machine: string | null;
  readonly cleaver: string | null;
  readonly person: string | null;
}

/** Every try of the splices that are planned, and what happened to the gear beside them, each in the order of time. */
export interface Timeline {
  readonly tries: readonly TimedTry[];
  readonly events: readonly Happened[];
}

export function timeline(
  closures: readonly {
    readonly closureId: string;
    readonly ledger: ClosureLedger;
    readonly facts: Iterable<Fact>;
  }[],
): Timeline {
  const tries: TimedTry[] = [];
  // Their mode fields are not asked for here.
  const pairAt = pairsOf(new Map());
  const events: Happened[] = [];
  for (const { closureId, ledger, facts } of closures) {
    for (const { splices } of ledger.trays)
      for (const { splice, facts: own } of splices) {
        if (own.length === 0) continue;
        const [only] = own;
        const add = ({ id, madeAt, by, body }: Attempt, readings: readonly Reading[]) =>
          tries.push({
            attempt: id,
            splice: splice.id,
            closureId,
            at: Date.parse(madeAt),
            kind: splice.kind,
            losses: readings.length === 1 ? [readings[0]!.loss] : readings.map(({ loss }) => loss),
            pair: pairAt(splice).pair,
            machine: body.gear?.machine?.id ?? null,
            cleaver: body.gear?.cleaver?.id ?? null,
            person: by,
          });
        // Nearly every splice was tried once; then its history need not be written out.
        if (own.length === 1 && only!.kind === 'attempt') {
          if (only!.body.light === undefined) add(only!, only!.body.readings);
        } else
          for (const { fact, readings, light } of spliceHistory(own).attempts)
            if (light === undefined) add(fact, readings);
      }
    for (const fact of facts) {
      // Nearly all are tries.
      if (fact.subject.on === 'splice') continue;
      const event = happenedOf(fact);
      if (event && event.what !== 'answered') events.push(event);
    }
  }
  return { tries: tries.sort((a, b) => a.at - b.at), events: events.sort((a, b) => a.at - b.at) };
}

/** Back from the scale on which good losses lie evenly. dB */
const lossOf = (level: number) => Math.max(0, level * level * level * level - halfStep);

/**
 * The tries that are looked at, as a chart of single values (Montgomery, Introduction to Statistical Quality Control, 6.4): middle and deviation from the mean moving range (by 1.128), kind by
 * kind, on the scale on which good losses lie evenly; and the Western Electric rules at each. Together those rules trip once in about 92 points where nothing is wrong (Champ and Woodall 1987).
 * @param wanted whether a try is looked at; of a ribbon with the position, where one is asked for
 */
export function inTime(
  { tries, events }: Timeline,
  wanted: (tried: TimedTry) => boolean,
  position: number | null = null,
): InTime {
  const raw: { tried: TimedTry; level: number }[] = [];
  for (const tried of tries) {
    if (!wanted(tried)) continue;
    const level = levelAt(tried, position);
    if (level !== null) raw.push({ tried, level });
  }
  const marks: TimeMark[] = [];
  let before = 0;
  for (const event of events) {
    while (before < raw.length && raw[before]!.tried.at < event.at) before += 1;
    marks.push({ before, event });
  }
  const limits: TimeLimits[] = [];
  const scale = new Map<string, { middle: number; deviation: number }>();
  for (const kind of ['single', 'ribbon'] as const) {
    const levels = raw.filter(({ tried }) => tried.kind === kind).map(({ level }) => level);
    if (levels.length < 2) continue;
    const middle = levels.reduce((sum, level) => sum + level, 0) / levels.length;
    let moved = 0;
    for (let at = 1; at < levels.length; at += 1) moved += Math.abs(levels[at]! - levels[at - 1]!);
    const deviation = moved / (levels.length - 1) / 1.128;
    scale.set(kind, { middle, deviation });
    limits.push({
      kind,
      middle: lossOf(middle),
      upper: lossOf(middle + 3 * deviation),
      lower: lossOf(Math.max(0, middle - 3 * deviation)),
    });
  }
  const behind: Record<'single' | 'ribbon', number[]> = { single: [], ribbon: [] };
  const points = raw.map(({ tried, level }): TimePoint => {
    const { middle, deviation } = scale.get(tried.kind) ?? { middle: level, deviation: 0 };
    const z = deviation > 0 ? (level - middle) / deviation : 0;
    const last = behind[tried.kind];
    last.push(z);
    if (last.length > 8) last.shift();
    return {
      attempt: tried.attempt,
      splice: tried.splice,
      closureId: tried.closureId,
      at: tried.at,
      kind: tried.kind,
      loss: lossOf(level),
      z,
      rules: deviation > 0 && canTrip(last) ? westernElectric(last) : none,
      person: tried.person,
      machine: tried.machine,
    };
  });
  return { points, marks, limits, calibrations: afterCalibrations(points, marks) };
}

const none: readonly WesternElectricRule[] = [];

/** Whether any rule can trip at the last one: it is beyond one deviation, or all eight lie on its side. */
function canTrip(last: readonly number[]): boolean {
  const z = last.at(-1)!;
  return Math.abs(z) > 1 || (last.length === 8 && last.every((other) => other * z > 0));
}

function levelAt({ losses }: TimedTry, position: number | null): number | null {
  if (position === null && losses.length > 1) return levelOf({ losses });
  const own = losses[(position ?? 1) - 1] ?? null;
  return own === null ? null : evened(own);
}

function afterCalibrations(
  points: readonly TimePoint[],
  marks: readonly TimeMark[],
): readonly AfterCalibration[] {
  const { most, least, threshold } = calibrationRule;
  const made = marks.flatMap(({ before, event }) =>
    event.what === 'calibrated' ? [{ before, at: event.at, machine: event.machine }] : [],
  );
  return made.flatMap(({ before, at, machine }, index) => {
    const others = made.filter((one) => one.machine === machine);
    const place = others.indexOf(made[index]!);
    const from = others[place - 1]?.before ?? 0;
    const to = others[place + 1]?.before ?? points.length;
    return (['single', 'ribbon'] as const).flatMap((kind): AfterCalibration[] => {
      const own = (start: number, end: number) =>
        points
          .slice(start, end)
          .filter((point) => point.machine === machine && point.kind === kind)
          .map(({ loss }) => loss);
      const one = own(before, to).slice(0, most);
      const other = own(from, before).slice(-most);
      if (one.length < least || other.length < least) return [];
      const { z } = rankSum(one, other)!;
      const median = (losses: readonly number[]) =>
        quantileSorted(
          losses.toSorted((a, b) => a - b),
          0.5,
        )!;
      return [
        {
          at,
          machine,
          kind,
          before: { count: other.length, median: median(other) },
          after: { count: one.length, median: median(one) },
          chance: 2 * normalCdf(-Math.abs(z)),
          says: Math.abs(z) < threshold ? 'no-difference' : z < 0 ? 'better' : 'worse',
        },
      ];
    });
  });
}

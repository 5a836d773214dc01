import type { CalibrationRules } from '../gear/rules';
import type { Limits } from '../limits/limits';
import { lossLimit } from '../splice/record/verdict';
import { RecordBuilder, type OddsRecord } from './odds/record';
import { isOver, type LiveNight, type Said } from './said';
import type { Told } from './series/seriesOf';
import { levelOf, meanOf, type Happened, type Tried } from './series/tried';
import { causesOf, type Cause } from './watch/causes';
import { JobWatch, NightWatch } from './watch/family';
import {
  addTo,
  blended,
  blendedShare,
  nothingEarlier,
  usual,
  type Earlier,
  type Reference,
} from './watch/reference';
import { trips, type RuleName, type Strength } from './watch/rule';
import { sawOf } from './watch/saw';

/** Rules that name what they are about themselves; said last, and kindly. */
const ownNames: readonly RuleName[] = ['position-of-blade', 'machine', 'person'];

/** Which rules show a cause, best first. */
const shows: Readonly<Record<Cause, readonly RuleName[]>> = {
  dirt: ['over', 'breaks', 'level'],
  groove: ['position', 'over'],
  blade: ['blade', 'side', 'level'],
  holder: ['side', 'blade'],
  arc: ['conditions', 'shift', 'drift', 'level'],
  electrodes: ['level', 'drift', 'shift', 'over'],
  program: ['over', 'level', 'breaks'],
  stripper: ['cold', 'breaks'],
  fiber: ['pair', 'level', 'shift'],
};

interface Night {
  readonly machine: string | null;
  readonly watch: NightWatch;
  readonly tried: Tried[];
  last: number;
}

export interface JudgeContext {
  readonly limits: Limits;
  /** Calibration rules of a machine; the usual ones where it is not known. */
  readonly rulesOf?: (machine: string) => CalibrationRules | undefined;
}

/** Watches over a job: told what happened in the order of time, it says what the experienced splicer beside you would say. */
export class Judge {
  private readonly nights = new Map<string, Night>();
  private readonly job = new JobWatch();
  private readonly builder: RecordBuilder;
  /** Of the job: tries since each rule that looks at it all began anew. */
  private readonly all: Tried[] = [];
  private level: Record<Tried['kind'], Earlier> = { single: nothingEarlier, ribbon: nothingEarlier };
  private over: Record<Tried['kind'], { bad: number; all: number }> = {
    single: { bad: 0, all: 0 },
    ribbon: { bad: 0, all: 0 },
  };
  private angle: Earlier = nothingEarlier;
  /** What was last known of a machine, for the night that begins. */
  private readonly weather = new Map<string, Happened[]>();

  constructor(private readonly context: JudgeContext) {
    const { limits } = context;
    this.builder = new RecordBuilder(({ kind }) => lossLimit(kind, limits), limits.cleaveAngleMax);
  }

  tell(one: Told): void {
    if ('tried' in one) this.add(one.tried);
    else this.happened(one.event);
  }

  get record(): OddsRecord {
    return this.builder;
  }

  private add(tried: Tried): void {
    this.builder.add(tried);
    this.job.add(tried);
    this.all.push(tried);
    const key = tried.machine ?? '';
    let night = this.nights.get(key);
    if (!night || isOver(night.last, tried.at)) {
      if (night) this.remember(night);
      night = this.begin(tried.machine);
      this.nights.set(key, night);
    }
    night.last = tried.at;
    night.watch.add(tried);
    night.tried.push(tried);
  }

  private happened(event: Happened): void {
    this.job.happened(event);
    const machine = 'machine' in event ? event.machine : undefined;
    if (machine != null && (event.what === 'calibrated' || event.what === 'weather'))
      this.weather.set(
        machine,
        [...(event.what === 'calibrated' ? [] : (this.weather.get(machine) ?? [])), event].slice(-8),
      );
    for (const night of this.nights.values())
      if (machine === undefined || machine === night.machine) night.watch.happened(event);
  }

  private begin(machine: string | null): Night {
    const { rulesOf } = this.context;
    const watch = new NightWatch(this.reference(), (machine && rulesOf?.(machine)) || undefined);
    // It was calibrated before its first splice.
    for (const event of (machine && this.weather.get(machine)) || []) watch.happened(event);
    return { machine, watch, tried: [], last: 0 };
  }

  private reference(): Reference {
    const of = <T>(make: (kind: Tried['kind']) => T) => ({ single: make('single'), ribbon: make('ribbon') });
    return {
      level: of((kind) => blended(usual.level[kind], this.level[kind])),
      angle: blended(usual.angle, this.angle),
      over: of((kind) => blendedShare(usual.over[kind], this.over[kind].bad, this.over[kind].all)),
    };
  }

  /** A night that is over becomes part of what is usual, unless something was wrong in it. */
  private remember({ watch, tried }: Night): void {
    if (watch.strengths().some(trips)) return;
    for (const one of tried) {
      const level = one.nth === 1 ? levelOf(one) : null;
      if (level !== null) {
        this.level[one.kind] = addTo(this.level[one.kind], level);
        const { bad, all } = this.over[one.kind];
        this.over[one.kind] = { bad: bad + (one.over ? 1 : 0), all: all + 1 };
      }
      const angle = meanOf([...one.left, ...one.right]);
      if (angle !== null) this.angle = addTo(this.angle, angle);
    }
  }

  /** The last night of each machine, whether or not it is over by now, the latest first. */
  lastNights(): readonly LiveNight[] {
    return [...this.nights.values()]
      .map((night) => ({
        machine: night.machine,
        last: night.last,
        kind: night.tried.at(-1)!.kind,
        said: this.saidOf(night),
      }))
      .sort((a, b) => b.last - a.last);
  }

  /**
   * The one thing to say of a machine's night; null: nothing.
   * @param machine null: splices of which no machine is on record
   * @param now ms since 1970: a night that is over by then says nothing any more
   */
  said(machine: string | null, now: number): Said | null {
    const night = this.nights.get(machine ?? '');
    return night && !isOver(night.last, now) ? this.saidOf(night) : null;
  }

  private saidOf(night: Night): Said | null {
    const strengths = [...night.watch.strengths(), ...this.job.strengths()];
    const tripped = strengths.filter(trips);
    if (tripped.length === 0) return null;
    const specific = tripped.filter(({ rule }) => !ownNames.includes(rule));
    const named = specific.length > 0 ? causesOf(strengths, night.tried.at(-1)!.kind) : [];
    const [likeliest, next] = named;
    const strength =
      specific.length === 0
        ? tripped.toSorted((a, b) => ownNames.indexOf(a.rule) - ownNames.indexOf(b.rule))[0]!
        : (firstOf(specific, shows[likeliest!.cause]) ?? strongest(specific));
    const since = night.tried;
    return {
      strength,
      saw: sawOf(strength, jobWide(strength.rule) ? this.all : since),
      machine: night.machine,
      cause: likeliest?.cause ?? null,
      runnerUp: next?.cause ?? null,
      share: likeliest?.share ?? 0,
      sinking:
        ['shift', 'drift', 'level'].includes(strength.rule) &&
        since.slice(-strength.count).every(({ over, broke }) => !over && !broke),
      also: [...new Set(tripped.map(({ rule }) => rule))].filter((rule) => rule !== strength.rule),
    };
  }
}

const jobWide = (rule: RuleName) => rule === 'pair' || ownNames.includes(rule);

function firstOf(strengths: readonly Strength[], rules: readonly RuleName[]): Strength | undefined {
  for (const rule of rules) {
    const own = strengths.filter((one) => one.rule === rule);
    if (own.length > 0) return strongest(own);
  }
  return undefined;
}

function strongest(strengths: readonly Strength[]): Strength {
  return strengths.reduce((best, one) =>
    one.statistic / one.threshold > best.statistic / best.threshold ? one : best,
  );
}

import {
  compareFacts,
  mostPressure,
  type Fact,
  type FlashTest,
  type HoldingTest,
  type Reopening,
  type SealCheck,
  type SealName,
  type SealPoint,
} from '../facts';
import { sealKey } from './seals';

/** A point as one text, to look it up by. */
export function pointKey(point: SealPoint): string {
  switch (point.what) {
    case 'whole':
      return point.point;
    case 'tray':
      return `tray ${point.tray}`;
    case 'seal':
    case 'coil':
      return `${point.what} ${point.cableId}`;
    case 'plugs':
      return `plugs ${point.port} ${point.count}`;
    case 'tightened':
      return `tightened ${sealKey(point.seal)}`;
  }
}

type Flash<D extends FlashTest['body']['did']> = FlashTest & {
  readonly body: Extract<FlashTest['body'], { did: D }>;
};
type Holding<D extends HoldingTest['body']['did']> = HoldingTest & {
  readonly body: Extract<HoldingTest['body'], { did: D }>;
};

/** From pumping up until the pressure is let out. */
export interface FlashRound {
  /** From 1, over all that was tested at the closure. */
  readonly number: number;
  readonly pumped: Flash<'pumped'>;
  /** What the gauge showed last, kPa: it may have been pumped up again. */
  readonly kPa: number;
  /** It went over the stop. */
  readonly over: readonly Flash<'over'>[];
  /** The last look at each seal while there was pressure, by its key. */
  readonly looked: ReadonlyMap<string, Flash<'looked'>>;
  /** null: there is pressure in the closure. */
  readonly released: Flash<'released'> | null;
  /** Seals that were set anew after it, in order. */
  readonly reseated: readonly Flash<'reseated'>[];
  /** The closure was opened again since. */
  readonly before: boolean;
}

export interface HoldingRun {
  readonly began: Holding<'began'>;
  readonly reads: readonly Holding<'read'>[];
  readonly dropped: Holding<'dropped'> | null;
  /** The closure was opened again since. */
  readonly before: boolean;
}

export interface Pressure {
  /** Gauge pressure as it was last known, kPa. */
  readonly kPa: number;
  /** When it was pumped up, UTC. */
  readonly since: string;
  readonly over: boolean;
}

/** What the facts of a closure say of its seal. */
export interface SealState {
  /** Oldest first. */
  readonly reopenings: readonly Reopening[];
  /** The answers that count since it was last opened, by point; what was taken back is not among them. */
  readonly checks: ReadonlyMap<string, SealCheck>;
  readonly rounds: readonly FlashRound[];
  readonly holding: readonly HoldingRun[];
  /** null: as far as anybody said, there is none in it. */
  readonly pressure: Pressure | null;
  /** The cap of the valve is off since it was pumped up, and nobody said that it is back on. */
  readonly capOff: boolean;
}

/** Whatever order the facts come in; each id once. */
export function sealState(facts: Iterable<Fact>): SealState {
  const own = new Map<string, SealCheck | FlashTest | HoldingTest | Reopening>();
  for (const fact of facts)
    if (
      fact.kind === 'seal-check' ||
      fact.kind === 'flash-test' ||
      fact.kind === 'holding-test' ||
      fact.kind === 'reopening'
    )
      own.set(fact.id, fact);
  const inOrder = [...own.values()].sort(compareFacts);

  const reopenings: Reopening[] = [];
  let checks = new Map<string, SealCheck>();
  const rounds: Round[] = [];
  const runs: Run[] = [];
  let pressure = null as Pressure | null;
  let capOff = false;
  for (const fact of inOrder)
    switch (fact.kind) {
      case 'reopening':
        reopenings.push(fact);
        checks = new Map();
        for (const one of [...rounds, ...runs]) one.before = true;
        break;
      case 'seal-check': {
        const key = pointKey(fact.body.point);
        if (fact.body.answer === 'open') checks.delete(key);
        else checks.set(key, fact);
        break;
      }
      case 'holding-test':
        if (fact.body.did === 'began') {
          runs.push({ began: fact as Holding<'began'>, reads: [], dropped: null, before: false });
          pressure = { kPa: fact.body.gauge, since: pressure?.since ?? fact.madeAt, over: false };
          capOff = true;
        } else {
          const { beganId } = fact.body;
          const run = runs.find(({ began }) => began.id === beganId);
          if (fact.body.did === 'dropped') {
            if (run) run.dropped = fact as Holding<'dropped'>;
          } else {
            run?.reads.push(fact as Holding<'read'>);
            if (pressure)
              pressure = { ...pressure, kPa: fact.body.gauge, over: fact.body.gauge > mostPressure };
          }
        }
        break;
      case 'flash-test':
        [pressure, capOff] = flashed(fact, rounds, pressure, capOff);
    }
  return { reopenings, checks, rounds, holding: runs, pressure, capOff };
}

type Writable<T> = { -readonly [K in keyof T]: T[K] };
type Round = Writable<Omit<FlashRound, 'looked' | 'over' | 'reseated'>> & {
  looked: Map<string, Flash<'looked'>>;
  over: Flash<'over'>[];
  reseated: Flash<'reseated'>[];
};
type Run = Writable<Omit<HoldingRun, 'reads'>> & { reads: Holding<'read'>[] };

/** What a step of a flash test makes of the rounds, the pressure and the cap. */
function flashed(
  fact: FlashTest,
  rounds: Round[],
  pressure: Pressure | null,
  capOff: boolean,
): [Pressure | null, boolean] {
  const running = rounds.at(-1)?.released === null ? rounds.at(-1)! : null;
  const { body } = fact;
  switch (body.did) {
    case 'pumped':
      if (running) running.kPa = body.kPa;
      else
        rounds.push({
          number: rounds.length + 1,
          pumped: fact as Flash<'pumped'>,
          kPa: body.kPa,
          over: [],
          looked: new Map(),
          released: null,
          reseated: [],
          before: false,
        });
      return [{ kPa: body.kPa, since: pressure?.since ?? fact.madeAt, over: false }, true];
    case 'over':
      running?.over.push(fact as Flash<'over'>);
      return [{ kPa: body.kPa, since: pressure?.since ?? fact.madeAt, over: true }, true];
    case 'looked': {
      // Without pressure nothing bubbles.
      const key = sealKey(body.seal);
      if (body.saw === 'open') running?.looked.delete(key);
      else running?.looked.set(key, fact as Flash<'looked'>);
      return [pressure, capOff];
    }
    case 'released':
      if (running) running.released = fact as Flash<'released'>;
      return [null, !body.capBack];
    case 'reseated':
      rounds.at(-1)?.reseated.push(fact as Flash<'reseated'>);
      return [pressure, capOff];
  }
}

/** What a round says: a seal bubbles; none does, of all that there are; there was too little pressure to say so; or not all were looked at. */
export type RoundResult = 'bubbles' | 'tight' | 'too-low' | 'open';

/** So much of the test pressure has to be in it, that the round counts: gauges differ. */
const enough = 0.95;

/**
 * @param seals that the closure has
 * @param testPressure of its model, kPa
 */
export function roundResult(
  { looked, kPa }: Pick<FlashRound, 'looked' | 'kPa'>,
  seals: readonly SealName[],
  testPressure: number,
): RoundResult {
  const saw = seals.map((seal) => looked.get(sealKey(seal))?.body.saw);
  if ([...looked.values()].some(({ body }) => body.saw === 'bubbles')) return 'bubbles';
  if (saw.some((one) => one !== 'none')) return 'open';
  return kPa < testPressure * enough ? 'too-low' : 'tight';
}

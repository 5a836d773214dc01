import {
  factVersion,
  runsOf,
  type Cable,
  type Calibration,
  type Fact,
  type Limits,
  type PlacedSplice,
  type StoredFact,
} from '@cordel/core';
import { newWear, type Weather } from '@cordel/core/machine';
import { usedGear, usedRibbonGear } from './gear';
import { seeded } from './seeded';
import { faultsOf, standInTry, tenths, type TriedFiber } from './standInTry';

type Trouble = 'redone' | 'allowed' | 'recleaved' | 'broken' | 'redo' | 'owner';

/** What goes wrong in a night, by tray and slot; everything else holds at the first try. */
export type Troubles = Readonly<Record<string, Trouble>>;

/**
 * What a crew records in a night: one splice after the other, with the readings of the simulated machine and the troubles that are asked for. The same
 * every time.
 * @param night when it begins, in the scenario's own time
 * @param shift ms that the scenario lies from the night it is shown in
 */
export function simulatedNight(
  splices: readonly PlacedSplice[],
  cables: ReadonlyMap<string, Cable>,
  closureId: string,
  limits: Limits,
  night: Date,
  shift: number,
  troubles: Troubles,
): StoredFact[] {
  const random = seeded(night.getTime() / 1000);
  const stored: StoredFact[] = [];
  let clock = night.getTime() + 14 * 60_000;
  const by = () => (stored.length % 40 < 26 ? 'Iara' : 'Davi');
  /** What a fact begins with that is made so many seconds after the one before. */
  const later = <K extends Fact['kind'], S>(seconds: number, kind: K, subject: S) => {
    clock += seconds * 1000;
    const madeAt = new Date(clock + shift);
    return {
      v: factVersion(kind),
      id: random.id(madeAt),
      kind,
      madeAt: madeAt.toISOString(),
      by: by(),
      device: null,
      subject,
    };
  };
  const atSplice = <K extends Fact['kind']>(kind: K, { left, right }: PlacedSplice) =>
    later(Math.round((2.6 + 2 * random.next()) * 60), kind, {
      on: 'splice' as const,
      closureId,
      left: runsOf(left),
      right: runsOf(right),
    });
  const atMachine = <K extends Fact['kind']>(kind: K) => {
    const { id: gearId, label } = usedGear.machine;
    return later(120, kind, { on: 'gear' as const, closureId, gearId, label });
  };
  const keep = (fact: Fact) => {
    stored.push({ fact, receivedAt: new Date(Date.parse(fact.madeAt) + 1000).toISOString() });
    return fact.id;
  };
  const seed = night.getTime() / 1000;
  let wear = { ...newWear, calibratedAt: evening };
  let weather: Weather = evening;
  const tries = new Map<PlacedSplice, number>();
  type Wanted = (tried: TriedFiber) => boolean;
  const attempt = (splice: PlacedSplice, fault: keyof typeof faultsOf, wanted: Wanted, note = '') => {
    const nth = tries.get(splice) ?? 0;
    tries.set(splice, nth + 1);
    const at = { wear, weather, faults: faultsOf[fault], nth };
    const readings = standInTry(seed, splice, cables, at, ([tried]) => wanted(tried!));
    const arcs = wear.electrodeArcs + 1;
    wear = { ...wear, electrodeArcs: arcs, arcsSinceCalibration: arcs, bladeCleaves: wear.bladeCleaves + 2 };
    return keep({
      ...atSplice('attempt', splice),
      body: {
        source: 'machine',
        simulated: true,
        gear: usedGear,
        readings,
        proofTestFailed: readings[0]!.loss === null,
        note,
      },
    });
  };
  /** As most go: the hands recleave before the arc where the machine sees that it is needed. */
  const good: Wanted = ({ fused, cleaves }) =>
    !fused.broke && fused.estimate <= limits.singleMax && wellCleaved(cleaves);
  const wellCleaved = ({ left, right }: TriedFiber['cleaves']) =>
    tenths(Math.max(left.angle, right.angle)) <= limits.cleaveAngleMax;
  /** Dust on the ends: it cost so much more than the limit. */
  const over = (by: number): readonly ['dust', Wanted] => [
    'dust',
    ({ fused, cleaves }) =>
      !fused.broke && fused.estimate === hundredths(limits.singleMax + by) && wellCleaved(cleaves),
  ];
  /** The machine is calibrated before the first splice of a night, and the weather is looked at now and then. */
  const calibrate = (conditions: Calibration['body']['conditions']) =>
    keep({ ...atMachine('calibration'), body: { passed: true, conditions, note: '' } });

  calibrate(evening);
  for (const [index, splice] of splices.entries()) {
    // After midnight it gets cold by the river, and nobody calibrates again.
    if (index === 36) {
      weather = { ...evening, temperature: 11, humidity: 82 };
      keep({
        ...atMachine('weather'),
        body: { conditions: { temperature: 11, humidity: 82, pressure: null }, note: '' },
      });
    }
    switch (troubles[`${splice.tray}.${splice.slot}`]) {
      case 'redone':
        attempt(splice, ...over(0.04));
        attempt(splice, 'none', good);
        break;
      case 'allowed': {
        attempt(splice, ...over(0.03));
        attempt(splice, ...over(0.04));
        const last = attempt(splice, ...over(0.02));
        keep({
          ...atSplice('owner-answer', splice),
          body: { attemptId: last, answer: 'allow', note: 'Spare fiber, budget has room.' },
        });
        break;
      }
      case 'recleaved':
        attempt(
          splice,
          'holder',
          ({ fused, cleaves: { left, right } }) =>
            fused.estimate === 0.06 && !fused.broke && tenths(left.angle) === 1.7 && right.angle <= 1,
        );
        attempt(splice, 'none', good);
        break;
      case 'broken':
        attempt(
          splice,
          'nick',
          ({ fused, cleaves }) => fused.broke && wellCleaved(cleaves),
          'Broke in the proof test.',
        );
        attempt(splice, 'none', good);
        break;
      case 'redo':
        attempt(splice, ...over(0.06));
        break;
      case 'owner':
        attempt(splice, ...over(0.05));
        attempt(splice, ...over(0.03));
        attempt(splice, ...over(0.03));
        break;
      case undefined:
        attempt(splice, 'none', good);
    }
  }
  return stored;
}

/** The ribbon from which on dirt lies in a groove, from 0. */
const dirtyFrom = 1;

/**
 * The ribbons of a night, by another person with another machine: each holds at its first try, and from the second one on a little dirt in one groove shows.
 * @param night when the first one is begun, in the scenario's own time
 */
export function ribbonNight(
  ribbons: readonly PlacedSplice[],
  cables: ReadonlyMap<string, Cable>,
  closureId: string,
  limits: Limits,
  night: Date,
  shift: number,
): StoredFact[] {
  const seed = night.getTime() / 1000;
  const random = seeded(seed);
  const stored: StoredFact[] = [];
  let clock = night.getTime();
  let wear = { ...newWear, calibratedAt: evening };
  const { machine } = usedRibbonGear;
  const keep = (minutes: number, make: (start: FactStart) => Fact) => {
    clock += Math.round(minutes * 60) * 1000;
    const at = new Date(clock + shift);
    const fact = make({ id: random.id(at), madeAt: at.toISOString(), by: 'Davi', device: null });
    stored.push({ fact, receivedAt: new Date(at.getTime() + 1000).toISOString() });
  };
  keep(2, (start) => ({
    ...start,
    v: factVersion('calibration'),
    kind: 'calibration',
    subject: { on: 'gear', closureId, gearId: machine.id, label: machine.label },
    body: { passed: true, conditions: evening, note: '' },
  }));
  ribbons.forEach((splice, index) => {
    const faults = faultsOf[index < dirtyFrom ? 'none' : 'groove'];
    const readings = standInTry(seed, splice, cables, { wear, weather: evening, faults, nth: 0 }, (tried) =>
      tried.every(
        ({ fused, cleaves: { left, right } }) =>
          !fused.broke &&
          fused.estimate <= limits.ribbonFiberMax &&
          tenths(Math.max(left.angle, right.angle)) <= limits.cleaveAngleMax,
      ),
    );
    wear = {
      ...wear,
      electrodeArcs: wear.electrodeArcs + 1,
      arcsSinceCalibration: wear.arcsSinceCalibration + 1,
      bladeCleaves: wear.bladeCleaves + 2 * readings.length,
    };
    keep(7 + 2 * random.next(), (start) => ({
      ...start,
      v: factVersion('attempt'),
      kind: 'attempt',
      subject: { on: 'splice', closureId, left: runsOf(splice.left), right: runsOf(splice.right) },
      body: {
        source: 'machine',
        simulated: true,
        gear: usedRibbonGear,
        readings,
        proofTestFailed: false,
        note: '',
      },
    }));
  });
  return stored;
}

type FactStart = Pick<Fact, 'id' | 'madeAt' | 'by' | 'device'>;

/** In the evening, at the river. */
const evening = { temperature: 21, humidity: 64, pressure: 96.4 };

function hundredths(loss: number): number {
  return Math.round(loss * 100) / 100;
}

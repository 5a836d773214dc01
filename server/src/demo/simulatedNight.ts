import {
  factVersion,
  runsOf,
  type Calibration,
  type Fact,
  type Limits,
  type PlacedSplice,
  type StoredFact,
} from '@cordel/core';
import { usedGear } from './gear';
import { seeded, type Seeded } from './seeded';

type Trouble = 'redone' | 'allowed' | 'recleaved' | 'broken' | 'redo' | 'owner';

/** What goes wrong in a night, by tray and slot; everything else holds at the first try. */
export type Troubles = Readonly<Record<string, Trouble>>;

/**
 * What a crew records in a night: one splice after the other, with the readings of a machine in good order and the troubles that are asked for. The same
 * every time.
 * @param night when it begins, in the scenario's own time
 * @param shift ms that the scenario lies from the night it is shown in
 */
export function simulatedNight(
  splices: readonly PlacedSplice[],
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
  const attempt = (
    splice: PlacedSplice,
    loss: number | null,
    more: { cleaveLeft?: number; note?: string } = {},
  ) =>
    keep({
      ...atSplice('attempt', splice),
      body: {
        source: 'machine',
        simulated: true,
        gear: usedGear,
        readings: [{ loss, cleaveLeft: more.cleaveLeft ?? angle(random), cleaveRight: angle(random) }],
        proofTestFailed: loss === null,
        note: more.note ?? '',
      },
    });
  /** The machine is calibrated before the first splice of a night, and the weather is looked at now and then. */
  const calibrate = (conditions: Calibration['body']['conditions']) =>
    keep({ ...atMachine('calibration'), body: { passed: true, conditions, note: '' } });
  const over = (by: number) => hundredths(limits.singleMax + by);

  calibrate({ temperature: 21, humidity: 64, pressure: 96.4 });
  for (const [index, splice] of splices.entries()) {
    // After midnight it gets cold by the river, and nobody calibrates again.
    if (index === 36)
      keep({
        ...atMachine('weather'),
        body: { conditions: { temperature: 11, humidity: 82, pressure: null }, note: '' },
      });
    switch (troubles[`${splice.tray}.${splice.slot}`]) {
      case 'redone':
        attempt(splice, over(0.04));
        attempt(splice, goodLoss(random));
        break;
      case 'allowed': {
        attempt(splice, over(0.03));
        attempt(splice, over(0.04));
        const last = attempt(splice, over(0.02));
        keep({
          ...atSplice('owner-answer', splice),
          body: { attemptId: last, answer: 'allow', note: 'Spare fiber, budget has room.' },
        });
        break;
      }
      case 'recleaved':
        attempt(splice, 0.06, { cleaveLeft: 1.7 });
        attempt(splice, goodLoss(random));
        break;
      case 'broken':
        attempt(splice, null, { note: 'Broke in the proof test.' });
        attempt(splice, goodLoss(random));
        break;
      case 'redo':
        attempt(splice, over(0.06));
        break;
      case 'owner':
        attempt(splice, over(0.05));
        attempt(splice, over(0.03));
        attempt(splice, over(0.03));
        break;
      case undefined:
        attempt(splice, goodLoss(random));
    }
  }
  return stored;
}

/** Mostly 0.01 to 0.04 dB, now and then up to 0.08 (common practice for a machine in good order). */
function goodLoss(random: Seeded): number {
  const skewed = random.next() ** 2.2;
  return hundredths(0.005 + 0.03 * random.next() + 0.03 * skewed);
}

function angle(random: Seeded): number {
  return Math.round((0.2 + 0.3 * random.next() + 0.3 * random.next()) * 10) / 10;
}

function hundredths(loss: number): number {
  return Math.round(loss * 100) / 100;
}

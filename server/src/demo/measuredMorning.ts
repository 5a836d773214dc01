import {
  factVersion,
  fiberOf,
  mismatchLoss,
  runsOf,
  spliceIdOf,
  type Attempt,
  type Cable,
  type PlacedSplice,
  type StoredFact,
} from '@cordel/core';
import { seeded } from './seeded';

/**
 * What a crew measures on the morning after: both ways by OTDR at 1550 nm, through the first splices of a closure. Made up from what the simulated machine estimated, whose camera sees half
 * of what differing mode fields cost; from one end such a splice reads far too high or below 0 (truth.md, OTDR).
 * @param night what was recorded of the splices
 */
export function measuredMorning(
  night: readonly StoredFact[],
  splices: readonly PlacedSplice[],
  cables: ReadonlyMap<string, Cable>,
  closureId: string,
  morning: Date,
  shift: number,
): StoredFact[] {
  const random = seeded(morning.getTime() / 1000);
  const attempts = new Map<string, Attempt>();
  for (const { fact } of night) {
    const one = fact as Attempt;
    if (one.kind === 'attempt') attempts.set(spliceIdOf(one), one);
  }
  return splices.map(({ id, left, right }, index) => {
    const attempt = attempts.get(id)!;
    const [one, other] = [left, right].map(
      ([end]) => fiberOf(cables.get(end!.cableId)!).modeField ?? 9.2,
    ) as [number, number];
    const loss =
      attempt.body.readings[0]!.loss! + mismatchLoss(one, other) / 2 + 0.03 * (random.next() - 0.4);
    // Seen from the left, the light goes from the one to the other.
    const apparent = 10 * Math.log10(other / one);
    const madeAt = new Date(morning.getTime() + index * 70_000 + shift);
    return {
      fact: {
        v: factVersion('measured-loss'),
        id: random.id(madeAt),
        kind: 'measured-loss',
        madeAt: madeAt.toISOString(),
        by: 'Iara',
        device: null,
        subject: { on: 'splice', closureId, left: runsOf(left), right: runsOf(right) },
        body: {
          attemptId: attempt.id,
          position: 1,
          method: 'otdr',
          wavelength: 1550,
          fromLeft: hundredths(loss + apparent),
          fromRight: hundredths(loss - apparent),
          note: '',
        },
      },
      receivedAt: new Date(madeAt.getTime() + 1000).toISOString(),
    };
  });
}

const hundredths = (value: number) => Math.round(value * 100) / 100;

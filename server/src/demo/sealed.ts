import {
  factVersion,
  planClosure,
  sealState,
  type Cable,
  type Closure,
  type Fact,
  type FlashTest,
  type SealCheck,
  type StoredFact,
} from '@cordel/core';
import { sealPoints, sealStage, type SealChapter, type SealedThing } from '@cordel/core/seal';
import { seeded } from './seeded';

export interface SealedInTheDemo {
  readonly closure: Closure;
  readonly cables: ReadonlyMap<string, Cable>;
  /** mm, by cable. */
  readonly diameters: ReadonlyMap<string, number>;
  /** What happened at the closure before; the sealing follows it. */
  readonly before: readonly StoredFact[];
  readonly by: string;
  /** A cable whose seal bubbles in the first round. */
  readonly leaks: string;
}

/** How a crew sealed a closure: looked, tightened, tested with a bubble at one seal, set it anew, tested again. Made up. */
export function sealedFacts({
  closure,
  cables,
  diameters,
  before,
  by,
  leaks,
}: SealedInTheDemo): StoredFact[] {
  const facts = before.map(({ fact }) => fact as Fact);
  const last = facts.reduce((latest, { madeAt }) => (madeAt > latest ? madeAt : latest), '');
  let clock = Date.parse(last);
  const random = seeded(clock / 1000);
  const thing: SealedThing = { closure, plan: planClosure(closure, cables), cables, diameters, facts };
  const { seals, testPressure, openings } = sealStage(thing);
  const points = sealPoints(thing, sealState([]));
  const stored: StoredFact[] = [];
  const keep = (
    fact: Pick<SealCheck, 'kind' | 'body'> | Pick<FlashTest, 'kind' | 'body'>,
    seconds: number,
  ) => {
    clock += seconds * 1000;
    const madeAt = new Date(clock);
    stored.push({
      fact: {
        v: factVersion(fact.kind),
        id: random.id(madeAt),
        madeAt: madeAt.toISOString(),
        by,
        device: null,
        subject: { on: 'closure', closureId: closure.id },
        ...fact,
      } as Fact,
      receivedAt: new Date(clock + 1000).toISOString(),
    });
  };
  const flash = (body: FlashTest['body'], seconds: number) => keep({ kind: 'flash-test', body }, seconds);
  const answer = (...chapters: SealChapter[]) => {
    for (const { chapter, point } of points)
      if (chapters.includes(chapter))
        keep({ kind: 'seal-check', body: { point, answer: 'yes', note: '' } }, 20);
  };
  const leak = openings.find(({ guests }) => guests.some(({ seat }) => seat.cable.id === leaks))?.seal;

  answer('look', 'tighten', 'close');
  for (const round of leak ? [1, 2] : [2]) {
    flash({ did: 'pumped', kPa: testPressure ?? 0, soap: 'after' }, 120);
    for (const seal of seals)
      flash({ did: 'looked', seal, saw: round === 1 && seal === leak ? 'bubbles' : 'none' }, 6);
    flash({ did: 'released', capBack: true }, 60);
    if (round === 1) flash({ did: 'reseated', seal: leak!, note: 'its cap was a turn short' }, 240);
  }
  answer('after');
  return stored;
}

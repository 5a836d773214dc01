import {
  measuredDiameters,
  readFact,
  siteOf,
  type Fact,
  type FlashTest,
  type HoldingTest,
  type Photo,
  type PhotoOf,
  type Reopening,
  type SealCheck,
  type SealPoint,
} from '@cordel/core';
import { photosOf, sealStage, type SealStage, type SealedAt, type StandingPhoto } from '@cordel/core/seal';
import { useMemo } from 'react';
import { factStart } from '../../data/factStart';
import type { AtHand } from '../../shell/steps/AtClosure';
import { useRecordFact } from '../../sync/react';

/** What was recorded, or why it was not: a message for the person. */
type Recorded = Promise<string | null>;

export interface Sealing {
  readonly thing: SealedAt;
  readonly stage: SealStage;
  readonly check: (point: SealPoint, answer: SealCheck['body']['answer'], note?: string) => Recorded;
  readonly flash: (...steps: readonly FlashTest['body'][]) => Recorded;
  readonly hold: (body: HoldingTest['body']) => Recorded;
  readonly reopen: (body: Reopening['body']) => Recorded;
  /** Oldest first, with those that were removed. */
  readonly photos: readonly StandingPhoto[];
  /** @param picture JPEG */
  readonly takePhoto: (of: PhotoOf, picture: ArrayBuffer) => Recorded;
  readonly photo: (body: Exclude<Photo['body'], { did: 'taken' }>) => Recorded;
}

/** How far the seal of a closure is, and how to add to it. */
export function useSeal({
  projectId,
  closure,
  cables,
  ledger,
  facts,
  definition,
  preparing,
}: AtHand): Sealing {
  const record = useRecordFact(projectId);
  const thing = useMemo(
    (): SealedAt => ({
      closure,
      cables,
      facts,
      plan: ledger.plan,
      site: siteOf(definition.sites, closure.siteId),
      diameters: measuredDiameters(closure, preparing.state),
    }),
    [closure, cables, facts, ledger.plan, definition.sites, preparing.state],
  );
  const stage = useMemo(() => sealStage(thing), [thing]);
  const photos = useMemo(() => photosOf(facts), [facts]);
  return useMemo(() => {
    const subject = { on: 'closure' as const, closureId: closure.id };
    // Each step comes after whatever was done at this seal before, though the device's clock was set back.
    const before: { readonly madeAt: string }[] = facts.filter(({ kind }) => sealKinds.has(kind));
    const add = async (kind: SealKind, body: unknown, picture?: ArrayBuffer) => {
      const fact = { ...factStart(kind, before), subject, body } as Fact;
      const read = readFact(fact);
      if (read.status === 'wrong') return read.message;
      before.push(fact);
      // Where the device cannot keep it every screen says so.
      const kept = await record(fact, undefined, undefined, picture);
      return kept || !picture ? null : 'This device could not keep it. Make room on it, and take it again.';
    };
    return {
      thing,
      stage,
      check: (point, answer, note = '') => add('seal-check', { point, answer, note: note.trim() }),
      flash: async (...steps) => {
        for (const step of steps) {
          const trouble = await add('flash-test', step);
          if (trouble !== null) return trouble;
        }
        return null;
      },
      hold: (body) => add('holding-test', body),
      reopen: (body) => add('reopening', { ...body, note: body.note.trim() }),
      photos,
      takePhoto: (of, picture) => add('photo', { did: 'taken', of, caption: '' }, picture),
      photo: (body) => add('photo', body),
    };
  }, [thing, stage, photos, facts, closure.id, record]);
}

type SealKind = 'seal-check' | 'flash-test' | 'holding-test' | 'reopening' | 'photo';
const sealKinds: ReadonlySet<string> = new Set<SealKind>([
  'seal-check',
  'flash-test',
  'holding-test',
  'reopening',
  'photo',
]);

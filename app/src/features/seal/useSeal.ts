import {
  measuredDiameters,
  readFact,
  siteOf,
  type Fact,
  type FlashTest,
  type HoldingTest,
  type Reopening,
  type SealCheck,
  type SealPoint,
} from '@cordel/core';
import { sealStage, type SealStage, type SealedAt } from '@cordel/core/seal';
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
  return useMemo(() => {
    const subject = { on: 'closure' as const, closureId: closure.id };
    // Each step comes after whatever was done at this seal before, though the device's clock was set back.
    const before: { readonly madeAt: string }[] = facts.filter(({ kind }) => sealKinds.has(kind));
    const add = async (kind: 'seal-check' | 'flash-test' | 'holding-test' | 'reopening', body: unknown) => {
      const fact = { ...factStart(kind, before), subject, body } as Fact;
      const read = readFact(fact);
      if (read.status === 'wrong') return read.message;
      before.push(fact);
      // Where the device cannot keep it every screen says so.
      await record(fact);
      return null;
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
    };
  }, [thing, stage, facts, closure.id, record]);
}

const sealKinds: ReadonlySet<string> = new Set(['seal-check', 'flash-test', 'holding-test', 'reopening']);

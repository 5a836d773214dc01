import { formatPressure, type Mark, type Units } from '@cordel/core';
import {
  chapterNames,
  chapterProgress,
  howSealed,
  pointHolds,
  type SealStage,
  type SealedAt,
} from '@cordel/core/seal';
import type { SealPart } from '../../shell/places';

/** A stage of sealing on the cord. */
export interface StageAt {
  readonly part: Exclude<SealPart, 'stages'>;
  readonly title: string;
  readonly words: string;
  readonly mark: Mark;
  /** For owners who want it; nothing waits for it. */
  readonly optional?: boolean;
}

const roundWords = {
  none: 'not made yet',
  open: 'begun',
  bubbles: 'bubbles seen: set the seal anew, test again',
  reseated: 'a seal was set anew: test again',
  'too-low': 'too little pressure: test again',
  tight: 'no bubbles',
} as const;

/** The stages of a closure's seal in the order of work; those that it does not have are left out. */
export function stagesOf(stage: SealStage, { closure }: Pick<SealedAt, 'closure'>, units: Units): StageAt[] {
  const chapter = (part: 'look' | 'tighten' | 'close' | 'after'): StageAt | null => {
    const { done, total } = chapterProgress(stage, part);
    const own = stage.points.filter((one) => one.chapter === part);
    if (total === 0) return null;
    const wrong = own.filter(({ check }) => check?.body.answer === 'no').length;
    return {
      part,
      title: chapterNames[part],
      words: [
        `${done} of ${total}`,
        wrong > 0 ? `${wrong} not right` : null,
        own.some((one) => one.stale && !pointHolds(one)) ? 'spliced since: look again' : null,
      ]
        .filter(Boolean)
        .join(' · '),
      mark: wrong > 0 ? 'redo' : done === total ? 'holds' : 'open',
    };
  };
  const { testPressure, result, round, state } = stage;
  const finished = result === 'tight' && round?.released != null;
  const test: StageAt | null =
    testPressure === 0
      ? null
      : {
          part: 'test',
          title: 'Flash test',
          words:
            testPressure === null
              ? 'the closure’s table gives no test pressure'
              : `${formatPressure(testPressure, units)} · ${finished || result !== 'tight' ? roundWords[result] : 'no bubbles, pressure still in it'}`,
          mark: finished ? 'holds' : result === 'bubbles' || state.pressure ? 'redo' : 'open',
        };
  const held = state.holding.filter(({ before, dropped }) => !before && !dropped);
  const hold: StageAt | null =
    testPressure === 0 || howSealed(closure) === null
      ? null
      : {
          part: 'hold',
          title: 'Holding test',
          words:
            held.length === 0
              ? 'for owners who want one'
              : `${held.length === 1 ? '1 test' : `${held.length} tests`}, ${held.at(-1)!.reads.length} read`,
          mark: held.length > 0 ? 'holds' : 'open',
          optional: true,
        };
  return [chapter('look'), chapter('tighten'), chapter('close'), test, hold, chapter('after')].filter(
    (one) => one !== null,
  );
}

/** What is to be done next: pressure in a closure comes before everything, then the stages in their order. */
export function nextStage(stages: readonly StageAt[], { state }: Pick<SealStage, 'state'>): StageAt | null {
  if (state.pressure || state.capOff) return stages.find(({ part }) => part === 'test') ?? null;
  return stages.find(({ mark, optional }) => mark !== 'holds' && !optional) ?? null;
}

import {
  adviceWords,
  formatLoss,
  highestLoss,
  markWords,
  reasonWords,
  type Mark,
  type SpliceState,
} from '@cordel/core';
import type { ArcAdvice } from '@cordel/core/gear';
import { farAdvice } from '@cordel/core/listen';
import type { MachineState } from '@cordel/core/machine';
import type { Linked } from '../../../data/machine/linked';
import type { Listening } from './useListening';

/** What is read at two meters: a few words, and below them, for who comes near, why. */
export interface Board {
  readonly far: string;
  /** A loss: figures are larger than words. */
  readonly reading: string | null;
  readonly mark: Mark | null;
  /** Something is to be done, and not the next thing. */
  readonly halt: boolean;
  readonly words: string | null;
}

const busy: Readonly<Record<Exclude<MachineState, 'ready' | 'pause' | 'done'>, string>> = {
  'gap-set': 'Looks at the ends',
  arc: 'Arc',
  estimate: 'Measures',
  'proof-test': 'Proof test',
  calibration: 'Calibrates',
};

const board = (far: string, words: string | null = null, halt = false): Board => ({
  far,
  words,
  halt,
  reading: null,
  mark: null,
});

/**
 * @param last the splice that was judged last; null where none was since one came here
 * @param sleeveFirst a sleeve belongs on it, and the person wants to be told
 */
export function boardOf(
  linked: Linked | null,
  { link, hearing, inside }: Pick<Listening, 'link' | 'hearing' | 'inside'>,
  advice: ArcAdvice,
  here: SpliceState,
  last: SpliceState | null,
  entering: boolean,
  sleeveFirst = false,
): Board {
  if (!linked) return board('No machine', 'Link one, and its readings come by themselves.');
  if (link?.is === 'dropped')
    return board('Link lost', `${link.why} It is tried again by itself; until then enter by hand.`, true);
  const state = hearing?.state ?? null;
  if (link?.is !== 'listening' || state === null) return board('Looks for it', `${linked.name} is asked.`);
  if (state === 'pause') {
    if (!inside)
      return board(
        'Which pair?',
        'It is not known which fibers lie in the machine. Take them out and lay them in again.',
        true,
      );
    const halt = advice.action !== 'fuse' && advice.action !== 'look';
    return board(farAdvice(advice), adviceWords(advice), halt);
  }
  if (state !== 'ready' && state !== 'done') return board(busy[state]);
  const judged = last ?? (here.verdict.mark === 'open' ? null : here);
  if (!judged) return board('Lay in', sleeveFirst ? 'Sleeve on first.' : null);
  const { verdict, readings, splice } = judged;
  const worst = highestLoss(readings);
  const reasons = verdict.reasons.map(reasonWords).join(' ');
  const place = `Tray ${splice.tray}, slot ${splice.slot}.`;
  return {
    far: markWords[verdict.mark],
    reading: worst === null ? null : formatLoss(worst),
    mark: verdict.mark,
    halt: verdict.mark === 'redo' || verdict.mark === 'owner',
    words: [place, reasons, verdict.mark === 'redo' && entering ? 'New ends, and lay them in again.' : '']
      .filter(Boolean)
      .join(' '),
  };
}

import type { ArcAdvice } from '../../gear';
import { formatLoss, highestLoss } from '../record/reading';
import type { SpliceState } from '../record/ledger';
import { markWords, reasonWords } from '../words';
import { readingsOf, type ListenQuestion } from './hear';

/** What a bench that listens says, in English: large for the eye at two meters, short for the ear. */

/** What to do before the arc, in two or three words. */
export function farAdvice({ action, fibers, count }: ArcAdvice): string {
  switch (action) {
    case 'look':
    case 'fuse':
      return 'Fuse';
    case 'recleave-left':
      return 'Recleave left';
    case 'recleave-right':
      return 'Recleave right';
    case 'recleave-both':
      return 'Recleave both';
    case 'reseat':
      return count === 1 ? 'Reseat' : fibers.length === 1 ? `Reseat ${fibers[0]}` : 'Reseat';
  }
}

/** A verdict to be heard: "Holds, 0.03." "Redo. Fiber 7: 0.14 dB is over 0.10 dB." */
export function heardVerdict({ verdict, readings }: SpliceState): string {
  const worst = highestLoss(readings);
  const loss = worst === null ? '' : `, ${formatLoss(worst)}`;
  if (verdict.mark === 'holds') return `Holds${loss}.`;
  return [`${markWords[verdict.mark]}.`, ...verdict.reasons.map(reasonWords)].join(' ');
}

/** Which reading it is about, and why nobody but a person can say where it belongs. */
export function questionWords(
  { why, result }: ListenQuestion,
  /** Words for the splice that it may be of, as "tray 2, slot 7"; null: no idea. */
  may: string | null,
  here: string,
): string {
  const which = `The machine’s splice ${result.splice}`;
  switch (why) {
    case 'again':
      return `${which} came again. It is on record at ${may ?? here}.`;
    case 'missed':
      return `${which} was made while nobody listened${may ? `; its fibers were laid in at ${may}` : ''}.`;
    case 'unbegun':
      return `${which} is done, and it is not known which fibers lay in it.`;
    case 'taken':
      return `Somebody recorded at ${here} while ${lower(which)} was made.`;
    case 'moved':
      return `The fibers of ${lower(which)} were laid in at ${may ?? 'another place'}, and you stand at ${here}.`;
    case 'other-count':
      return `${which} has ${counted(result.fibers.length)}, and ${here} does not.`;
    case 'settled':
      return `${which} is done, and nothing is to be spliced at ${here}.`;
    case 'by-hand':
      return `${which} came while losses of ${here} were entered by hand.`;
    case 'unreadable':
      return `${which} says a loss that is none: ${unreadable(result.fibers)}. Enter it by hand, or leave it out.`;
    case 'not-kept':
      return `${which} could not be kept on this device. Make room, and record it then.`;
  }
}

/** What it read, in one line. */
export function resultWords({ fibers, proofTestFailed }: ListenQuestion['result']): string {
  const losses = fibers.map(({ loss }) => (loss === null ? 'no loss' : formatLoss(loss))).join(' · ');
  const read = fibers.some(({ loss }) => loss !== null) ? `${losses} dB` : losses;
  return proofTestFailed ? `${read} · proof test failed` : read;
}

/** Whether a result can be recorded at a splice of so many fibers. */
export function mayTake({ result }: ListenQuestion, fibers: number): boolean {
  return result.fibers.length === fibers && readingsOf(result) !== null;
}

function unreadable(fibers: ListenQuestion['result']['fibers']): string {
  return fibers
    .flatMap((one, index) => {
      if (readingsOf({ fibers: [one], proofTestFailed: false })) return [];
      return [`fiber ${index + 1} ${one.loss === null ? 'without a loss' : `${formatLoss(one.loss)} dB`}`];
    })
    .join(', ');
}

const lower = (text: string) => `${text[0]!.toLowerCase()}${text.slice(1)}`;
const counted = (fibers: number) => (fibers === 1 ? '1 fiber' : `${fibers} fibers`);

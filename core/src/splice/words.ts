import { wordsIn, type FindingIn, type Told } from '../finding';
import type { ArcAdvice, ArcLimit, OverLimit } from './bench/beforeArc';
import { toldApart } from '../units/toldApart';
import { formatLoss, lossRefusal } from './record/reading';
import type { Mark, Reason } from './record/verdict';
import { shownNumber } from '../units/decimals';

/** What the core says of splices, in English, in one place. */

export const markWords: Readonly<Record<Mark, string>> = {
  open: 'Open',
  holds: 'Holds',
  redo: 'Redo',
  owner: 'Owner’s call',
  allowed: 'Allowed',
};

/** A reason with its numbers: "Fiber 3: 0.14 dB is over 0.12 dB." */
export function reasonWords(reason: Reason): string {
  const of = reason.fiber === null ? '' : `Fiber ${reason.fiber}: `;
  switch (reason.code) {
    case 'loss': {
      const [loss, limit] = toldApart(reason.params.loss, reason.params.limit, formatLoss);
      return `${of}${loss} dB is over ${limit} dB.`;
    }
    case 'measured-loss': {
      const [loss, limit] = toldApart(reason.params.loss, reason.params.limit, formatLoss);
      return `${of}measured ${loss} dB, over ${limit} dB.`;
    }
    case 'cleave-left':
    case 'cleave-right': {
      const side = reason.code === 'cleave-left' ? 'left' : 'right';
      const [angle, limit] = toldApart(reason.params.angle, reason.params.limit, degreesOf);
      return `Cleave ${side} ${angle}° is over ${limit}°. Recleave the ${side} end before fusing.`;
    }
    case 'proof-test':
      return 'The proof test failed. Splice again whatever the loss reads.';
    case 'sleeve':
      return 'The sleeve was forgotten. Cut it out, sleeve on first, and splice again.';
    case 'light':
      return 'Light shows at the joint: the fiber is not seated. Cleave a new end and seat it again.';
    case 'owner-allowed':
      return 'The owner allowed it.';
    case 'owner-redo':
      return 'The owner wants it done again.';
    case 'left-to-owner':
      return 'Left to the owner.';
    case 'tries-used':
      return `All ${reason.params.tries} tries are used.`;
  }
}

const readingWords = {
  empty: () => 'Nothing is pasted yet. Paste one loss for each fiber, one a line.',
  'empty-cell': ({ row }: { row: number }) =>
    `Row ${row} is empty. Give a loss for every fiber, or record the splice as broken.`,
  'no-number': ({ row, cell }: { row: number; cell: string }) =>
    `Row ${row}, “${cell}”, is not a loss. Write it like 0.03.`,
  unit: ({ row, cell, unit }: { row: number; cell: string; unit: string }) =>
    `Row ${row}, “${cell}”, is in “${unit}”. Losses are in dB: paste the column that has them.`,
  /** dB, of a size that no loss has. */
  range: ({ row, loss }: { row: number; loss: number }) =>
    `Row ${row}, ${formatLoss(loss)}: ${lossRefusal(loss) ?? ''}`,
  count: ({ losses, fibers }: { losses: number; fibers: number }) =>
    `${losses} ${losses === 1 ? 'loss is' : 'losses are'} pasted, and the splice has ${fibers} fibers. Paste ${fibers}, in the order of the left side.`,
};

export type ReadingFinding = FindingIn<typeof readingWords>;

/** What is wrong with a pasted column of losses. */
export function readingFindingWords(finding: Told<ReadingFinding>): string {
  // No length is in it, so no unit matters.
  return wordsIn(readingWords, finding, 'mm');
}

/** How a number is usually written, and its unit behind it. */
interface Measure {
  readonly write: (value: number) => string;
  readonly unit: string;
}

/** What to do before the arc, with the numbers: what to do first, then why. */
export function adviceWords({ action, fibers, over, looked, count }: ArcAdvice): string {
  const of = (what: OverLimit['what']) => over.filter((one) => one.what === what);
  const ribbon = count > 1;
  // What is over a limit is never written as the limit.
  const seenIn = ({ seen, limit }: OverLimit, { write, unit }: Measure) =>
    `${toldApart(seen, limit.value, write)[0]}${unit}`;
  const list = (found: readonly OverLimit[], measure: Measure) =>
    found.map((one) => `${ribbon ? `fiber ${one.fiber} ` : ''}${seenIn(one, measure)}`).join(', ');
  const whose = (limit: ArcLimit, { write, unit }: Measure) =>
    `over the ${limit.of}’s ${write(limit.value)}${unit}`;
  switch (action) {
    case 'look':
      return 'Cleaves, offset and gap were not looked at yet.';
    case 'fuse':
      return looked < count
        ? `Fuse: the ${looked} of ${count} fibers that were looked at are within the limits.`
        : 'Fuse: what was looked at is within the limits.';
    case 'recleave-left':
    case 'recleave-right':
    case 'recleave-both': {
      const both = action === 'recleave-both';
      const sides = (['left', 'right'] as const).flatMap((side) => {
        const found = of(`cleave-${side}`);
        return found.length > 0 ? [`${both ? `${side} ` : ''}${list(found, angle)}`] : [];
      });
      return `Recleave ${both ? 'both sides' : action === 'recleave-left' ? 'left' : 'right'}: ${sides.join('; ')}, ${whose(over[0]!.limit, angle)}.`;
    }
    case 'reseat': {
      const parts = (['offset', 'gap'] as const).flatMap((what) => {
        const found = of(what);
        if (found.length === 0) return [];
        // With one fiber its name stands in front already.
        const values = fibers.length === 1 ? seenIn(found[0]!, length) : list(found, length);
        return [`${what} ${values}, ${whose(found[0]!.limit, length)}`];
      });
      const which = !ribbon
        ? 'the fiber'
        : fibers.length === 1
          ? `fiber ${fibers[0]}`
          : `fibers ${fibers.join(', ')}`;
      return `Reseat ${which}: ${parts.join('; ')}. Clean the groove with its brush first.`;
    }
  }
}

/** "2.5 μm" */
export function micrometers(value: number): string {
  return `${tenths(value)} μm`;
}

const tenths = (value: number) => shownNumber(Math.round(value * 10) / 10);

/** "1.6°" */
export function formatAngle(degrees: number): string {
  return `${degreesOf(degrees)}°`;
}

function degreesOf(degrees: number): string {
  return shownNumber(degrees.toFixed(Math.round(degrees * 100) % 10 === 0 ? 1 : 2));
}

const angle: Measure = { write: degreesOf, unit: '°' };
const length: Measure = { write: tenths, unit: ' μm' };

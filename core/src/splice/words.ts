import { formatLoss } from './reading';
import type { Mark, Reason } from './verdict';

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
    case 'loss':
      return `${of}${formatLoss(reason.params.loss)} dB is over ${formatLoss(reason.params.limit)} dB.`;
    case 'cleave-left':
    case 'cleave-right': {
      const side = reason.code === 'cleave-left' ? 'left' : 'right';
      const { angle, limit } = reason.params;
      return `Cleave ${side} ${formatAngle(angle)} is over ${formatAngle(limit)}. Recleave the ${side} end before fusing.`;
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

/** "1.6°" */
export function formatAngle(degrees: number): string {
  return `${degrees.toFixed(Math.round(degrees * 100) % 10 === 0 ? 1 : 2)}°`;
}

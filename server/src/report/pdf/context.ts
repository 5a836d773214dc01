import { lossText, type Limits } from '@cordel/core';
import type { AsBuilt, AsBuiltClosure, AsBuiltSums } from '@cordel/core/asBuilt';
import { accent, ink, soft, type Paper } from './paper';

/** What every part of a report is made with. */
export interface Context {
  readonly paper: Paper;
  readonly built: AsBuilt;
  /** Small pictures of the photos (JPEG), by the photo's id. */
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  readonly when: (time: string) => string;
  readonly told: () => void;
}

/** "14 Apr 2026, 22:05" */
export function momentIn(time: string, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZone: zone,
  }).format(new Date(time));
}

export const mean = (value: number | null) => (value === null ? '–' : value.toFixed(3));
export const loss = (value: number | null) => (value === null ? '–' : lossText(value));
export const plural = (count: number, one: string, several: string) =>
  `${count} ${count === 1 ? one : several}`;

/** The figures that decide, large, side by side. */
export function keyFigures(
  paper: Paper,
  sums: AsBuiltSums,
  limits: Limits,
  closures: readonly AsBuiltClosure[],
): void {
  const sealed = closures.filter(({ seal }) => seal.sealed || seal.tickedOnly).length;
  const figures: (readonly [string, string, boolean])[] = [
    [
      `${sums.holds + sums.allowed} of ${sums.splices}`,
      'splices hold or are allowed',
      sums.holds + sums.allowed < sums.splices,
    ],
    [
      `${mean(sums.mean)} dB`,
      `estimated mean of ${sums.fibersRead} fibers, limit ${mean(sums.meanLimit)}${sums.measured ? `; measured ${mean(sums.measured.mean)} on ${sums.measured.fibers}` : ''}`,
      sums.meanOver,
    ],
    [
      `${loss(sums.worst)} dB`,
      `highest estimate, limit ${lossText(limits.singleMax)} single, ${lossText(limits.ribbonFiberMax)} ribbon`,
      false,
    ],
    [
      closures.length === 1 ? (sealed ? 'sealed' : 'not sealed') : `${sealed} of ${closures.length}`,
      closures.length === 1 ? sealWord(closures[0]!) : 'closures sealed',
      sealed < closures.length,
    ],
  ];
  const each = paper.width / figures.length;
  const words = figures.map(([value, what]) => `${value}: ${what}`).join('. ');
  paper.figure(46, words, (box) =>
    figures.forEach(([value, what, over], index) => {
      paper.set('reading', over ? accent : ink);
      paper.line(value, { x: box.x + index * each, y: box.y, width: each - 8, height: 24 });
      paper.set('small', soft);
      paper.doc.text(what, box.x + index * each, box.y + 24, { width: each - 10 });
    }),
  );
}

const sealWord = ({ seal }: AsBuiltClosure) => {
  const rounds = seal.rounds.filter(({ beforeReopening }) => !beforeReopening);
  return seal.testPressure === 0
    ? 'no flash test by its table'
    : rounds.length === 0
      ? 'no flash test on record'
      : `${plural(rounds.length, 'test round', 'test rounds')}`;
};

import type { Cable } from '../../line/cable';
import { fiberCount } from '../../line/fiberNumber';
import {
  connectorNames,
  entryKey,
  goesThrough,
  rangesOf,
  type Connector,
  type Entry,
  type OrderRange,
} from '../closure';
import { resolveRange, unitsNumbered } from './order';
import { readOrderRow, type ReadRow, type WrittenLine } from './orderText';

export interface Completion {
  /** What is put in place of the last `replaces` characters before the cursor. */
  readonly insert: string;
  readonly replaces: number;
  readonly about: string;
}

/**
 * What may come next in a row, most likely first; at most eight.
 * @param before the row up to the cursor
 * @param others the other lines of the order: their fibers are not offered again
 */
export function completeOrderRow(
  before: string,
  entries: readonly Entry[],
  cables: ReadonlyMap<string, Cable>,
  others: readonly WrittenLine[],
): Completion[] {
  const word = /[^\s>→]*$/.exec(before)![0];
  const head = before.slice(0, before.length - word.length);
  // Read without the word at the cursor: that is the one to be completed.
  const read = readOrderRow(head, entries);
  const offer = (insert: string, about: string): Completion => ({ insert, about, replaces: word.length });
  const offers = offersFor(read, entries, cables, others).map(([insert, about]) => offer(insert, about));
  return offers
    .filter((one) => one.insert.toLowerCase().startsWith(word.toLowerCase()) && one.insert.trim() !== word)
    .slice(0, 8);
}

function offersFor(
  read: ReadRow,
  entries: readonly Entry[],
  cables: ReadonlyMap<string, Cable>,
  others: readonly WrittenLine[],
): [insert: string, about: string][] {
  switch (read.waiting) {
    case 'left-key':
    case 'right-key': {
      const taken = read.line === undefined && read.waiting === 'right-key' ? read.left?.cableId : undefined;
      const cableOffers = entries.flatMap((entry, index) => {
        const label = cables.get(entry.cableId)?.label ?? '';
        const key = entryKey(entry, index);
        if (entry.cableId === taken && !goesThrough(entry.manner)) return [];
        return goesThrough(entry.manner)
          ? [
              [`${key}- `, `${label}, toward the start`] as [string, string],
              [`${key}+ `, `${label}, onward`] as [string, string],
            ]
          : [[`${key} `, label] as [string, string]];
      });
      if (read.line !== undefined || read.waiting === 'left-key') return cableOffers;
      // Pigtails come with one; everything else gets one here.
      const pigtails = cables.get(read.left?.cableId ?? '')?.construction.kind === 'pigtails';
      const offered: Connector[] = pigtails ? ['own'] : ['fusion-connector', 'mechanical'];
      return [
        ...cableOffers,
        ...offered.map((one) => [`${connectorNames[one]} `, connectorAbout[one]] as [string, string]),
      ];
    }
    case 'left-range': {
      const cable = read.line === undefined && cables.get(read.leftEntry?.cableId ?? '');
      if (!cable) return [];
      const free = freeFibers(cable, others);
      if (!free) return [];
      return [
        [`${span(free.from, free.to)} `, 'the next free fibers'],
        ...(['tube', 'ribbon'] as const).flatMap((of) => unitOffers(cable, of, free.from)),
      ];
    }
    case 'arrow':
      return [['> ', 'meets']];
    case 'right-range': {
      if (read.line !== undefined || !read.left || !read.rightEntry) return [];
      const cable = cables.get(read.rightEntry.cableId);
      const leftCable = cables.get(read.left.cableId);
      const left = resolveRange(read.left, leftCable);
      if (!cable || left.trouble) return [];
      const length = left.to - left.from + 1;
      const same = resolveRange({ ...read.left, cableId: cable.id }, cable);
      const free = freeFibers(cable, others);
      const offers: [string, string][] = [];
      if (!same.trouble && same.to - same.from + 1 === length)
        offers.push([`${unitSpan(read.left)} `, 'the same numbers']);
      if (free && free.to - free.from + 1 >= length)
        offers.push([`${span(free.from, free.from + length - 1)} `, `the next ${length} free`]);
      return offers;
    }
    case 'words':
      if (read.line?.right === null) return [[': ', 'a circuit’s name']];
      return [
        ['ribbon ', 'whole ribbons'],
        ['ribbonized ', 'loose fibers made into ribbons'],
        ['reversed ', 'the first fiber meets the last'],
        [': ', 'a circuit’s name'],
      ];
  }
}

const connectorAbout: Readonly<Record<Connector, string>> = {
  mechanical: 'ends here, without a machine',
  'fusion-connector': 'ends here, spliced on',
  own: 'ends here, as it came',
};

const span = (from: number, to: number) => (from === to ? String(from) : `${from}-${to}`);

function unitSpan({ of, from, to }: OrderRange): string {
  const letter = of === 'tube' ? 'T' : of === 'ribbon' ? 'R' : '';
  return from === to ? `${letter}${from}` : `${letter}${from}-${letter}${to}`;
}

/** The first run of fibers of a cable that no other line takes, or null. */
function freeFibers(cable: Cable, others: readonly WrittenLine[]): { from: number; to: number } | null {
  const ranges = others
    .flatMap(rangesOf)
    .filter((range) => range.cableId === cable.id)
    .map((range) => resolveRange(range, cable))
    .filter((range) => range.trouble === null)
    .sort((a, b) => a.from - b.from);
  let from = 1;
  for (const range of ranges) {
    if (range.from > from) return { from, to: range.from - 1 };
    from = Math.max(from, range.to + 1);
  }
  const count = fiberCount(cable.construction);
  return from <= count ? { from, to: count } : null;
}

/** The first tube or ribbon that begins at a fiber or behind it. */
function unitOffers(cable: Cable, of: 'tube' | 'ribbon', from: number): [string, string][] {
  const units = unitsNumbered(cable.construction)[of];
  const at = units.findIndex((unit) => unit.first >= from);
  if (at < 0) return [];
  const { first, last } = units[at]!;
  return [[`${of === 'tube' ? 'T' : 'R'}${at + 1} `, `${of} ${at + 1}, fibers ${span(first, last)}`]];
}

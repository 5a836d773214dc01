import { wordsIn, type FindingIn, type Told } from '../finding';
import type { Units } from '../line/project';
import { formatMean } from '../splice/record/reading';
import { shownNumber } from '../units/decimals';
import { formatMillimeters } from '../units/length';
import type { Entry, OrderRange } from './closure';
import type { RowProblem } from './order/orderText';
import type { LeastChange } from './trays/leastChange';
import type { Placement, TrayLayout } from './trays/trayLayout';

/** What the core says of plans, in English, in one place. */

/** What holds fibers at a closure, by the letter of its cable: a tube, a ribbon, a cable that has neither, or one of its fibers. */
export interface HolderName {
  readonly key: string;
  readonly kind: 'tube' | 'ribbon' | 'cable' | 'fiber';
  /** Of the tube, ribbon or fiber; null of a cable. */
  readonly number: number | null;
}

/** "Tube 3 of A" */
export function holderNameWords({ key, kind, number }: HolderName): string {
  switch (kind) {
    case 'tube':
      return `Tube ${number} of ${key}`;
    case 'ribbon':
      return `Ribbon ${number} of ${key}`;
    case 'fiber':
      return `${key} ${number}`;
    case 'cable':
      return key;
  }
}

/** Within a sentence: "tube 3 of A". */
function inSentence(holder: HolderName): string {
  const words = holderNameWords(holder);
  return holder.kind === 'tube' || holder.kind === 'ribbon'
    ? words[0]!.toLowerCase() + words.slice(1)
    : words;
}

export interface LiveSpan {
  readonly from: number;
  readonly to: number;
  readonly circuit: string;
}

/** "Fibers 5–8 carry Ring", "Fiber 3 carries Ring and fibers 5–8 carry Loop" */
export function liveWords(live: readonly LiveSpan[]): string {
  const parts = live.map(({ from, to, circuit }) =>
    from === to ? `fiber ${from} carries ${circuit}` : `fibers ${from}–${to} carry ${circuit}`,
  );
  const words = [parts.slice(0, -1).join(', '), ...parts.slice(-1)].filter(Boolean).join(' and ');
  return words[0]!.toUpperCase() + words.slice(1);
}

interface RibbonOf {
  readonly label: string;
  readonly unit: number;
  readonly fibers: number;
}

const ribbonRange = ([from, to]: readonly [number, number]) => (from === to ? `R${from}` : `R${from}–R${to}`);

interface NamedRange {
  readonly label: string;
  readonly of: 'fiber' | 'tube' | 'ribbon';
  readonly from: number;
  readonly to: number;
}

/** Mistakenly counted: `asked` for, where the cable has only `count`. */
interface Beyond {
  readonly label: string;
  readonly of: 'fiber' | 'tube' | 'ribbon';
  readonly count: number;
  readonly asked: number;
}

const findingWords = {
  // How cables meet.
  'fiber-modes-differ': (sides: {
    left: { label: string; type: string };
    right: { label: string; type: string };
  }) =>
    `${sides.left.label} is ${sides.left.type} and ${sides.right.label} ${sides.right.type}: single-mode and multimode fiber cannot be joined. Check the cables.`,
  /** Cores in μm. */
  'fiber-cores-differ': (sides: {
    left: { label: string; core: number | null };
    right: { label: string; core: number | null };
  }) =>
    `${sides.left.label} has a core of ${micrometers(sides.left.core)} and ${sides.right.label} of ${micrometers(sides.right.core)}. Check the cables.`,
  /** Mode fields in μm; the loss, and what an OTDR reads from either side, in dB. */
  'mode-fields-differ': (one: {
    left: { label: string; modeField: number };
    right: { label: string; modeField: number };
    loss: number;
    fromLeft: number;
    fromRight: number;
  }) =>
    `${one.left.label} has a mode field of ${micrometers(one.left.modeField)} and ${one.right.label} of ${micrometers(one.right.modeField)}. A perfect splice still loses ${formatMean(one.loss)} dB, and a redo will not help. An OTDR reads ${signed(one.fromLeft)} dB from ${one.left.label} and ${signed(one.fromRight)} dB from ${one.right.label}; the average is the loss.`,
  'schemes-differ': (sides: {
    left: { label: string; scheme: string };
    right: { label: string; scheme: string };
  }) =>
    `${sides.left.label} follows ${sides.left.scheme} and ${sides.right.label} ${sides.right.scheme}: the same number has another color. Go by the numbers.`,

  // How cables come in.
  'key-twice': ({ key }: { key: string }) =>
    `Two cables are called ${key} here. Give one of them another letter.`,
  'no-cable': () => 'A cable comes in here that the project does not have. Take it out.',
  'cable-twice': ({ label }: { label: string }) => `${label} comes in twice. Take one of them out.`,
  'not-at-site': ({ label }: { label: string }) =>
    `${label} does not run to this site. Change the sites it runs through, or take it out here.`,
  manner: ({ label, manner, passes }: { label: string; manner: Entry['manner']; passes: boolean }) =>
    passes
      ? `${label} runs on behind this site, so it cannot come in as “${manner}”. Let it in as express or window, or end the cable here.`
      : `${label} ends at this site, so it cannot come in as “${manner}”. Let it in as cut, branch or drop.`,
  'partly-cut': ({ holder, used, fibers }: { holder: HolderName; used: number; fibers: number }) =>
    `Only ${used} of the ${fibers} fibers of ${inSentence(holder)} are spliced, and where an express cable is opened all of it is cut. Let the cable in by a window, or splice them all.`,
  'live-cut-too': (one: { holder: HolderName; used: number; fibers: number; live: readonly LiveSpan[] }) =>
    `${liveWords(one.live)} in ${inSentence(one.holder)}, and it is cut whole for the ${one.used} fibers that the order takes: an outage. Let the cable in by a window, which leaves the others whole, or have the circuit taken down first.`,
  'live-split': ({ holder, live }: { holder: HolderName; live: readonly LiveSpan[] }) =>
    `${liveWords(live)} in ${inSentence(holder)}, in a ribbon of which the order takes other fibers: splitting it can break them. Take fibers of another ribbon, or have the circuit taken down first.`,
  /** Diameters in mm. */
  'no-port': (
    one: {
      label: string;
      diameter: number;
      because: 'chosen' | 'taken' | 'none-fits';
      /** The one that was chosen by hand, or else the nearest of those that do not fit. */
      port: { name: string; from: number; to: number } | null;
      through: boolean;
    },
    units: Units,
  ) => {
    const thick = `${one.label} is ${formatMillimeters(one.diameter, units)} thick`;
    switch (one.because) {
      case 'chosen':
        return `${thick}, and port ${one.port!.name} does not take it or is taken. Pick another port.`;
      case 'taken':
        return `${thick}, and every port that takes it is taken. Use a closure with more ports.`;
      case 'none-fits': {
        const { port, through } = one;
        const nearest = port
          ? ` (nearest: ${port.name}, ${formatMillimeters(port.from, units)} to ${formatMillimeters(port.to, units)})`
          : '';
        return `${thick}, and no port ${through ? 'for a cable that goes through ' : ''}takes that${nearest}. Use another seal kit or another closure; do not force it.`;
      }
    }
  },

  // Lines of the order.
  'no-such-cable': () => 'The order names a cable that the project does not have. Pick one of its cables.',
  'no-entry': ({ label }: { label: string }) =>
    `${label} does not come into this closure. Let it enter, or name another.`,
  side: ({ key, side }: { key: string; side: OrderRange['side'] }) =>
    side === 'end'
      ? `${key} goes through here, so a cut fiber has two ends: write ${key}- for the one toward the start of the route, ${key}+ for the other.`
      : `${key} ends here and has one end only: write ${key} without ${side === 'low' ? '-' : '+'}.`,
  'runs-backwards': (range: NamedRange) => `${rangeWords(range)} runs backwards. Put the lower number first.`,
  'reversed-unplanned': (range: NamedRange) =>
    `${rangeWords(range)} runs backwards. If the ribbons are to be flipped, as for a method B channel, write it upward with “reversed”.`,
  range: (beyond: Beyond) => beyondWords(beyond),
  /** The places of the fillers among the strands. */
  'filler-counted': (beyond: Beyond & { places: readonly number[] }) =>
    `${beyondWords(beyond)} ${beyond.places.length === 1 ? 'The filler at place' : 'The fillers at places'} ${beyond.places.join(' and ')} carry no fiber and have no number.`,
  'no-units': ({ label, of }: { label: string; of: 'tube' | 'ribbon' }) =>
    `${label} has no ${of}s. Give fiber numbers, or ${of === 'tube' ? 'ribbons' : 'tubes'}.`,
  'express-and-cut': ({ holder, line }: { holder: HolderName; line: number }) =>
    `${holderNameWords(holder)} is to go through whole, and order line ${line} cuts it. Take it out of the line, or let it be cut.`,
  'live-cut': (one: { key: string; from: number; to: number; circuit: string; line: number }) =>
    `${one.key} ${one.from}–${one.to} carries ${one.circuit}, and order line ${one.line} cuts it. Take it out, or have the circuit taken down first.`,
  'range-lengths-differ': (one: { line: number; left: number; right: number }) =>
    `Order line ${one.line} joins ${one.left} fibers to ${one.right}. Give both sides the same number.`,
  'end-used-twice': (one: { label: string; from: number; to: number; lines: readonly [number, number] }) => {
    const lines = `in order lines ${one.lines[0]} and ${one.lines[1]}`;
    return one.from === one.to
      ? `${one.label} fiber ${one.from} is used twice, ${lines}. Take it out of one.`
      : `${one.label} fibers ${one.from}–${one.to} are used twice, ${lines}. Take them out of one.`;
  },
  'no-own-connector': ({ label, line }: { label: string; line: number }) =>
    `Order line ${line} ends fibers of ${label} in connectors of their own, and only pigtails come with them. Write “fused connector” or “mechanical connector”.`,
  'second-connector': ({ label, line }: { label: string; line: number }) =>
    `Pigtails come with a connector, and order line ${line} puts another one on ${label}. Write “own connector” for the one they came with.`,
  'ribbon-in-connectors': ({ label, line }: { label: string; line: number }) =>
    `Order line ${line} puts fibers of ribbons of ${label} in connectors: the ribbons have to be taken apart into a fan-out first. Pigtails that are spliced on are quicker.`,
  'bare-in-connectors': ({ label, line }: { label: string; line: number }) =>
    `Order line ${line} puts bare fibers of ${label} in connectors: they need a fan-out first. Pigtails that are spliced on are quicker and cheaper; the time page compares them.`,
  'no-ribbons': ({ label }: { label: string }) =>
    `${label} has no ribbons. Write “ribbonized” if its loose fibers are to be made into ribbons first.`,
  'ribbon-split': ({ line, inside, ...ribbon }: RibbonOf & { line: number; inside: number }) =>
    `Order line ${line} takes only ${inside} of the ${ribbon.fibers} fibers of ribbon ${ribbon.unit} of ${ribbon.label}. Take the whole ribbon, or splice it singly.`,
  'ribbon-sizes-differ': ({ left, right }: { left: RibbonOf; right: RibbonOf | null }) =>
    `Ribbon ${left.unit} of ${left.label} has ${left.fibers} fibers and meets ${right ? `ribbon ${right.unit} of ${right.label} with ${right.fibers}` : 'none'}. Splice them singly, or join ribbons of one size.`,

  /** First and last ribbon of each side. */
  'ribbons-as-singles': (one: {
    line: number;
    left: readonly [number, number];
    right: readonly [number, number];
  }) =>
    `Order line ${one.line} takes whole ribbons (${ribbonRange(one.left)} to ${ribbonRange(one.right)}) fiber by fiber. If ribbons are meant, write “ribbon” behind it; if not, they have to be taken apart.`,
  'ribbon-of-one': ({ line, fibers }: { line: number; fibers: number }) =>
    `Order line ${line} makes ribbons of ${fibers} loose fibers, and the last one would have a single fiber. Take one fiber less, and splice it singly.`,

  // Trays.
  pin: (one: {
    holder: HolderName;
    tray: number;
    trays: number;
    because: TrayLayout['brokenPins'][number]['because'];
  }) => {
    const what = `${holderNameWords(one.holder)} is kept on tray ${one.tray} by hand`;
    switch (one.because) {
      case 'no-tray':
        return `${what}, and the closure has only ${one.trays} trays. Pick another tray.`;
      case 'no-room':
        return `${what}, and there is no room for all of it. Pick another tray, or take something else off.`;
      case 'nothing-there':
        return `${what}, and the order does not splice it. Take the pin away.`;
    }
  },
  'unit-split': ({ holder, trays }: { holder: HolderName; trays: readonly number[] }) =>
    `${holderNameWords(holder)} is planned on trays ${trays.join(' and ')}. Use trays with more slots, or splice less of it here.`,
  'over-capacity': (one: { unplaced: number; splices: number; change: LeastChange }) =>
    `${one.unplaced} of ${one.splices} splices have no slot. ${changeWords(one.change)}`,
};

export type PlanFinding = FindingIn<typeof findingWords>;

/** What is wrong with a plan, and what to do about it. */
export function planFindingWords(finding: Told<PlanFinding>, units: Units): string {
  return wordsIn(findingWords, finding, units);
}

/** What a reader of a row of the order waited for where it stopped. */
const expectedWords = {
  cable: ({ keys }: { keys: readonly string[] }) =>
    `a cable of this closure (${keys.length > 0 ? keys.join(', ') : 'none yet'})`,
  'cable-or-connector': ({ keys }: { keys: readonly string[] }) =>
    `a cable of this closure (${keys.length > 0 ? keys.join(', ') : 'none yet'}), “fused connector” or “mechanical connector”`,
  range: () => 'fibers like 1-12, a tube like T3 or ribbons like R1-R6',
  'range-as-begun': ({ letter }: { letter: 'T' | 'R' | null }) =>
    `the range to end as it began, with ${letter ?? 'a number'}`,
  'range-end': () => 'the number at which the range ends',
  'number-from-1': () => 'a number from 1 up, since numbers start at 1',
  arrow: () => '">"',
  circuit: () => 'the circuit’s name',
  'circuit-shorter': ({ longest }: { longest: number }) =>
    `a circuit’s name of at most ${longest} characters`,
  'list-lengths': ({ left, right }: { left: number; right: number }) =>
    `as many on both sides; the lists have ${left} on the left and ${right} on the right`,
  'no-list': () => 'a line for each range: lists are neither ribbonized nor reversed',
  'circuit-or-end': () => '": circuit" or the end of the line behind a connector',
  'mode-or-circuit': () => 'single, ribbon, ribbonized, straight, reversed or ": circuit"',
};

export type Expected = Told<FindingIn<typeof expectedWords>>;

/** "Expected ">", and found "DX"." */
export function rowProblemWords({ expected, found }: Pick<RowProblem, 'expected' | 'found'>): string {
  // No length is in any of them, so no unit matters.
  const what = wordsIn(expectedWords, expected, 'mm');
  return `Expected ${what}, and ${found === null ? 'the line ends here' : `found "${found}"`}.`;
}

/** What is wrong with a cell of a table of assignments. */
const csvWords = {
  column: ({ name }: { name: string }) => `Say which column holds “${name}”.`,
  'no-cable-named': () => 'No cable is named. Give its key or its label.',
  cable: ({ called, keys }: { called: string; keys: readonly string[] }) =>
    `“${called}” is no cable of this closure. Give its key (${keys.join(', ')}) or its label.`,
  'two-cables': ({ called }: { called: string }) =>
    `“${called}” is the key of one cable here and the label of another, or the label of two. Give one of them another key or label.`,
  'not-a-unit': ({ written }: { written: string }) =>
    `“${written}” is no tube or ribbon. Write its number, like 3, T3 or R3.`,
  'beyond-unit': (one: { of: 'tube' | 'ribbon'; number: number; fibers: number; asked: number }) =>
    `${one.of === 'tube' ? 'Tube' : 'Ribbon'} ${one.number} has ${one.fibers} fibers, so there is no fiber ${one.asked} in it. Number the fibers in their ${one.of}, or leave its column out.`,
  'not-a-range': ({ written }: { written: string }) =>
    `“${written}” is not a range of fibers. Write 5, 1-12, T3 for a tube, or R1-R6 for ribbons.`,
  range: ({ finding }: { finding: Told<PlanFinding> }, units: Units) => planFindingWords(finding, units),
  'behind-connector': ({ written }: { written: string }) =>
    `A fiber in a connector leads no farther, so “${written}” has no meaning here. Leave it empty, or name a cable.`,
  mode: ({ written }: { written: string }) => `“${written}” is no mode. Write single, ribbon or ribbonized.`,
  polarity: ({ written }: { written: string }) => `“${written}” is no polarity. Write straight or reversed.`,
  'circuit-long': ({ longest }: { longest: number }) =>
    `The circuit’s name is longer than ${longest} characters.`,
};

export type CsvProblemTold = Told<FindingIn<typeof csvWords>>;

export function csvProblemWords(told: CsvProblemTold, units: Units): string {
  return wordsIn(csvWords, told, units);
}

function changeWords(change: LeastChange): string {
  switch (change.kind) {
    case 'no-spare-slots':
      return 'They fit when no spare slots are left free.';
    case 'no-pins':
      return 'They fit when nothing is kept on a tray by hand.';
    case 'ribbon-trays':
      return 'The trays hold no ribbon sleeves. Use trays that do.';
    case 'more-slots':
      return 'Use trays with more slots.';
    case 'more-trays':
      return `${change.trays} more ${change.trays === 1 ? 'tray' : 'trays'} of ${change.slots} would hold them, or trays with more slots.`;
  }
}

function rangeWords({ label, of, from, to }: NamedRange): string {
  return `${label} ${of === 'fiber' ? '' : `${of} `}${from}–${to}`;
}

function beyondWords({ label, of, count, asked }: Beyond): string {
  return `${label} has ${count} ${of}s, so there is no ${of} ${asked}. End the range at ${count} or less.`;
}

/** As it is given, to the last digit. */
const micrometers = (value: number | null) => `${shownNumber(value ?? '?')} μm`;

function signed(loss: number): string {
  return `${loss < 0 ? '−' : '+'}${formatMean(Math.abs(loss))}`;
}

/** Why splices that belong together lie on a tray. */
export interface TrayReason extends Pick<Placement, 'tray' | 'because' | 'count' | 'passedOver'> {
  readonly holder: HolderName;
  readonly kind: 'single' | 'ribbon';
  /** The tray that was passed over holds sleeves of both kinds, so it may have been begun with the other one. */
  readonly eitherKind: boolean;
}

/** "Tube 3 of A (12 splices) goes on tray 2: tray 1 has 4 slots left, and it stays whole." */
export function trayReasonWords({
  holder,
  kind,
  count,
  tray,
  because,
  passedOver,
  eitherKind,
}: TrayReason): string {
  const sleeves = `${count} ${kind === 'ribbon' ? 'ribbon sleeve' : 'splice'}${count === 1 ? '' : 's'}`;
  const what = `${holderNameWords(holder)} (${sleeves}) goes on tray ${tray}`;
  switch (because) {
    case 'next':
      return `${what}: next in order, and there is room for all of it.`;
    case 'next-tray':
      return passedOver!.free > 0
        ? `${what}: tray ${passedOver!.tray} has ${passedOver!.free} slots left, and it stays whole.`
        : `${what}: tray ${passedOver!.tray} is full${eitherKind ? ' or holds the other kind of sleeve' : ''}.`;
    case 'pinned':
      return `${what}: kept there by hand.`;
    case 'room-left':
      return `${what}: out of order, because no tray behind has room and this one does.`;
    case 'kept-whole':
      return `${what}: out of order where it has to be, so that as many as possible stay whole.`;
    case 'split':
      return `${what}: split, because no tray has room for all of it.`;
  }
}

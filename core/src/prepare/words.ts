import { wordsIn, type FindingIn, type Told } from '../finding';
import type { Units } from '../line/project';
import { formatChainage, formatMillimeters } from '../units/length';
import { formatTape, type MixedUnit } from '../units/tapeLength';
import type { PreparationLengths } from './cut/lengths';
import { liveWords, type LiveSpan } from '../plan/words';
import { holdersNamed, type Holder } from '../plan/opened/openedUnits';

/** What the core says of prepared cables, in English, in one place. Lengths and diameters are in mm, sheath numbers in m. */

const findingWords = {
  // The cut sheet.
  length: ({ name }: { name: keyof PreparationLengths }) =>
    `The closure’s ${lengthNames[name]} is not a length. Give a number of 0 or more.`,
  opening: ({ opening }: { opening: number }, units: Units) =>
    opening === 0
      ? 'The closure’s sheath opening is 0. Take it from the maker’s table.'
      : `A sheath opening of ${formatTape(opening, units)} is not likely. Check it against the maker’s table.`,
  'opening-unit': ({ opening, mixed }: { opening: number; mixed: MixedUnit }, units: Units) =>
    `A sheath opening of ${formatTape(opening, units)} was probably ${mixedWords[mixed]}. Mend it at the closure.`,
  /** `left` on each side. */
  stub: (
    one: { opening: number; of: 'strength member' | 'tube'; left: number; bothSides: boolean },
    units: Units,
  ) => {
    const where = one.bothSides && one.of === 'strength member' ? ' on both sides' : '';
    return `The opening of ${formatTape(one.opening, units)} is shorter than the ${one.of} that is to be left${where}, ${formatTape((one.bothSides ? 2 : 1) * one.left, units)}. Open more, or leave less.`;
  },
  /** `free` reaches beyond the tray's entry, `need` has to; negative where the end does not even reach it. */
  'too-short': (
    one: {
      holders: readonly Holder[];
      opening: number;
      wanted: Opened;
      free: number;
      need: number;
      because: 'machine' | 'coils';
      coils: number;
      coilDiameter: number;
    },
    units: Units,
  ) => {
    const tape = (length: number) => formatTape(length, units);
    const what = holdersNamed(one.holders);
    const instead = openWords(one.wanted, one.opening, units);
    if (one.free < 0) return `${what}: the end is ${tape(-one.free)} short of the tray. ${instead}.`;
    const machine = one.because === 'machine';
    const reason = machine
      ? 'to reach the machine'
      : `for ${one.coils} coils of ${tape(one.coilDiameter)} in the tray`;
    return `${what}: ${tape(one.free)} of fiber at the tray, and ${tape(one.need)} are needed ${reason} and for the first preparation, so ${tape(one.need - one.free)} are missing. ${instead}, or ${machine ? 'bring the machine nearer' : 'take fewer coils'}.`;
  },
  'few-redos': (
    one: {
      holders: readonly Holder[];
      redos: number;
      redo: number;
      wanted: number;
      open: Opened;
      opening: number;
    },
    units: Units,
  ) =>
    `${holdersNamed(one.holders)}: the slack is enough for ${one.redos} ${one.redos === 1 ? 'redo' : 'redos'} of ${formatTape(one.redo, units)}, and ${one.wanted} may be needed. ${openWords(one.open, one.opening, units)}.`,
  /** `free`: fiber at the tray, mm. `window` is null where every fiber of it is spliced. */
  'live-in-cut': (
    one: {
      holder: Holder;
      live: readonly LiveSpan[];
      cut: WayToOpen;
      window: WayToOpen | null;
    },
    units: Units,
  ) => {
    const cost = ({ live, redos, free, opening }: WayToOpen) =>
      `${live === 0 ? 'no live fiber' : live === 1 ? 'one live fiber' : `${live} live fibers`} cut, sheath opened by ${formatTape(opening, units)}, ${formatTape(Math.max(0, free), units)} at the tray, ${redos} redos`;
    const instead = one.window
      ? ` Cut whole: ${cost(one.cut)}. By a window: ${cost(one.window)}.${one.window.live < one.cut.live ? ' Let the cable in by a window.' : ''}`
      : '';
    return `${liveWords(one.live)} in what is cut, ${holdersNamed([one.holder])}: an outage.${instead} Nothing of it is cut before the circuit is down.`;
  },
  'coil-bend': (
    one: { coilDiameter: number; type: string; bendRadius: number; source: string },
    units: Units,
  ) =>
    `Coils of ${formatTape(one.coilDiameter, units)} bend the fiber to a radius of ${formatTape(one.coilDiameter / 2, units)}, and ${one.type} goes to ${formatTape(one.bendRadius, units)} at the least (${one.source}). Coil to ${formatTape(2 * one.bendRadius, units)} or more.`,
  'cable-bend': (one: { label: string; loop: number; atRest: number }, units: Units) =>
    `A loop of ${formatTape(one.loop, units)} bends ${one.label} to ${formatTape(one.loop / 2, units)}, and at rest 10 × its diameter, ${formatTape(one.atRest, units)}, is the least. Store it in a loop of ${formatTape(2 * one.atRest, units)} or more.`,

  // Seals.
  'no-diameter': ({ label }: { label: string }) =>
    `Nobody knows how thick ${label} is. Measure it with a caliper, or wrap a tape round it.`,
  diameter: ({ label, diameter }: { label: string; diameter: number }, units: Units) =>
    `${formatMillimeters(diameter, units)} is not the diameter of a cable. Measure ${label} again.`,
  'diameter-unit': (
    one: { label: string; diameter: number; nominal: number; mixed: MixedUnit },
    units: Units,
  ) =>
    `${formatMillimeters(one.diameter, units)} for ${one.label} was probably ${mixedWords[one.mixed]}: it should be about ${formatMillimeters(one.nominal, units)}. Enter it again.`,
  circumference: (one: { label: string; diameter: number; nominal: number }, units: Units) =>
    `${formatMillimeters(one.diameter, units)} for ${one.label} looks like the ${one.diameter > one.nominal ? 'circumference' : 'diameter, divided by π once more'}: it should be about ${formatMillimeters(one.nominal, units)} across.`,
  'other-cable': (one: { label: string; diameter: number; nominal: number }, units: Units) =>
    `${one.label} should be about ${formatMillimeters(one.nominal, units)} thick, and ${formatMillimeters(one.diameter, units)} was measured. Make sure that it is this cable.`,
  'no-ports': () => 'The closure’s ports are not known. Enter them at the closure, from the maker’s table.',
  /** `nearest` where none fits; null where those that do are taken. */
  'no-seal': (
    one: {
      label: string;
      diameter: number;
      through: boolean;
      asked: string | null;
      nearest: { name: string; from: number; to: number } | null;
    },
    units: Units,
  ) => {
    const shown = (length: number) => formatMillimeters(length, units);
    const thick = `${one.label} is ${shown(one.diameter)} thick`;
    if (!one.nearest)
      return `${thick}, and every port that takes it is taken. Use a closure with more ports.`;
    return `${thick}, and no port ${one.through ? 'for a cable that goes through ' : ''}takes that${one.asked === null ? '' : ` (port ${one.asked} was asked for)`}. The nearest is ${one.nearest.name}, ${shown(one.nearest.from)} to ${shown(one.nearest.to)}. Do not force it: another seal kit, or another closure.`;
  },
  'no-part': ({ port, diameter }: { port: string; diameter: number }, units: Units) =>
    `Port ${port} takes ${formatMillimeters(diameter, units)}, and its parts table has no seal for it. Use another seal kit; do not force it.`,
  'not-slit': ({ label, part }: { label: string; part: string }) =>
    `${label} goes through and cannot be threaded: ${part} has to be slit. Take one that is.`,
  slit: () => 'Keep the slit of the grommet off every seam of the end plate.',
  bushing: ({ label, thin }: { label: string; thin: number }, units: Units) =>
    `${label} is thinner than ${formatMillimeters(thin, units)}: some closures need a small-diameter bushing. Look it up in the maker’s table.`,
  shared: ({ part, holds }: { part: string; holds: number }) =>
    `${part} holds ${holds} cables; put a pin into every hole that stays empty.`,
  'round-first': ({ off }: { off: 'messenger' | 'toning wire' }) =>
    `${off === 'messenger' ? 'Messenger' : 'Toning wire'} off before it goes through the seal.`,

  basket: (
    one: {
      length: number;
      takes: number;
      turns: number;
      diameter: number;
      wanted: number;
      /** The tightest coil that the fiber bears, where that is what is wrong. */
      tight: number | null;
    },
    units: Units,
  ) => {
    const tape = (length: number) => formatTape(length, units);
    const basket = `The basket takes ${one.turns} turns of ${tape(one.diameter)}, ${tape(one.takes)} of tubes that go through`;
    if (one.tight !== null)
      return `${basket}. ${tape(one.length)} would lie tighter than ${tape(one.tight)} across: open by ${tape(one.wanted)}, one whole turn.`;
    return `${basket}, and ${tape(one.length)} are opened. Open by at most ${tape(one.wanted)}, or store the rest elsewhere.`;
  },

  // Numbers on the sheath.
  turned: ({ site }: { site: string }) =>
    `The numbers run up on one side of ${site} and down on the other. Read them again.`,
  'sheath-unit': (one: { sheath: number; route: number; probably: 'feet' | 'meters' }, units: Units) => {
    const what = `${formatChainage(one.sheath, units)} of cable on ${formatChainage(one.route, units)} of route: the numbers on the sheath are probably ${one.probably}.`;
    return one.probably === 'feet'
      ? `${what} Enter them in meters, or switch the project to inches.`
      : `${what} Enter them as feet.`;
  },
  'sheath-short': ({ sheath, route }: { sheath: number; route: number }, units: Units) =>
    `The sheath numbers give ${formatChainage(sheath, units)} of cable, and the plan has ${formatChainage(route, units)} of route. Read the numbers again, or correct the distance of the sites.`,
  'sheath-long': ({ sheath, route }: { sheath: number; route: number }, units: Units) =>
    `The sheath numbers give ${formatChainage(sheath, units)} of cable on ${formatChainage(route, units)} of route, ${formatChainage(sheath - route, units)} more. Is so much stored at the sites?`,
};

/** What opening a tube or ribbon one way comes to: live fibers cut, redos, fiber at the tray and sheath opened, mm. */
interface WayToOpen {
  readonly live: number;
  readonly redos: number;
  readonly free: number;
  readonly opening: number;
}

/** How far the sheath is to be opened, and what to write into the closure's table for it. mm */
interface Opened {
  readonly opening: number;
  readonly table: number;
}

function openWords({ opening, table }: Opened, now: number, units: Units): string {
  const inTable =
    Math.abs(table - opening) < 0.01 ? '' : `, which is ${formatTape(table, units)} in the closure’s table`;
  return `Open the sheath by ${formatTape(opening, units)} instead of ${formatTape(now, units)}${inTable}`;
}

export type PrepareFinding = FindingIn<typeof findingWords>;

/** What is wrong with a cut sheet, a seal or a sheath's numbers, and what to do about it. */
export function prepareFindingWords(finding: Told<PrepareFinding>, units: Units): string {
  return wordsIn(findingWords, finding, units);
}

const mixedWords: Readonly<Record<MixedUnit, string>> = {
  'inches as mm': 'given in mm, meant in inches',
  'mm as inches': 'given in inches, meant in mm',
};

const lengthNames: Readonly<Record<keyof PreparationLengths, string>> = {
  sheathOpening: 'sheath opening',
  strengthMember: 'strength member left',
  tube: 'tube left',
  trayFiber: 'fiber to the machine',
  tubeToTray: 'way to the tray',
  clampMark: 'clamp mark',
  aramid: 'aramid left',
  ripcord: 'ripcord left',
  testCut: 'test cut',
  windowInset: 'window’s distance',
  exitStub: 'stub at the exit',
  dropOpening: 'drop opening',
  connectorOpening: 'opening for a connector',
  coils: 'number of coils',
  coilDiameter: 'coil diameter',
  basketDiameter: 'coil in the basket',
  basketTurns: 'turns in the basket',
  redo: 'length of a redo',
  cableLoop: 'cable loop',
};

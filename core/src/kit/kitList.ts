import { fanOutFibers, fanOutKits } from '../prepare/cut/fanOut';
import { ribbonsInJacket } from '../prepare/cut/lengths';
import { metalOf, type Cable } from '../line/cable';
import { fiberUnits, unitOf } from '../line/fiberNumber';
import { entryKey, goesThrough, type Closure, type Entry } from '../plan/closure';
import { jointOf } from '../splice/bench/joint';
import type { ClosurePlan } from '../plan/trays/closurePlan';
import { seatCables, type Seating } from '../plan/models/ports';
import { shownNumber } from '../units/decimals';
import { fiberEndKey } from '../plan/fiberEnd';
import { isOpened } from '../plan/opened/openedUnits';
import type { PlannedSplice } from '../plan/order/order';

/** One thing to bring, and how many. */
export interface KitLine {
  /** Stable name of the item: the same item in another closure has the same. */
  readonly item: string;
  readonly name: string;
  /** Pieces that the work uses up. */
  readonly count: number;
  /** Pieces on top, by the spare share. 0 for parts of which a spare makes no sense. */
  readonly spare: number;
  /** How `count` was computed. */
  readonly how: string;
}

/** What of a closure's work is done, and needs nothing any more. */
export interface KitDone {
  /** Splices that are settled, by their ids. */
  readonly settled: ReadonlySet<string>;
  /** Fiber ends whose connector is on, by `fiberEndKey`. */
  readonly connected: ReadonlySet<string>;
  /** Cables that are open and in their seals, by their ids. */
  readonly opened: ReadonlySet<string>;
  /** The closure is closed and tested. */
  readonly sealed: boolean;
}

export interface KitWishes {
  /** Spares in percent, rounded up to a piece. */
  readonly sparePercent: number;
  /** Ways of working, which take different parts; pads and dry wipes where they are not given. */
  readonly schools?: { readonly ribbonizing: 'pads' | 'block'; readonly wipe: 'dry' | 'moist' };
  /** Nothing where it is not given. */
  readonly done?: KitDone;
  /** mm, by cable, where somebody measured: the seals follow from it. */
  readonly diameters?: ReadonlyMap<string, number>;
}

const usualWays = { ribbonizing: 'pads', wipe: 'dry' } as const;
const nothingDone: KitDone = { settled: new Set(), connected: new Set(), opened: new Set(), sealed: false };

/**
 * What a closure's plan still asks for. All counts are common practice, no published source, where the line does not follow from the plan itself;
 * each line says how it was made so that a person can judge it.
 */
export function kitList(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  { sparePercent, schools = usualWays, done = nothingDone, diameters }: KitWishes,
): KitLine[] {
  const lines: Omit<KitLine, 'spare'>[] = [];
  const single = new Set<string>();
  const add: Add = (item, name, count, how, withSpares = true) => {
    if (count <= 0) return;
    if (!withSpares) single.add(item);
    lines.push({ item, name, count, how });
  };

  const counted = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;
  const splices = [...plan.splices, ...plan.unplaced].filter(({ id }) => !done.settled.has(id));
  const singles = splices.filter((splice) => splice.kind === 'single').length;
  const ribbons = splices.length - singles;
  const connectors = { mechanical: 0, 'fusion-connector': 0, fusion: 0 };
  for (const splice of splices) connectors[jointOf(closure, splice, cables).kind] += 1;
  const { fusion: fusedSplices } = connectors;
  const sleeves = fusedSplices - ribbons;
  const ends = plan.ends.filter((end) => end.connector !== 'own' && !done.connected.has(fiberEndKey(end)));
  for (const { connector } of ends) if (connector !== 'own') connectors[connector] += 1;
  const { mechanical, 'fusion-connector': fused } = connectors;
  const length = closure.sleeveLength ?? 60;
  add(
    `single-sleeve-${length}`,
    `Single sleeve, ${length} mm`,
    sleeves,
    `${sleeves} single splices, one sleeve each`,
  );
  add(
    'fusion-connector',
    'Fused connector with its sleeve and boot',
    fused,
    `${counted(fused, 'fiber ends', 'fibers end')} in one`,
  );
  add(
    'mechanical-connector',
    'Mechanical connector with its boot',
    mechanical,
    `${counted(mechanical, 'fiber ends', 'fibers end')} in one`,
  );
  const kits = fanOutKits(ends, cables);
  add('fan-out', 'Fan-out kit', kits, `bare fibers that end in connectors, ${fanOutFibers} in one`, false);
  add('ribbon-sleeve', 'Ribbon sleeve, 40 mm', ribbons, `${ribbons} ribbon splices, one sleeve each`);

  let loose = 0;
  for (const splice of splices)
    if (splice.kind === 'ribbon')
      for (const [end] of [splice.left, splice.right])
        if (unitOf(cables.get(end!.cableId)!.construction, end!.fiber).kind !== 'ribbon') loose += 1;
  const made = `${loose} ribbons made of loose fibers`;
  if (schools.ribbonizing === 'pads') {
    add('upper-pad', 'Soft upper pad', loose, `${made}, one pad each, used once`);
    add(
      'lower-pad',
      'Hard lower pad',
      Math.ceil(loose / 2),
      `${made}, one pad for two: it is turned over once`,
    );
  } else {
    add('sponge-pad', 'Sponge pad', loose, `${made}, one each`);
    add('ribbon-clip', 'Ribbon clip', loose, `${made}, one each`);
    add('swab', 'Swab', loose * 2, `${made}, two swabs each`);
  }
  add('adhesive', 'Ribbon adhesive, applicator', Math.ceil(loose / 24), `${made}, one applicator for 24`);

  // What is spliced in nowhere stays closed.
  const toOpen = done.sealed
    ? []
    : closure.entries.filter(
        ({ cableId }) =>
          cables.has(cableId) && !done.opened.has(cableId) && isOpened(plan, closure, cables.get(cableId)!),
      );
  const cablesToOpen = counted(toOpen.length, 'cable');

  closure.entries.forEach((entry, index) => {
    const cable = cables.get(entry.cableId);
    const units = cable ? fiberUnits(cable.construction) : [];
    if (!cable || units[0]!.kind !== 'ribbon' || !toOpen.includes(entry)) return;
    const key = entryKey(entry, index);
    const leave = goesThrough(entry.manner) ? openedRibbons(plan, cable) : units.length;
    // Mesh guards ribbons on their way to a chassis; in a closure they lie in its own trays.
    if (closure.kind !== 'rack') return;
    add(
      'mesh',
      'Protective mesh',
      Math.ceil(leave / 2),
      `${key}: ${leave} ribbons, one mesh for two (1 & 2, 3 & 4 …)`,
    );
    if (leave > ribbonsInJacket)
      add(
        'breakout',
        'Breakout kit',
        1,
        `${key}: ${leave} ribbons, more than ${ribbonsInJacket} into a module`,
      );
  });
  if (closure.kind !== 'rack') {
    const trays = plan.trays.filter((tray) =>
      tray.splices.some((splice) => !done.settled.has(splice.id) && fromRibbon(splice, cables)),
    ).length;
    add('transport-tube', 'Transport tube', trays, `${counted(trays, 'tray')} with ribbons, one up to each`);
  }

  const armored = toOpen.filter(({ cableId }) => metalOf(cables.get(cableId)!.construction).armor);
  add(
    'shield',
    'Shield connector and bond wire',
    armored.reduce((sum, { manner }) => sum + (goesThrough(manner) ? 2 : 1), 0),
    `${counted(armored.length, 'armored cable')}, one at each sheath edge`,
    false,
  );

  if (!done.sealed) addSeals(add, seatCables(closure, cables, diameters), closure, done.opened);

  const opened = openedUnits(splices, toOpen, cables);
  add(
    'felt',
    'Felt or hook-and-loop, piece',
    opened,
    `${opened} ${opened === 1 ? 'tube or ribbon' : 'tubes and ribbons'} led to a tray, one each`,
  );
  add(
    'tie',
    'Tie',
    toOpen.length * 2 + opened * 2,
    `${cablesToOpen} and ${counted(opened, 'tube or ribbon', 'tubes or ribbons')} at their trays, two each`,
  );
  add('gel-wipe', 'Gel remover wipe', toOpen.length * 4, `${cablesToOpen}, four each`);
  const each = `${singles} single splices, two each; ${ribbons} ribbon splices, four each${ends.length > 0 ? `; ${counted(ends.length, 'connector')}, one each` : ''}`;
  const wipes = singles * 2 + ribbons * 4 + ends.length;
  if (schools.wipe === 'moist') add('moist-wipe', 'Pre-moistened wipe', wipes, each);
  else
    add(
      'alcohol',
      'Alcohol 99 %, 10 ml',
      Math.ceil((splices.length + ends.length) / 24),
      ends.length > 0
        ? `${splices.length} splices and ${counted(ends.length, 'connector')}, one measure for 24`
        : `${splices.length} splices, one measure for 24`,
    );
  add('wipe', 'Dry wipe', wipes, each);
  if (!done.sealed) {
    add('grease', 'Silicone grease, sachet', 1, 'one a closure');
    if ((closure.testPressure ?? 0) > 0)
      add('soap', 'Soap solution, bottle', 1, 'one a closure, for the flash test', false);
  }
  return joined(lines.map((line) => ({ ...line, spare: 0 }))).map((line) => ({
    ...line,
    spare: single.has(line.item) ? 0 : spares(line.count, sparePercent),
  }));
}

/** Adds a line to a kit, with spares where nothing else is said. */
type Add = (item: string, name: string, count: number, how: string, withSpares?: boolean) => void;

/**
 * Seals, plugs and the closure's own parts, for each opening that is still to be sealed.
 * @param sealedIn cables whose seals are on
 */
function addSeals(add: Add, { seats, used }: Seating, closure: Closure, sealedIn: ReadonlySet<string>): void {
  const wanted = seats.filter(({ cable }) => !sealedIn.has(cable.id));
  if (used) {
    for (const { port, openings } of used) {
      const parts = seats.flatMap((seat) => (seat.port === port ? seat.parts : []));
      const own = wanted.filter((seat) => seat.port === port);
      for (const name of new Set(parts.map(({ part }) => part))) {
        // A seal that holds several cables is one for all of them.
        const holds = Math.max(...parts.filter(({ part }) => part === name).map((one) => one.holds ?? 1));
        const count = own.reduce((sum, seat) => {
          const part = seat.parts.find((one) => one.part === name);
          return sum + (part ? part.count * seat.openings : 0);
        }, 0);
        add(
          `part-${name}`,
          name,
          Math.ceil(count / holds),
          `port ${port.name}, ${own.map(({ key }) => key).join(', ')}`,
          false,
        );
      }
      // Where the table says nothing of a cable's seal, there is one all the same.
      const bare = own.filter(
        (seat) => !seat.parts.some(({ kind }) => kind === 'seal' || kind === 'grommet'),
      );
      const count = bare.reduce((sum, seat) => sum + seat.openings, 0);
      add(
        `seal-${port.name}-${port.from}-${port.to}`,
        `Seal, port ${port.name} (${shownNumber(port.from)} to ${shownNumber(port.to)} mm)`,
        count,
        `${bare.map(({ key }) => key).join(', ')}: one for each opening`,
        false,
      );
      add(
        `plug-${port.name}-${port.from}-${port.to}`,
        `Plug, port ${port.name}`,
        port.count - openings,
        `${port.count - openings} of ${port.count} unused`,
        false,
      );
    }
    const unknown = wanted.filter(({ port }) => port === null);
    add(
      'seal',
      'Seal',
      unknown.reduce((sum, { openings }) => sum + openings, 0),
      `${unknown.map(({ key }) => key).join(', ')}: one for each opening; which one is said by the diameter`,
      false,
    );
  } else {
    const count = wanted.reduce((sum, { openings }) => sum + openings, 0);
    add(
      'seal',
      'Seal',
      count,
      `${wanted.length} cables, one for each opening; the closure’s ports are not known`,
      false,
    );
  }
  const openings = wanted.reduce((sum, one) => sum + one.openings, 0);
  for (const part of closure.parts ?? [])
    add(
      `model-${part.name}`,
      part.name,
      part.perCable ? part.count * openings : part.count,
      part.perCable
        ? `${openings} ${openings === 1 ? 'opening' : 'openings'}, ${part.count} each`
        : `in the kit of ${closure.model ?? 'the closure'}`,
      false,
    );
}

/** The lists of several closures as one: the same item once, its reasons one after the other, and spares for the sum, not for each. */
export function sumKits(
  kits: readonly { readonly name: string; readonly lines: readonly KitLine[] }[],
  { sparePercent }: KitWishes,
): KitLine[] {
  return joined(
    kits.flatMap(({ name, lines }) => lines.map((line) => ({ ...line, how: `${name}: ${line.how}` }))),
  ).map((line) => (line.spare > 0 ? { ...line, spare: spares(line.count, sparePercent) } : line));
}

/** Rounded up to a piece; what is left of a binary fraction does not make it one more. */
function spares(count: number, percent: number): number {
  return Math.ceil((count * percent) / 100 - 1e-9);
}

function joined(lines: readonly KitLine[]): KitLine[] {
  const byItem = new Map<string, KitLine>();
  for (const line of lines) {
    const known = byItem.get(line.item);
    byItem.set(
      line.item,
      known
        ? {
            ...known,
            count: known.count + line.count,
            spare: known.spare + line.spare,
            how: `${known.how}; ${line.how}`,
          }
        : line,
    );
  }
  return [...byItem.values()];
}

/** Ribbons of a cable of which at least one fiber is spliced. */
function openedRibbons(plan: ClosurePlan, cable: Cable): number {
  const units = new Set<number>();
  for (const { left, right } of [...plan.splices, ...plan.unplaced])
    for (const end of [left[0]!, right[0]!])
      if (end.cableId === cable.id) units.add(unitOf(cable.construction, end.fiber).unit);
  return units.size;
}

/** Tubes and ribbons that are led to a tray, on both sides, of the cables that are still to be opened. */
function openedUnits(
  splices: readonly PlannedSplice[],
  toOpen: readonly Entry[],
  cables: ReadonlyMap<string, Cable>,
): number {
  const ids = new Set(toOpen.map(({ cableId }) => cableId));
  const opened = new Set<string>();
  for (const { left, right } of splices)
    for (const end of [left[0]!, right[0]!]) {
      if (!ids.has(end.cableId)) continue;
      const { kind, unit } = unitOf(cables.get(end.cableId)!.construction, end.fiber);
      if (kind !== 'bundle') opened.add(`${end.cableId}${end.side}${unit}`);
    }
  return opened.size;
}

function fromRibbon({ left, right }: PlannedSplice, cables: ReadonlyMap<string, Cable>): boolean {
  return [left[0]!, right[0]!].some(
    ({ cableId, fiber }) => unitOf(cables.get(cableId)!.construction, fiber).kind === 'ribbon',
  );
}

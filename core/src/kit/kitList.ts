import type { Cable } from '../line/cable';
import { fiberUnits, unitOf } from '../line/fiberNumber';
import { entryKey, goesThrough, type Closure } from '../plan/closure';
import { jointOf } from '../splice/bench/joint';
import type { ClosurePlan } from '../plan/trays/closurePlan';
import { portsTaken } from '../plan/models/ports';

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

export interface KitWishes {
  /** Spares in percent, rounded up to a piece. */
  readonly sparePercent: number;
}

/**
 * What a closure's plan asks for. All counts are common practice, no published source, where the line does not follow from the plan itself;
 * each line says how it was made so that a person can judge it.
 */
export function kitList(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  { sparePercent }: KitWishes,
): KitLine[] {
  const lines: KitLine[] = [];
  const add = (item: string, name: string, count: number, how: string, withSpares = true) => {
    if (count <= 0) return;
    const spare = withSpares ? spares(count, sparePercent) : 0;
    lines.push({ item, name, count, spare, how });
  };

  const splices = [...plan.splices, ...plan.unplaced];
  const singles = splices.filter((splice) => splice.kind === 'single').length;
  const ribbons = splices.length - singles;
  const connectors = { mechanical: 0, 'fusion-connector': 0, fusion: 0 };
  for (const splice of splices) connectors[jointOf(closure, splice, cables).kind] += 1;
  const { mechanical, 'fusion-connector': fused } = connectors;
  const sleeves = singles - mechanical - fused;
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
    `${fused} splices that end in one`,
  );
  add(
    'mechanical-connector',
    'Mechanical connector with its boot',
    mechanical,
    `${mechanical} splices that end in one`,
  );
  add('ribbon-sleeve', 'Ribbon sleeve, 40 mm', ribbons, `${ribbons} ribbon splices, one sleeve each`);

  let loose = 0;
  for (const splice of splices)
    if (splice.kind === 'ribbon')
      for (const [end] of [splice.left, splice.right])
        if (unitOf(cables.get(end!.cableId)!.construction, end!.fiber).kind !== 'ribbon') loose += 1;
  const made = `${loose} ribbons made of loose fibers`;
  add('upper-pad', 'Soft upper pad', loose, `${made}, one pad each, used once`);
  add(
    'lower-pad',
    'Hard lower pad',
    Math.ceil(loose / 2),
    `${made}, one pad for two: it is turned over once`,
  );
  add('adhesive', 'Ribbon adhesive, applicator', Math.ceil(loose / 24), `${made}, one applicator for 24`);
  add('swab', 'Swab', loose * 2, `${made}, two swabs each`);

  closure.entries.forEach((entry, index) => {
    const cable = cables.get(entry.cableId);
    const units = cable ? fiberUnits(cable.construction) : [];
    if (!cable || units[0]!.kind !== 'ribbon') return;
    const leave = goesThrough(entry.manner) ? openedRibbons(plan, cable) : units.length;
    add(
      'mesh',
      'Protective mesh',
      Math.ceil(leave / 2),
      `${entryKey(entry, index)}: ${leave} ribbons, one mesh for two (1 & 2, 3 & 4 …)`,
    );
  });

  const taken = portsTaken(closure, cables);
  if (taken) {
    for (const { port, used } of taken) {
      add(
        `seal-${port.name}-${port.from}-${port.to}`,
        `Seal, port ${port.name} (${port.from} to ${port.to} mm)`,
        used,
        `${used} of ${port.count} used`,
        false,
      );
      add(
        `plug-${port.name}-${port.from}-${port.to}`,
        `Plug, port ${port.name}`,
        port.count - used,
        `${port.count - used} of ${port.count} unused`,
        false,
      );
    }
  } else {
    const { length: count } = closure.entries;
    add('seal', 'Seal', count, `${count} cables, one each; the closure’s ports are not known`, false);
  }

  const opened = openedUnits(plan, cables);
  add(
    'felt',
    'Felt or hook-and-loop, piece',
    opened,
    `${opened} ${opened === 1 ? 'tube or ribbon' : 'tubes and ribbons'} led to a tray, one each`,
  );
  const ties = closure.entries.length * 2 + opened * 2;
  add(
    'tie',
    'Tie',
    ties,
    `${closure.entries.length} cables and ${opened} tubes or ribbons at their trays, two each`,
  );
  const gel = closure.entries.length * 4;
  add('gel-wipe', 'Gel remover wipe', gel, `${closure.entries.length} cables, four each`);
  const wipes = singles * 2 + ribbons * 4;
  add('wipe', 'Dry wipe', wipes, `${singles} single splices, two each; ${ribbons} ribbon splices, four each`);
  add(
    'alcohol',
    'Alcohol 99 %, 10 ml',
    Math.ceil(splices.length / 24),
    `${splices.length} splices, one measure for 24`,
  );
  add('grease', 'Silicone grease, sachet', 1, 'one a closure');
  if ((closure.testPressure ?? 0) > 0)
    add('soap', 'Soap solution, bottle', 1, 'one a closure, for the flash test', false);
  return joined(lines);
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

/** Tubes and ribbons that are led to a tray, on both sides. */
function openedUnits(plan: ClosurePlan, cables: ReadonlyMap<string, Cable>): number {
  const opened = new Set<string>();
  for (const { left, right } of [...plan.splices, ...plan.unplaced])
    for (const end of [left[0]!, right[0]!]) {
      const { kind, unit } = unitOf(cables.get(end.cableId)!.construction, end.fiber);
      if (kind !== 'bundle') opened.add(`${end.cableId}${end.side}${unit}`);
    }
  return opened.size;
}

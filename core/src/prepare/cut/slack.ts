import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { fiberOf } from '../../line/fiberType';
import type { Units } from '../../line/project';
import { madeRibbon, ribbonizingTrim, tubeInTray, type PreparationLengths } from './lengths';
import type { OpenedUnit } from '../../plan/opened/openedUnits';
import type { PrepareFinding } from '../words';

/** What the fiber of one tube or ribbon allows. All in mm. */
export interface Slack {
  /** Tube, ribbon or fiber that stands out of the sheath, from the sheath edge to its end. */
  readonly stub: number;
  /** Of it, from the tray's entry to the end. Negative when it does not even reach the tray. */
  readonly free: number;
  /** Needed to reach the machine, and for the coils in the tray; the longer of the two counts. */
  readonly reach: number;
  readonly coils: number;
  /** What one try takes: stripped and cleaved away, and of loose fibers that are made into a ribbon what that trims. */
  readonly each: number;
  /** The ribbon that has to be there, where loose fibers are made into one; 0 elsewhere. */
  readonly ribbon: number;
  /** All that has to be there for the first splice: the way, the ribbon, and what the first preparation takes. */
  readonly need: number;
  /** What is left above the need. Negative by how much it is too short. */
  readonly spare: number;
  /** Splices that may be done again before it is too short. */
  readonly redos: number;
}

/** Length of `coils` turns of a diameter, mm: π × diameter each. */
export function coilLength(coils: number, diameter: number): number {
  return coils * Math.PI * diameter;
}

/**
 * The slack of a stub that stands out of the sheath. A longer one never gives less.
 * @param ribbonized loose fibers are made into a ribbon: each redo needs a new one
 */
export function slackOf(stub: number, lengths: PreparationLengths, ribbonized = false): Slack {
  const free = stub - lengths.tubeToTray - tubeInTray;
  const coils = coilLength(lengths.coils, lengths.coilDiameter);
  const each = lengths.redo + (ribbonized ? ribbonizingTrim : 0);
  const ribbon = ribbonized ? madeRibbon : 0;
  const need = Math.max(lengths.trayFiber, coils) + ribbon + each;
  const spare = free - need;
  // What is left of a binary fraction must not take a whole redo away.
  const redos = each > 0 ? Math.max(0, Math.floor(spare / each + 1e-9)) : 0;
  return { stub, free, reach: lengths.trayFiber, coils, each, ribbon, need, spare, redos };
}

/**
 * How long the stub of an opened unit is when the sheath is opened by `opening`, mm. The cut lies at the far edge, so that the stub is as long as
 * it can be; where both sides are spliced it lies in the middle.
 */
export function stubLength(
  { how, sides }: Pick<OpenedUnit, 'how' | 'sides'>,
  opening: number,
  lengths: PreparationLengths,
  /** What a knife opened at the end of the cable, and is cut off. */
  knife = 0,
): number {
  switch (how) {
    case 'end':
      return opening - knife;
    case 'low':
    case 'high':
      return opening - lengths.exitStub;
    case 'both':
      return opening / 2;
    case 'window':
      // The fibers leave the tube where the window begins, and are cut where it ends.
      return sides.length === 2 ? opening / 2 : opening - lengths.windowInset;
  }
}

/** How much the opening has to grow for a stub to grow by one. */
function openingPerStub({ how, sides }: Pick<OpenedUnit, 'how' | 'sides'>): number {
  return how === 'both' || (how === 'window' && sides.length === 2) ? 2 : 1;
}

/**
 * How far the sheath of a cable that goes through is opened, so that every stub is as long as one that is opened by `length` at a cable's end, mm: twice as far
 * where a tube is spliced on both sides, and by the way to its tray farther where one is opened by a window.
 */
export function openingThrough(
  opened: readonly Pick<OpenedUnit, 'how' | 'sides'>[],
  length: number,
  lengths: PreparationLengths,
): number {
  if (opened.some((unit) => openingPerStub(unit) === 2)) return 2 * length;
  return length + throughMore(opened, lengths);
}

function throughMore(opened: readonly Pick<OpenedUnit, 'how'>[], lengths: PreparationLengths): number {
  if (opened.some(({ how }) => how === 'window')) return lengths.windowInset;
  return opened.some(({ how }) => how === 'low' || how === 'high') ? lengths.exitStub : 0;
}

export interface UnitSlack {
  readonly unit: OpenedUnit;
  readonly slack: Slack;
}

/** Lengths that are advised are rounded up to these, mm: a centimeter, a quarter of an inch. */
const steps: Readonly<Record<Units, number>> = { mm: 10, in: 6.35 };

/**
 * What does not fit: which number, by how much, and what to change. What is advised settles it, the wanted redos reckoned in.
 * @param table the length of the closure's table that the opening follows from
 * @param redosWanted how often a splice may have to be done again
 */
export function slackFindings(
  cable: Cable,
  key: string,
  units: readonly UnitSlack[],
  opening: number,
  table: number,
  lengths: PreparationLengths,
  redosWanted: number,
  shown: Units,
): PrepareFinding[] {
  const findings: PrepareFinding[] = [];
  const say = sayAt(findings, { kind: 'cable', key });

  const few = units.filter(({ slack }) => slack.spare < 0 || slack.redos < redosWanted);
  if (few.length > 0) {
    // By how much the opening has to grow until every unit has its redos.
    const missing = Math.max(
      ...few.map(({ unit, slack }) => (redosWanted * slack.each - slack.spare) * openingPerStub(unit)),
    );
    const doubled = units.some(({ unit }) => openingPerStub(unit) === 2);
    const step = steps[shown];
    // In the closure's table, rounded up; what the sheath is opened by follows from it.
    const more = Math.ceil((doubled ? missing / 2 : missing) / step - 1e-9) * step;
    const wanted = { table: table + more, opening: opening + (doubled ? 2 * more : more) };
    const short = few.filter(({ slack }) => slack.spare < 0);
    const [worst] = [...(short.length > 0 ? short : few)].sort((a, b) => a.slack.spare - b.slack.spare);
    const holders = (short.length > 0 ? short : few).map(({ unit }) => unit.holder);
    const { free, need, reach, coils, each, redos } = worst!.slack;
    if (short.length > 0)
      say('too-short', {
        holders,
        opening,
        wanted,
        free,
        need,
        because: reach >= coils ? 'machine' : 'coils',
        coils: lengths.coils,
        coilDiameter: lengths.coilDiameter,
      });
    else
      say('few-redos', { holders, redos, redo: each, wanted: redosWanted, open: wanted, opening }, 'warning');
  }

  const { type } = fiberOf(cable);
  if (lengths.coils > 0 && lengths.coilDiameter / 2 < type.bendRadius)
    say('coil-bend', {
      coilDiameter: lengths.coilDiameter,
      type: type.name,
      bendRadius: type.bendRadius,
      source: type.source,
    });
  if (cable.diameter !== undefined) {
    const { atRest } = cableBendRadius(cable.diameter);
    if (lengths.cableLoop / 2 < atRest)
      say('cable-bend', { label: cable.label, loop: lengths.cableLoop, atRest }, 'warning');
  }
  return findings;
}

/** Smallest bend radius of a cable, mm: 20 × its diameter while it is pulled, 10 × at rest (common rule, stated in TIA-568). */
export function cableBendRadius(diameter: number): {
  readonly underLoad: number;
  readonly atRest: number;
} {
  return { underLoad: 20 * diameter, atRest: 10 * diameter };
}

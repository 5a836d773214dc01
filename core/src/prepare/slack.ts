import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import { fiberOf } from '../line/fiberType';
import type { Units } from '../line/project';
import { formatTape } from '../units/tapeLength';
import { tubeInTray, type PreparationLengths } from './lengths';
import { holdersNamed, type OpenedUnit } from './openedUnits';

/** What the fiber of one tube or ribbon allows. All in mm. */
export interface Slack {
  /** Tube, ribbon or fiber that stands out of the sheath, from the sheath edge to its end. */
  readonly stub: number;
  /** Of it, from the tray's entry to the end. Negative when it does not even reach the tray. */
  readonly free: number;
  /** Needed to reach the machine, and for the coils in the tray; the longer of the two counts. */
  readonly reach: number;
  readonly coils: number;
  readonly need: number;
  /** What is left above the need. Negative by how much it is too short. */
  readonly spare: number;
  /** Splices that may be done again before it is too short: the first preparation takes one length as well. */
  readonly redos: number;
}

/** Length of `coils` turns of a diameter, mm: π × diameter each. */
export function coilLength(coils: number, diameter: number): number {
  return coils * Math.PI * diameter;
}

/** The slack of a stub that stands out of the sheath. A longer one never gives less. */
export function slackOf(stub: number, lengths: PreparationLengths): Slack {
  const free = stub - lengths.tubeToTray - tubeInTray;
  const coils = coilLength(lengths.coils, lengths.coilDiameter);
  const need = Math.max(lengths.trayFiber, coils);
  const spare = free - need;
  // What is left of a binary fraction must not take a whole redo away.
  const tries = lengths.redo > 0 ? Math.floor(spare / lengths.redo + 1e-9) : 0;
  return { stub, free, reach: lengths.trayFiber, coils, need, spare, redos: Math.max(0, tries - 1) };
}

/**
 * How long the stub of an opened unit is when the sheath is opened by `opening`, mm. The cut lies at the far edge, so that the stub is as long as
 * it can be; where both sides are spliced it lies in the middle.
 */
export function stubLength(
  { how, sides }: Pick<OpenedUnit, 'how' | 'sides'>,
  opening: number,
  lengths: PreparationLengths,
): number {
  switch (how) {
    case 'end':
      return opening;
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

export interface UnitSlack {
  readonly unit: OpenedUnit;
  readonly slack: Slack;
}

/**
 * What does not fit: which number, by how much, and what to change.
 * @param redosWanted how often a splice may have to be done again
 */
export function slackFindings(
  cable: Cable,
  key: string,
  units: readonly UnitSlack[],
  opening: number,
  lengths: PreparationLengths,
  show: Units,
  redosWanted: number,
): Finding[] {
  const findings: Finding[] = [];
  const where = `cable ${key}`;
  const say = (code: string, severity: Finding['severity'], message: string) =>
    void findings.push({ code, severity, where, message });
  const tape = (length: number) => formatTape(length, show);

  const short = units.filter(({ slack }) => slack.spare < 0);
  if (short.length > 0) {
    const worst = short.reduce((a, b) =>
      a.slack.spare * openingPerStub(a.unit) <= b.slack.spare * openingPerStub(b.unit) ? a : b,
    );
    const { free, need, reach, coils, spare } = worst.slack;
    const what = holdersNamed(short.map(({ unit }) => unit.holder));
    const need1 = need + 2 * lengths.redo;
    const wanted = opening + (need1 - free) * openingPerStub(worst.unit);
    const reason =
      reach >= coils
        ? `to reach the machine`
        : `for ${lengths.coils} coils of ${tape(lengths.coilDiameter)} in the tray`;
    say(
      'too-short',
      'error',
      free < 0
        ? `${what}: the end is ${tape(-free)} short of the tray. Open the sheath by ${tape(wanted)} instead of ${tape(opening)}.`
        : `${what}: ${tape(free)} of fiber at the tray, and ${tape(need)} are needed ${reason}, so ${tape(-spare)} are missing. Open the sheath by ${tape(wanted)} instead of ${tape(opening)}, or ${reach >= coils ? 'bring the machine nearer' : 'take fewer coils'}.`,
    );
  } else {
    const few = units.filter(({ slack }) => slack.redos < redosWanted);
    if (few.length > 0) {
      const worst = few.reduce((a, b) => (a.slack.redos <= b.slack.redos ? a : b));
      const missing = worst.slack.need + (redosWanted + 1) * lengths.redo - worst.slack.free;
      say(
        'few-redos',
        'warning',
        `${holdersNamed(few.map(({ unit }) => unit.holder))}: the slack is enough for ${worst.slack.redos} redos of ${tape(lengths.redo)}, and ${redosWanted} may be needed. Open the sheath ${tape(missing * openingPerStub(worst.unit))} longer.`,
      );
    }
  }

  const { type } = fiberOf(cable);
  if (lengths.coils > 0 && lengths.coilDiameter / 2 < type.bendRadius)
    say(
      'coil-bend',
      'error',
      `Coils of ${tape(lengths.coilDiameter)} bend the fiber to a radius of ${tape(lengths.coilDiameter / 2)}, and ${type.name} goes to ${tape(type.bendRadius)} at the least (${type.source}). Coil to ${tape(2 * type.bendRadius)} or more.`,
    );
  if (cable.diameter !== undefined) {
    const { atRest } = cableBendRadius(cable.diameter);
    if (lengths.cableLoop / 2 < atRest)
      say(
        'cable-bend',
        'warning',
        `A loop of ${tape(lengths.cableLoop)} bends ${cable.label} to ${tape(lengths.cableLoop / 2)}, and at rest 10 × its diameter, ${tape(atRest)}, is the least. Store it in a loop of ${tape(2 * atRest)} or more.`,
      );
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

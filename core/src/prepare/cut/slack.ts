import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { fiberOf } from '../../line/fiberType';
import { tubeInTray, type PreparationLengths } from './lengths';
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
  redosWanted: number,
): PrepareFinding[] {
  const findings: PrepareFinding[] = [];
  const say = sayAt(findings, { kind: 'cable', key });

  const short = units.filter(({ slack }) => slack.spare < 0);
  if (short.length > 0) {
    const worst = short.reduce((a, b) =>
      a.slack.spare * openingPerStub(a.unit) <= b.slack.spare * openingPerStub(b.unit) ? a : b,
    );
    const { free, need, reach, coils } = worst.slack;
    const withRedo = need + 2 * lengths.redo;
    say('too-short', {
      holders: short.map(({ unit }) => unit.holder),
      opening,
      wanted: opening + (withRedo - free) * openingPerStub(worst.unit),
      free,
      need,
      because: reach >= coils ? 'machine' : 'coils',
      coils: lengths.coils,
      coilDiameter: lengths.coilDiameter,
    });
  } else {
    const few = units.filter(({ slack }) => slack.redos < redosWanted);
    if (few.length > 0) {
      const worst = few.reduce((a, b) => (a.slack.redos <= b.slack.redos ? a : b));
      const missing = worst.slack.need + (redosWanted + 1) * lengths.redo - worst.slack.free;
      say(
        'few-redos',
        {
          holders: few.map(({ unit }) => unit.holder),
          redos: worst.slack.redos,
          redo: lengths.redo,
          wanted: redosWanted,
          longer: missing * openingPerStub(worst.unit),
        },
        'warning',
      );
    }
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

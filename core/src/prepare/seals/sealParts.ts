import { sayAt } from '../../finding';
import { metalOf, type Cable } from '../../line/cable';
import type { Closure } from '../../plan/closure';
import type { Port } from '../../plan/models/closureModel';
import { nearestPort, seatCables, takesDiameter, type Seat } from '../../plan/models/ports';
import { mixedUnit } from '../../units/tapeLength';
import type { PrepareFinding } from '../words';

/** What seals one cable into a closure. */
export interface CableSeal extends Seat {
  readonly findings: readonly PrepareFinding[];
}

export interface SealPlan {
  readonly cables: readonly CableSeal[];
  /** Openings that stay unused, and get a plug each. */
  readonly plugs: readonly { readonly port: string; readonly count: number }[];
}

/** Diameter from a tape wrapped round: circumference / π. mm. */
export function diameterOfCircumference(circumference: number): number {
  return circumference / Math.PI;
}

/** Cables below this need a small-diameter bushing in some closures, mm (common practice: 1/2 in). */
const thin = 12.7;

/** How far a measured diameter may lie from the cable's nominal one before it is asked about. */
const likelyShare = 0.15;

/**
 * Port and parts for every cable of a closure, and the plugs for the rest.
 * @param measuredDiameters mm, by cable, where somebody measured
 */
export function sealPlan(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  measuredDiameters: ReadonlyMap<string, number>,
): SealPlan {
  const { seats, used } = seatCables(closure, cables, measuredDiameters);
  return {
    cables: seats.map((seat) => ({ ...seat, findings: findingsOf(seat, closure.ports ?? []) })),
    plugs: (used ?? []).flatMap(({ port, openings }) =>
      port.count > openings ? [{ port: port.name, count: port.count - openings }] : [],
    ),
  };
}

function findingsOf(seat: Seat, ports: readonly Port[]): PrepareFinding[] {
  const { entry, key, cable, diameter, measured, openings, port, parts } = seat;
  const { label } = cable;
  const findings: PrepareFinding[] = [];
  const say = sayAt(findings, { kind: 'cable', key });

  if (diameter === null) {
    say('no-diameter', { label }, 'warning');
    return findings;
  }
  if (!Number.isFinite(diameter) || diameter <= 0) {
    say('diameter', { label, diameter });
    return findings;
  }
  if (measured && cable.diameter !== undefined) {
    const nominal = cable.diameter;
    const likely = (value: number) => Math.abs(value - nominal) <= likelyShare * nominal;
    const mixed = mixedUnit(diameter, likely);
    if (mixed) say('diameter-unit', { label, diameter, nominal, mixed });
    else if (likely(diameter * Math.PI) || likely(diameter / Math.PI))
      say('circumference', { label, diameter, nominal }, 'warning');
    else if (!likely(diameter)) say('other-cable', { label, diameter, nominal }, 'warning');
  }
  if (ports.length === 0) {
    say('no-ports', {}, 'warning');
    return findings;
  }

  const through = openings === 2;
  if (!port) {
    const taken = ports.some(
      (one) =>
        takesDiameter(one, diameter) &&
        (one.express || !through) &&
        (entry.port === undefined || entry.port === one.name),
    );
    const nearest = taken ? null : nearestPort(diameter, ports, through);
    say('no-seal', { label, diameter, through, asked: entry.port ?? null, nearest });
    return findings;
  }
  const seal = parts.find(({ kind }) => kind === 'seal' || kind === 'grommet');
  if (port.parts && !seal) say('no-part', { port: port.name, diameter });
  if (through && seal && !seal.slit) say('not-slit', { label, part: seal.part });
  if (seal?.slit && (through || seal.kind === 'grommet')) say('slit', {}, 'warning');
  // Where the port's table is known, it says whether there is one.
  if (diameter < thin && !port.parts) say('bushing', { label, thin }, 'warning');
  if (seal?.kind === 'grommet' && (seal.holds ?? 1) > 1)
    say('shared', { part: seal.part, holds: seal.holds! }, 'warning');
  const { messenger, toningWire } = metalOf(cable.construction);
  if (messenger || toningWire)
    say('round-first', { off: messenger ? 'messenger' : 'toning wire' }, 'warning');
  return findings;
}

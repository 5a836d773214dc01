import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { entryKey, goesThrough, type Closure, type Entry } from '../../plan/closure';
import type { Port, SealPart } from '../../plan/models/closureModel';
import { mixedUnit } from '../../units/tapeLength';
import type { PrepareFinding } from '../words';

/** What seals one cable into a closure. */
export interface CableSeal {
  readonly entry: Entry;
  readonly key: string;
  readonly cable: Cable;
  /** Diameter that counted, mm; measured by hand, or the cable's nominal one, or null when neither is known. */
  readonly diameter: number | null;
  readonly measured: boolean;
  readonly port: Port | null;
  /** Parts of the port's table whose range holds the diameter. */
  readonly parts: readonly SealPart[];
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
 * Port and parts for every cable of a closure, and the plugs for the rest. Thick cables choose first and take the narrowest range that fits.
 * @param measuredDiameters mm, by cable, where somebody measured
 */
export function sealPlan(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  measuredDiameters: ReadonlyMap<string, number>,
): SealPlan {
  const ports = closure.ports ?? [];
  const left = ports.map((port) => port.count);
  const wanting = closure.entries
    .flatMap((entry, index) => {
      const cable = cables.get(entry.cableId);
      if (!cable) return [];
      const measured = measuredDiameters.get(cable.id);
      return [
        {
          entry,
          key: entryKey(entry, index),
          cable,
          diameter: measured ?? cable.diameter ?? null,
          measured: measured !== undefined,
        },
      ];
    })
    .sort(
      (a, b) =>
        Number(b.entry.port !== undefined) - Number(a.entry.port !== undefined) ||
        (b.diameter ?? 0) - (a.diameter ?? 0),
    );
  const shared: number[] = ports.map(() => 0);
  const sealed = wanting.map((one) => sealOf(one, ports, left, shared));
  return {
    cables: sealed.sort((a, b) => closure.entries.indexOf(a.entry) - closure.entries.indexOf(b.entry)),
    plugs: ports.flatMap((port, index) =>
      left[index]! > 0 ? [{ port: port.name, count: left[index]! }] : [],
    ),
  };
}

function sealOf(
  one: Pick<CableSeal, 'entry' | 'key' | 'cable' | 'diameter' | 'measured'>,
  ports: readonly Port[],
  left: number[],
  shared: number[],
): CableSeal {
  const { entry, key, cable, diameter } = one;
  const { label } = cable;
  const findings: PrepareFinding[] = [];
  const say = sayAt(findings, { kind: 'cable', key });
  const none = { ...one, port: null, parts: [], findings };

  if (diameter === null) {
    say('no-diameter', { label }, 'warning');
    return none;
  }
  if (!Number.isFinite(diameter) || diameter <= 0) {
    say('diameter', { label, diameter });
    return none;
  }
  if (one.measured && cable.diameter !== undefined) {
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
    return none;
  }

  const through = goesThrough(entry.manner);
  const takes = (port: Port) => port.from <= diameter && diameter <= port.to && (port.express || !through);
  const roomy = (index: number) => left[index]! > 0 || shared[index]! > 0;
  const [best] = ports
    .map((port, index) => ({ port, index }))
    .filter(
      ({ port, index }) =>
        takes(port) && roomy(index) && (entry.port === undefined || entry.port === port.name),
    )
    .sort(
      (a, b) =>
        Number(a.port.express) - Number(b.port.express) ||
        a.port.to - a.port.from - (b.port.to - b.port.from),
    );
  if (!best) {
    const taken = ports.some((port) => takes(port) && (entry.port === undefined || entry.port === port.name));
    say('no-seal', {
      label,
      diameter,
      through,
      asked: entry.port ?? null,
      nearest: taken ? null : nearestPort(diameter, ports, through),
    });
    return none;
  }
  const { port, index } = best;
  const parts = (port.parts ?? []).filter((part) => part.from <= diameter && diameter <= part.to);
  // On the border of two ranges the first of its kind is enough.
  const kinds = new Set<string>();
  const taken = parts.filter((part) => {
    const kind =
      part.kind === 'seal' || part.kind === 'grommet' ? 'seal' : `${part.kind} ${part.part.split(' ')[0]}`;
    return !kinds.has(kind) && kinds.add(kind);
  });
  const seal = taken.find((part) => part.kind === 'seal' || part.kind === 'grommet');
  if (shared[index]! > 0) shared[index]! -= 1;
  else {
    left[index]! -= 1;
    shared[index] = (seal?.holds ?? 1) - 1;
  }

  if (port.parts && !seal) say('no-part', { port: port.name, diameter });
  if (through && seal && !seal.slit) say('not-slit', { label, part: seal.part });
  if (seal?.slit && (through || seal.kind === 'grommet')) say('slit', {}, 'warning');
  const { construction } = cable;
  if (diameter < thin && !taken.some((part) => part.kind === 'bushing') && construction.kind !== 'pigtails')
    say('bushing', { label, thin }, 'warning');
  if (seal?.holds && seal.holds > 1) say('shared', { part: seal.part, holds: seal.holds }, 'warning');
  if (construction.kind === 'drop' && (construction.toningWire || construction.messenger))
    say('round-first', { off: construction.messenger ? 'messenger' : 'toning wire' }, 'warning');
  return { ...one, port, parts: taken, findings };
}

function nearestPort(diameter: number, ports: readonly Port[], through: boolean): Port {
  const away = (port: Port) => Math.max(port.from - diameter, diameter - port.to, 0);
  const usable = ports.filter((port) => port.express || !through);
  return (usable.length > 0 ? usable : ports).reduce((a, b) => (away(b) < away(a) ? b : a));
}

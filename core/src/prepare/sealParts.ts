import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import type { Units } from '../line/project';
import { entryKey, goesThrough, type Closure, type Entry } from '../plan/closure';
import type { Port, SealPart } from '../plan/closureModel';
import { formatMillimeters } from '../units/length';
import { mixedUnit } from '../units/tapeLength';

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
  readonly findings: readonly Finding[];
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
  units: Units,
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
  const sealed = wanting.map((one) => sealOf(one, ports, left, shared, units));
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
  units: Units,
): CableSeal {
  const { entry, key, cable, diameter } = one;
  const findings: Finding[] = [];
  const say = (code: string, severity: Finding['severity'], message: string) =>
    void findings.push({ code, severity, where: `cable ${key}`, message });
  const shown = (length: number) => formatMillimeters(length, units);
  const none = { ...one, port: null, parts: [], findings };

  if (diameter === null) {
    say(
      'no-diameter',
      'warning',
      `Nobody knows how thick ${cable.label} is. Measure it with a caliper, or wrap a tape round it.`,
    );
    return none;
  }
  if (!Number.isFinite(diameter) || diameter <= 0) {
    say(
      'diameter',
      'error',
      `${shown(diameter)} is not the diameter of a cable. Measure ${cable.label} again.`,
    );
    return none;
  }
  if (one.measured && cable.diameter !== undefined) {
    const likely = (value: number) => Math.abs(value - cable.diameter!) <= likelyShare * cable.diameter!;
    const mixed = mixedUnit(diameter, likely);
    if (mixed)
      say(
        'unit',
        'error',
        `${shown(diameter)} for ${cable.label} was probably ${mixed}: it should be about ${shown(cable.diameter)}. Enter it again.`,
      );
    else if (likely(diameter * Math.PI) || likely(diameter / Math.PI))
      say(
        'circumference',
        'warning',
        `${shown(diameter)} for ${cable.label} looks like the ${diameter > cable.diameter ? 'circumference' : 'diameter, divided by π once more'}: it should be about ${shown(cable.diameter)} across.`,
      );
    else if (!likely(diameter))
      say(
        'other-cable',
        'warning',
        `${cable.label} should be about ${shown(cable.diameter)} thick, and ${shown(diameter)} was measured. Make sure that it is this cable.`,
      );
  }
  if (ports.length === 0) {
    say(
      'no-ports',
      'warning',
      'The closure’s ports are not known. Enter them at the closure, from the maker’s table.',
    );
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
    say('no-seal', 'error', noSealWords(one, diameter, ports, through, takes, shown));
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

  if (port.parts && !seal)
    say(
      'no-part',
      'error',
      `Port ${port.name} takes ${shown(diameter)}, and its parts table has no seal for it. Use another seal kit; do not force it.`,
    );
  if (through && seal && !seal.slit)
    say(
      'not-slit',
      'error',
      `${cable.label} goes through and cannot be threaded: ${seal.part} has to be slit. Take one that is.`,
    );
  if (seal?.slit && (through || seal.kind === 'grommet'))
    say('slit', 'warning', 'Keep the slit of the grommet off every seam of the end plate.');
  if (
    diameter < thin &&
    !taken.some((part) => part.kind === 'bushing') &&
    cable.construction.kind !== 'pigtails'
  )
    say(
      'bushing',
      'warning',
      `${cable.label} is thinner than ${shown(thin)}: some closures need a small-diameter bushing. Look it up in the maker’s table.`,
    );
  if (seal?.holds && seal.holds > 1)
    say(
      'shared',
      'warning',
      `${seal.part} holds ${seal.holds} cables; put a pin into every hole that stays empty.`,
    );
  if (cable.construction.kind === 'drop' && (cable.construction.toningWire || cable.construction.messenger))
    say(
      'round-first',
      'warning',
      `${cable.construction.messenger ? 'Messenger' : 'Toning wire'} off before it goes through the seal.`,
    );
  return { ...one, port, parts: taken, findings };
}

function noSealWords(
  { cable, entry }: Pick<CableSeal, 'cable' | 'entry'>,
  diameter: number,
  ports: readonly Port[],
  through: boolean,
  takes: (port: Port) => boolean,
  shown: (length: number) => string,
): string {
  if (ports.some((port) => takes(port) && (entry.port === undefined || entry.port === port.name)))
    return `${cable.label} is ${shown(diameter)} thick, and every port that takes it is taken. Use a closure with more ports.`;
  const away = (port: Port) => Math.max(port.from - diameter, diameter - port.to, 0);
  const usable = ports.filter((port) => port.express || !through);
  const [nearest] = [...(usable.length > 0 ? usable : ports)].sort((a, b) => away(a) - away(b));
  return `${cable.label} is ${shown(diameter)} thick, and no port ${through ? 'for a cable that goes through ' : ''}takes that${entry.port ? ` (port ${entry.port} was asked for)` : ''}. The nearest is ${nearest!.name}, ${shown(nearest!.from)} to ${shown(nearest!.to)}. Do not force it: another seal kit, or another closure.`;
}

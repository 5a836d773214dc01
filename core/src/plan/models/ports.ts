import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { entryKey, goesThrough, type Closure, type Entry } from '../closure';
import type { Port, SealPart } from './closureModel';
import type { PlanFinding } from '../words';

/** A diameter is read to a tenth of a millimeter, across or around, so a range takes what lies this near to its ends. mm */
const diameterTolerance = 0.05;

/** Where one cable goes in. */
export interface Seat {
  readonly entry: Entry;
  readonly key: string;
  readonly cable: Cable;
  /** Diameter that counted, mm; measured by hand, or the cable's nominal one, or null when neither is known. */
  readonly diameter: number | null;
  readonly measured: boolean;
  /** Openings that it takes: a cable that goes through takes one in and one out. */
  readonly openings: 1 | 2;
  /** null where none is left, or the diameter is not known. */
  readonly port: Port | null;
  /** Parts of the port's table for this diameter. */
  readonly parts: readonly SealPart[];
}

export interface Seating {
  /** In the order in which the cables come in; pigtails have connectors outside no wall and are left out. */
  readonly seats: readonly Seat[];
  /** Openings of each port that are used; null when the closure's ports are not known. A cable that nobody measured takes one all the same. */
  readonly used: readonly { readonly port: Port; readonly openings: number }[] | null;
}

/** Whether a port takes a cable of this diameter, mm. */
export function takesDiameter(
  { from, to }: { readonly from: number; readonly to: number },
  diameter: number,
): boolean {
  return from - diameterTolerance <= diameter && diameter <= to + diameterTolerance;
}

/**
 * A port for every cable of a closure, if there is any way to give each one. Where there are several, narrow ranges and ports that take no express cable are
 * used first.
 * @param measuredDiameters mm, by cable, where somebody measured
 */
export function seatCables(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  measuredDiameters: ReadonlyMap<string, number> = new Map(),
): Seating {
  const ports = closure.ports ?? [];
  const guests = closure.entries.flatMap((entry, index) => {
    const cable = cables.get(entry.cableId);
    if (!cable || cable.construction.kind === 'pigtails') return [];
    const own = measuredDiameters.get(cable.id);
    return [
      {
        entry,
        key: entryKey(entry, index),
        cable,
        diameter: own ?? cable.diameter ?? null,
        measured: own !== undefined,
        openings: (goesThrough(entry.manner) ? 2 : 1) as 1 | 2,
      },
    ];
  });
  const found = assign(
    guests.map((guest) => wishOf(guest, ports)),
    ports.map(roomOf),
  );
  const taken = ports.map(() => 0);
  const seats = guests.map((guest, index): Seat => {
    const at = found[index];
    if (at === null || at === undefined) return { ...guest, port: null, parts: [] };
    taken[at]! += guest.openings;
    const port = ports[at]!;
    // Nobody knows which port takes it before it is measured.
    if (guest.diameter === null) return { ...guest, port: null, parts: [] };
    return { ...guest, port, parts: partsFor(port, guest.diameter) };
  });
  return {
    seats,
    used: closure.ports
      ? ports.map((port, index) => ({ port, openings: Math.ceil(taken[index]! / holdsOf(port)) }))
      : null,
  };
}

/** Cables that one seal of the port holds. */
function holdsOf(port: Port): number {
  const seals = (port.parts ?? []).filter(isSeal);
  return seals.length === 0 ? 1 : Math.min(...seals.map(({ holds }) => holds ?? 1));
}

const roomOf = (port: Port) => port.count * holdsOf(port);

interface Wish {
  /** Ports that would do, by their places in the list, the one to be used first in front. */
  readonly ports: readonly number[];
  readonly openings: 1 | 2;
  /** Who chooses first where not all find a place: chosen by hand, then the thick ones. */
  readonly rank: number;
}

function wishOf(
  { entry, diameter, openings }: Pick<Seat, 'entry' | 'diameter' | 'openings'>,
  ports: readonly Port[],
): Wish {
  const fits = ports
    .map((port, index) => ({ port, index }))
    .filter(
      ({ port }) =>
        (diameter === null || takesDiameter(port, diameter)) &&
        (port.express || openings === 1) &&
        (entry.port === undefined || entry.port === port.name),
    )
    .sort(
      (a, b) =>
        Number(a.port.express) - Number(b.port.express) ||
        a.port.to - a.port.from - (b.port.to - b.port.from),
    );
  const rank = (entry.port === undefined ? 0 : 1000) + (diameter ?? -1);
  return { ports: fits.map(({ index }) => index), openings, rank };
}

/** Ways to let express cables in that are looked through at most. A closure has one or two of them. */
const mostWays = 3000;

/** A port for as many cables as possible, by its place in the list; null for those that find none. */
function assign(wishes: readonly Wish[], room: readonly number[]): (number | null)[] {
  const order = wishes.map((_, index) => index).sort((a, b) => wishes[b]!.rank - wishes[a]!.rank);
  const double = order.filter((index) => wishes[index]!.openings === 2);
  const single = order.filter((index) => wishes[index]!.openings === 1);
  let best: (number | null)[] = wishes.map(() => null);
  let most = -1;
  let ways = 0;
  const chosen: (number | null)[] = wishes.map(() => null);
  const left = [...room];
  const tryFrom = (at: number): void => {
    if (most === wishes.length || ways > mostWays) return;
    if (at === double.length) {
      ways += 1;
      const all = matched(single, wishes, left, chosen);
      const count = all.filter((port) => port !== null).length;
      if (count > most) [most, best] = [count, all];
      return;
    }
    const index = double[at]!;
    for (const port of wishes[index]!.ports) {
      if (left[port]! < 2) continue;
      left[port]! -= 2;
      chosen[index] = port;
      tryFrom(at + 1);
      chosen[index] = null;
      left[port]! += 2;
    }
    tryFrom(at + 1);
  };
  tryFrom(0);
  return best;
}

/** Gives the cables that take one opening each as many ports as possible, moving those that have one where that makes room. */
function matched(
  single: readonly number[],
  wishes: readonly Wish[],
  room: readonly number[],
  chosen: readonly (number | null)[],
): (number | null)[] {
  const guests = room.map((): number[] => []);
  const seat = (index: number, seen: Set<number>): boolean => {
    for (const port of wishes[index]!.ports) {
      if (seen.has(port)) continue;
      if (guests[port]!.length < room[port]!) {
        guests[port]!.push(index);
        return true;
      }
      seen.add(port);
      const moved = guests[port]!.findIndex((other) => seat(other, seen));
      if (moved >= 0) {
        guests[port]![moved] = index;
        return true;
      }
    }
    return false;
  };
  for (const index of single) seat(index, new Set());
  const all = [...chosen];
  guests.forEach((list, port) => list.forEach((index) => (all[index] = port)));
  return all;
}

/**
 * The parts of a port's table for a diameter: all whose range holds it, ranges lying within ranges. Of two ranges that meet at this very diameter one is taken, and
 * of seals and grommets always one.
 */
export function partsFor(port: Port, diameter: number): SealPart[] {
  const within = ({ from, to }: SealPart) => from <= diameter && diameter <= to;
  const held = (port.parts ?? []).filter((part) => takesDiameter(part, diameter));
  const taken: SealPart[] = [];
  // What holds it without the tolerance comes first.
  for (const part of [...held.filter(within), ...held.filter((one) => !within(one))]) {
    const rivals = taken.filter((other) => (isSeal(part) ? isSeal(other) : other.kind === part.kind));
    if (rivals.some((other) => isSeal(part) || meet(other, part))) continue;
    taken.push(part);
  }
  return (port.parts ?? []).filter((part) => taken.includes(part));
}

const isSeal = ({ kind }: SealPart) => kind === 'seal' || kind === 'grommet';

/** Whether one range ends where the other begins. */
function meet(a: SealPart, b: SealPart): boolean {
  return Math.min(Math.abs(a.to - b.from), Math.abs(b.to - a.from)) <= 2 * diameterTolerance;
}

/** Cables for which the closure has no port left. A cable whose diameter or a closure whose ports are not known is not judged. */
export function portFindings(closure: Closure, cables: ReadonlyMap<string, Cable>): PlanFinding[] {
  const findings: PlanFinding[] = [];
  const { ports } = closure;
  if (!ports) return findings;
  for (const { entry, key, cable, diameter, openings, port } of seatCables(closure, cables).seats) {
    if (port || diameter === null) continue;
    const { label } = cable;
    const through = openings === 2;
    const say = sayAt(findings, { kind: 'cable', key });
    if (entry.port !== undefined) {
      const chosen = { name: entry.port, from: diameter, to: diameter };
      say('no-port', { label, diameter, because: 'chosen', port: chosen, through });
      continue;
    }
    const fits = ports.some((one) => takesDiameter(one, diameter) && (one.express || !through));
    const nearest = nearestPort(diameter, ports, through);
    say('no-port', { label, diameter, because: fits ? 'taken' : 'none-fits', port: nearest, through });
  }
  return findings;
}

/** The port whose range is nearest to a diameter, of those that a cable that goes through can use where it does; null without ports. */
export function nearestPort(diameter: number, ports: readonly Port[], through: boolean): Port | null {
  const away = (port: Port) => Math.max(port.from - diameter, diameter - port.to, 0);
  const usable = ports.filter((port) => port.express || !through);
  const [nearest] = [...(usable.length > 0 ? usable : ports)].sort((a, b) => away(a) - away(b));
  return nearest ?? null;
}

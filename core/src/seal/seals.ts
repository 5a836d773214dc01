import type { SealName } from '../facts';
import type { Cable } from '../line/cable';
import type { Closure } from '../plan/closure';
import type { Sealing } from '../plan/models/closureModel';
import { seatCables, type Seat } from '../plan/models/ports';

/** How a closure is closed, everything said. null in a rack, where nothing is sealed. */
export interface HowSealed {
  readonly opens: NonNullable<Sealing['opens']>;
  readonly tightening: NonNullable<Sealing['tightening']>;
  readonly order: readonly number[];
  /** null: the maker's instruction says. */
  readonly grease: boolean | null;
  readonly liters: number | null;
}

/** What is usual for a kind of closure. Common practice, no published source. */
const usual: Readonly<Record<Exclude<Closure['kind'], 'rack'>, Pick<HowSealed, 'opens' | 'tightening'>>> = {
  dome: { opens: 'caps', tightening: 'across' },
  inline: { opens: 'glands', tightening: 'across' },
  terminal: { opens: 'screws', tightening: 'across' },
  drop: { opens: 'gel', tightening: 'around' },
};

export function howSealed({ kind, sealing = {} }: Pick<Closure, 'kind' | 'sealing'>): HowSealed | null {
  if (kind === 'rack') return null;
  const { opens, tightening, order = [], grease = null, liters = null } = sealing;
  return {
    opens: opens ?? usual[kind].opens,
    tightening: tightening ?? usual[kind].tightening,
    order,
    grease,
    liters,
  };
}

/** A cable in an opening. */
export interface Guest {
  readonly seat: Seat;
  readonly face: 'only' | 'in' | 'out';
}

/** An opening in the closure's wall. */
export interface Opening {
  /** From 1, in the order of the table of ports; null for what has no port (yet). */
  readonly number: number | null;
  /** Name of its port; null where it has none. */
  readonly port: string | null;
  /** The name under which its seal is known: by the first cable in it, or as a plug. */
  readonly seal: SealName;
  /** None: it is plugged. */
  readonly guests: readonly Guest[];
  /** The widest cable that it takes, mm; for drawing it. 0 where that is not known. */
  readonly size: number;
}

/**
 * Every opening of a closure with what is in it, as the plan seats the cables: those of a port one after another, in the order in which the cables come in. Several drops share an opening where
 * its seal holds several. A cable that has no port comes last, with no number. Empty in a rack.
 * @param measuredDiameters mm, by cable, where somebody measured
 */
export function openingsOf(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  measuredDiameters: ReadonlyMap<string, number>,
): Opening[] {
  if (closure.kind === 'rack') return [];
  const { seats } = seatCables(closure, cables, measuredDiameters);
  const openings: Opening[] = [];
  // Two ports may have one name.
  const plugs = new Map<string, number>();
  let number = 0;
  for (const port of closure.ports ?? []) {
    const guests = seats.filter((seat) => seat.port === port).flatMap(guestsOf);
    for (let index = 0; index < port.count; index += 1) {
      number += 1;
      const own = takeShared(guests);
      if (own.length === 0) plugs.set(port.name, (plugs.get(port.name) ?? 0) + 1);
      openings.push({
        number,
        port: port.name,
        seal: sealNamed(own) ?? { of: 'plug', port: port.name, number: plugs.get(port.name)! },
        guests: own,
        size: port.to,
      });
    }
  }
  for (const seat of seats)
    if (seat.port === null)
      for (const guest of guestsOf(seat))
        openings.push({
          number: null,
          port: null,
          seal: sealNamed([guest])!,
          guests: [guest],
          size: seat.diameter ?? 0,
        });
  return openings;
}

function guestsOf(seat: Seat): Guest[] {
  return seat.openings === 2
    ? [
        { seat, face: 'in' },
        { seat, face: 'out' },
      ]
    : [{ seat, face: 'only' }];
}

/** Takes from the front of the list what goes into one opening. */
function takeShared(guests: Guest[]): Guest[] {
  const [first] = guests;
  if (!first) return [];
  const holds = holdsOf(first);
  let count = 1;
  while (count < holds && count < guests.length && holdsOf(guests[count]!) >= holds) count += 1;
  return guests.splice(0, count);
}

/** Cables that the seal of this one holds. */
function holdsOf({ seat }: Guest): number {
  const seal = seat.parts.find(({ kind }) => kind === 'seal' || kind === 'grommet');
  return seal?.holds ?? 1;
}

/** By the cable with the lowest id, so that another order of the entries does not rename it. */
function sealNamed(guests: readonly Guest[]): SealName | null {
  const [first] = [...guests].sort((a, b) => (a.seat.cable.id < b.seat.cable.id ? -1 : 1));
  return first ? { of: 'cable', cableId: first.seat.cable.id, face: first.face } : null;
}

/** A seal's name as one text, to look it up by. */
export function sealKey(seal: SealName): string {
  switch (seal.of) {
    case 'cable':
      return `cable ${seal.cableId} ${seal.face}`;
    case 'plug':
      return `plug ${seal.port} ${seal.number}`;
    default:
      return seal.of;
  }
}

/** All seals that a flash test looks at: every opening, the closure's own, and the valve. Empty in a rack. */
export function sealsToTest(openings: readonly Opening[], { kind }: Pick<Closure, 'kind'>): SealName[] {
  if (kind === 'rack') return [];
  return [...openings.map(({ seal }) => seal), { of: 'body' }, { of: 'valve' }];
}

/**
 * The openings that are tightened, in their order: the maker's, or opposite ones after each other, or one beside the other. Plugs are not among them: they are looked at by
 * port. Openings that the maker's order does not name come after it.
 */
export function tighteningOrder(openings: readonly Opening[], how: HowSealed): Opening[] {
  if (how.opens === 'gel') return [];
  const numbered = openings.filter((one) => one.number !== null);
  const ranks = new Map<number, number>();
  how.order.forEach((number, index) => {
    if (!ranks.has(number)) ranks.set(number, index);
  });
  const sequence =
    how.tightening === 'across' ? acrossOrder(numbered.length) : numbered.map((_, index) => index);
  sequence.forEach((at, index) => {
    const { number } = numbered[at]!;
    if (!ranks.has(number!)) ranks.set(number!, how.order.length + index);
  });
  const rank = ({ number }: Opening) => (number === null ? Infinity : ranks.get(number)!);
  // Those without a number stay in their order.
  return openings.filter(({ guests }) => guests.length > 0).sort((a, b) => rank(a) - rank(b) || 0);
}

/**
 * Places 0 … count − 1 of a ring so that each second one lies opposite the one before it, and the pairs are spread: 0, 4, 2, 6, 1, 5, 3, 7 of eight. Common practice, as wheel nuts are
 * tightened.
 */
export function acrossOrder(count: number): number[] {
  const half = Math.ceil(count / 2);
  // Halving the largest gap that is left: the numbers of a pair's place, their binary digits turned round.
  const bits = Math.ceil(Math.log2(Math.max(2, half)));
  const turned = Array.from({ length: 2 ** bits }, (_, value) => {
    let result = 0;
    for (let bit = 0; bit < bits; bit += 1) if (value & (1 << bit)) result |= 1 << (bits - 1 - bit);
    return result;
  });
  return turned
    .filter((pair) => pair < half)
    .flatMap((pair) => (pair + half < count ? [pair, pair + half] : [pair]));
}

/** Where an opening lies on a drawing of the end plate: center and radius as shares of its side. */
export interface PlateSpot {
  readonly opening: Opening;
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** Most openings on one ring; more stand in rows. */
const mostOnRing = 14;

/** A drawing of the end plate: the openings on a ring, number 1 at the top and on clockwise, or in rows where there are many. `height` as a share of its width. */
export function endPlate(openings: readonly Opening[]): {
  readonly spots: readonly PlateSpot[];
  readonly height: number;
  readonly ring: boolean;
} {
  const count = openings.length;
  const widest = Math.max(1, ...openings.map(({ size }) => size));
  // Its size tells a large port from a small one; all can be hit with a glove on.
  const scale = ({ size }: Opening) => 0.75 + 0.25 * (size / widest);
  if (count <= mostOnRing) {
    const distance = 0.345;
    const room = count < 3 ? 0.12 : Math.min(0.12, distance * Math.sin(Math.PI / count) * 0.92);
    return {
      ring: true,
      height: 1,
      spots: openings.map((opening, index) => {
        const angle = (2 * Math.PI * index) / count - Math.PI / 2;
        return {
          opening,
          x: 0.5 + (count === 1 ? 0 : distance * Math.cos(angle)),
          y: 0.5 + (count === 1 ? 0 : distance * Math.sin(angle)),
          r: room * scale(opening),
        };
      }),
    };
  }
  const inRow = 6;
  const rows = Math.ceil(count / inRow);
  const cell = 1 / inRow;
  return {
    ring: false,
    height: rows * cell,
    spots: openings.map((opening, index) => ({
      opening,
      x: ((index % inRow) + 0.5) * cell,
      y: (Math.floor(index / inRow) + 0.5) * cell,
      r: cell * 0.44 * scale(opening),
    })),
  };
}

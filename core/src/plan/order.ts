import type { Finding } from '../finding';
import type { Cable, Construction } from '../line/cable';
import { schemeOf } from '../line/colorCode';
import { fiberCount, fiberUnits, unitOf } from '../line/fiberNumber';
import { entryKey, goesThrough, type Closure, type OrderLine, type OrderRange } from './closure';
import { spliceId, type FiberEnd, type FiberSide } from './fiberEnd';
import { fiberMatchFindings } from './fiberMatch';

/** A splice as planned: ends left joined to ends right. A single splice has one end on each side, a ribbon as many as it has fibers. */
export interface PlannedSplice {
  readonly id: string;
  readonly kind: 'single' | 'ribbon';
  readonly left: readonly FiberEnd[];
  readonly right: readonly FiberEnd[];
  readonly circuit: string | null;
}

/** Fibers from–to that an order range means, or why it means none. */
export type ResolvedRange =
  | { readonly from: number; readonly to: number; readonly trouble: null }
  | { readonly trouble: { readonly code: string; readonly message: string } };

/** Ribbons that are made of loose fibers on both sides have this many, the last one what is left (common practice). */
const ribbonizedSize = 12;

/**
 * The splices that a closure's order asks for, in the order of its lines. What can't be done is left out and told:
 * an unknown cable, a fiber that does not exist, ranges of different length, an end used twice, a ribbon broken up, and so on.
 */
export function expandOrder(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  lineNumber: (index: number) => number = (index) => index + 1,
): { splices: PlannedSplice[]; findings: Finding[] } {
  const splices: PlannedSplice[] = [];
  const findings: Finding[] = [];
  const used = new UsedEnds(cables);
  const entries = new Map(
    closure.entries.map((entry, index) => [entry.cableId, { entry, key: entryKey(entry, index) }]),
  );
  const compared = new Set<string>();

  closure.order.forEach((line, index) => {
    const number = lineNumber(index);
    const where = `order line ${number}`;
    const say = (code: string, message: string, severity: Finding['severity'] = 'error') =>
      void findings.push({ code, severity, where, message });

    const sides = [line.left, line.right].map((range) => {
      const cable = cables.get(range.cableId);
      const resolved = resolveRange(range, cable);
      if (resolved.trouble) {
        say(resolved.trouble.code, resolved.trouble.message);
        return null;
      }
      const known = entries.get(range.cableId);
      if (!known) {
        say('no-entry', `${cable!.label} does not come into this closure. Let it enter, or name another.`);
        return null;
      }
      const { entry, key } = known;
      if (goesThrough(entry.manner) !== (range.side !== 'end')) {
        say(
          'side',
          range.side === 'end'
            ? `${key} goes through here, so a cut fiber has two ends: write ${key}- for the one toward the start of the route, ${key}+ for the other.`
            : `${key} ends here and has one end only: write ${key} without ${range.side === 'low' ? '-' : '+'}.`,
        );
        return null;
      }
      const through = (entry.through ?? []).find((unit) => {
        const { first, fibers } = fiberUnits(cable!.construction)[unit - 1] ?? { first: 0, fibers: 0 };
        return first <= resolved.to && first + fibers - 1 >= resolved.from;
      });
      if (through !== undefined)
        say(
          'express-and-cut',
          `${unitWord(cable!)} ${through} of ${key} is to go through whole, and order line ${number} cuts it. Take it out of the line, or let it be cut.`,
        );
      for (const live of cable!.live ?? [])
        if (live.from <= resolved.to && live.to >= resolved.from)
          say(
            'live-cut',
            `${key} ${Math.max(live.from, resolved.from)}–${Math.min(live.to, resolved.to)} carries ${live.circuit}, and order line ${number} cuts it. Take it out, or have the circuit taken down first.`,
          );
      return { cable: cable!, range, from: resolved.from, to: resolved.to };
    });
    const [left, right] = sides;
    if (!left || !right) return;

    const length = left.to - left.from + 1;
    const rightLength = right.to - right.from + 1;
    if (length !== rightLength) {
      say(
        'range-lengths-differ',
        `Order line ${number} joins ${length} fibers to ${rightLength}. Give both sides the same number.`,
      );
      return;
    }

    const pair = `${left.cable.id} ${right.cable.id}`;
    if (!compared.has(pair)) {
      compared.add(pair);
      for (const finding of fiberMatchFindings(left.cable, right.cable)) findings.push({ ...finding, where });
      if (schemeOf(left.cable).id !== schemeOf(right.cable).id)
        say(
          'schemes-differ',
          `${left.cable.label} follows ${schemeOf(left.cable).name} and ${right.cable.label} ${schemeOf(right.cable).name}: the same number has another color. Go by the numbers.`,
          'warning',
        );
    }

    const pieces = line.mode === 'single' ? null : ribbonPieces(line, left, right, number, say);
    if (line.mode !== 'single' && !pieces) return;
    const kind = pieces ? 'ribbon' : 'single';
    const overlaps: { cableId: string; line: number; from: number; to: number }[] = [];
    for (let at = 0, piece = 0; at < length; piece += 1) {
      const size = pieces ? pieces[piece]! : 1;
      const taken = used.take(left.range, left.from + at, right.range, right.from + at, size, number);
      if (taken) {
        const last = overlaps.at(-1);
        if (last && last.cableId === taken.cableId && last.line === taken.line && taken.fiber === last.to + 1)
          last.to = taken.fiber;
        else overlaps.push({ cableId: taken.cableId, line: taken.line, from: taken.fiber, to: taken.fiber });
      } else {
        const leftEnds = endsOf(left.range, left.from + at, size);
        const rightEnds = endsOf(right.range, right.from + at, size);
        if (line.polarity === 'reversed') rightEnds.reverse();
        splices.push({
          id: spliceId(leftEnds, rightEnds),
          kind,
          left: leftEnds,
          right: rightEnds,
          circuit: line.circuit,
        });
      }
      at += size;
    }
    for (const { cableId, line: other, from, to } of overlaps) {
      const { label } = cables.get(cableId)!;
      const lines = `in order lines ${other} and ${number}`;
      say(
        'end-used-twice',
        from === to
          ? `${label} fiber ${from} is used twice, ${lines}. Take it out of one.`
          : `${label} fibers ${from}–${to} are used twice, ${lines}. Take them out of one.`,
      );
    }
  });
  return { splices, findings };
}

interface ResolvedSide {
  readonly cable: Cable;
  readonly range: OrderRange;
  readonly from: number;
  readonly to: number;
}

/** How many fibers each ribbon of the line has; null, and told, when the sides cannot be joined ribbon by ribbon. */
function ribbonPieces(
  line: OrderLine,
  left: ResolvedSide,
  right: ResolvedSide,
  number: number,
  say: (code: string, message: string) => void,
): number[] | null {
  const sides = [left, right].map((side) => ribbonsIn(side));
  for (const [index, side] of [left, right].entries()) {
    const ribbons = sides[index]!;
    if (ribbons === null && line.mode === 'ribbon') {
      say(
        'no-ribbons',
        `${side.cable.label} has no ribbons. Write “ribbonized” if its loose fibers are to be made into ribbons first.`,
      );
      return null;
    }
    const broken = ribbons?.find((ribbon) => ribbon.inside < ribbon.fibers);
    if (broken) {
      say(
        'ribbon-split',
        `Order line ${number} takes only ${broken.inside} of the ${broken.fibers} fibers of ribbon ${broken.unit} of ${side.cable.label}. Take the whole ribbon, or splice it singly.`,
      );
      return null;
    }
  }
  const [a, b] = sides.map((ribbons) => ribbons?.map((ribbon) => ribbon.inside) ?? null);
  if (a && b) {
    const differs = a.findIndex((size, index) => size !== b[index]);
    if (differs < 0) return a;
    const [one, other] = [sides[0]![differs]!, sides[1]![differs]];
    say(
      'ribbon-sizes-differ',
      `Ribbon ${one.unit} of ${left.cable.label} has ${one.fibers} fibers and meets ${other ? `ribbon ${other.unit} of ${right.cable.label} with ${other.fibers}` : 'none'}. Splice them singly, or join ribbons of one size.`,
    );
    return null;
  }
  if (a ?? b) return (a ?? b)!;
  const length = left.to - left.from + 1;
  return Array.from({ length: Math.ceil(length / ribbonizedSize) }, (_, index) =>
    Math.min(ribbonizedSize, length - index * ribbonizedSize),
  );
}

/** The ribbons that a range touches, with how many of their fibers lie in it; null when the cable has loose fibers. */
function ribbonsIn({
  cable,
  from,
  to,
}: ResolvedSide): { unit: number; fibers: number; inside: number }[] | null {
  if (fiberUnits(cable.construction)[0]!.kind !== 'ribbon') return null;
  const found = [];
  for (let number = from; number <= to;) {
    const { unit, first, fibers } = unitOf(cable.construction, number);
    const last = first + fibers - 1;
    found.push({ unit, fibers, inside: Math.min(last, to) - number + 1 });
    number = last + 1;
  }
  return found;
}

/** Which order line took each end, by cable and side. */
class UsedEnds {
  private readonly lines = new Map<string, Partial<Record<FiberSide, Int32Array>>>();

  constructor(private readonly cables: ReadonlyMap<string, Cable>) {}

  private of({ cableId, side }: OrderRange): Int32Array {
    let sides = this.lines.get(cableId);
    if (!sides) this.lines.set(cableId, (sides = {}));
    return (sides[side] ??= new Int32Array(fiberCount(this.cables.get(cableId)!.construction) + 1));
  }

  /** Takes `size` ends on both sides for a line. When one of them is taken already, takes none and returns it. */
  take(
    left: OrderRange,
    leftFirst: number,
    right: OrderRange,
    rightFirst: number,
    size: number,
    line: number,
  ): { cableId: string; fiber: number; line: number } | null {
    const [a, b] = [this.of(left), this.of(right)];
    for (let step = 0; step < size; step += 1) {
      if (a[leftFirst + step])
        return { cableId: left.cableId, fiber: leftFirst + step, line: a[leftFirst + step]! };
      if (b[rightFirst + step])
        return { cableId: right.cableId, fiber: rightFirst + step, line: b[rightFirst + step]! };
      if (a === b && leftFirst < rightFirst + size && rightFirst < leftFirst + size)
        return { cableId: left.cableId, fiber: leftFirst, line };
    }
    a.fill(line, leftFirst, leftFirst + size);
    b.fill(line, rightFirst, rightFirst + size);
    return null;
  }
}

function endsOf({ cableId, side }: OrderRange, first: number, size: number): FiberEnd[] {
  const ends: FiberEnd[] = [];
  for (let step = 0; step < size; step += 1) ends.push({ cableId, fiber: first + step, side });
  return ends;
}

/** The fibers that a range of an order means. */
export function resolveRange(range: OrderRange, cable: Cable | undefined): ResolvedRange {
  const refuse = (message: string, code = 'range') => ({ trouble: { code, message } });
  if (!cable)
    return refuse('The order names a cable that the project does not have. Pick one of its cables.');
  const units = fiberUnits(cable.construction);
  const count = fiberCount(cable.construction);
  const of = range.of ?? 'fiber';
  const word = of === 'fiber' ? '' : `${of} `;
  if (range.to < range.from)
    return units[0]!.kind === 'ribbon'
      ? refuse(
          `${cable.label} ${word}${range.from}–${range.to} runs backwards. If the ribbons are to be flipped, as for a method B channel, write it upward with “reversed”.`,
          'reversed-unplanned',
        )
      : refuse(`${cable.label} ${word}${range.from}–${range.to} runs backwards. Put the lower number first.`);

  if (of === 'fiber') {
    if (range.to <= count) return { from: range.from, to: range.to, trouble: null };
    return refuse(
      `${cable.label} has ${count} fibers, so there is no fiber ${range.to}. End the range at ${count} or less.${fillerWords(cable)}`,
      fillerWords(cable) ? 'filler-counted' : 'range',
    );
  }

  const holds = unitsNumbered(cable.construction)[of];
  if (holds.length === 0)
    return refuse(
      `${cable.label} has no ${of}s. Give fiber numbers, or ${of === 'tube' ? 'ribbons' : 'tubes'}.`,
    );
  if (range.to > holds.length)
    return refuse(
      `${cable.label} has ${holds.length} ${of}s, so there is no ${of} ${range.to}. End the range at ${holds.length} or less.${fillerWords(cable)}`,
      fillerWords(cable) ? 'filler-counted' : 'range',
    );
  return { from: holds[range.from - 1]!.first, to: holds[range.to - 1]!.last, trouble: null };
}

interface NumberedUnits {
  readonly tube: readonly { readonly first: number; readonly last: number }[];
  readonly ribbon: readonly { readonly first: number; readonly last: number }[];
}

// Constructions are never changed in place, so what was listed once stays true.
const numbered = new WeakMap<Construction, NumberedUnits>();

/** First and last fiber of every tube, and of every ribbon, in numbering order; empty when the cable has none. */
export function unitsNumbered(construction: Construction): NumberedUnits {
  const known = numbered.get(construction);
  if (known) return known;
  const units = fiberUnits(construction);
  const listed = units.map(({ first, fibers }) => ({ first, last: first + fibers - 1 }));
  const tubes: { first: number; last: number }[] = [];
  for (const [index, { tube }] of units.entries()) {
    if (tube === null) continue;
    const before = tubes[tube - 1];
    if (before) before.last = listed[index]!.last;
    else tubes.push({ ...listed[index]! });
  }
  const { kind } = units[0]!;
  const made: NumberedUnits = {
    tube: kind === 'tube' ? listed : tubes,
    ribbon: kind === 'ribbon' ? listed : [],
  };
  numbered.set(construction, made);
  return made;
}

/** Said where somebody counted too far: a filler is easily taken for a tube. */
function fillerWords({ construction }: Cable): string {
  if (!('strands' in construction)) return '';
  const places = construction.strands.flatMap((strand, index) =>
    strand.kind === 'filler' ? [index + 1] : [],
  );
  if (places.length === 0) return '';
  return ` ${places.length === 1 ? 'The filler at place' : 'The fillers at places'} ${places.join(' and ')} carry no fiber and have no number.`;
}

function unitWord({ construction }: Cable): string {
  return fiberUnits(construction)[0]!.kind === 'ribbon' ? 'Ribbon' : 'Tube';
}

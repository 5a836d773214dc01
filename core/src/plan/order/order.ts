import { sayAt, type Place, type Say, type Told } from '../../finding';
import { isSmall, type Cable, type Construction } from '../../line/cable';
import { schemeOf } from '../../line/colorCode';
import { fiberCount, fiberUnits, unitOf } from '../../line/fiberNumber';
import {
  entryKey,
  goesThrough,
  rangesOf,
  type Closure,
  type Connector,
  type OrderLine,
  type OrderRange,
} from '../closure';
import { spliceId, type FiberEnd } from '../fiberEnd';
import { nameOf } from '../opened/openedFindings';
import { holdersOf } from '../opened/openedUnits';
import { compareFibers } from './fiberMatch';
import { Overlaps, UsedEnds } from './usedEnds';
import type { PlanFinding } from '../words';

/** A splice as planned: ends left joined to ends right. A single splice has one end on each side, a ribbon as many as it has fibers. */
export interface PlannedSplice {
  readonly id: string;
  readonly kind: 'single' | 'ribbon';
  readonly left: readonly FiberEnd[];
  readonly right: readonly FiberEnd[];
  readonly circuit: string | null;
  /** A mechanical connector: no loss is read of it. */
  readonly unread?: true;
}

/** A fiber end as planned that no other fiber is joined to: it wears a connector. */
export interface PlannedEnd extends FiberEnd {
  readonly connector: Connector;
  readonly circuit: string | null;
}

/** Fibers from–to that an order range means, or why it means none. */
export type ResolvedRange =
  { readonly from: number; readonly to: number; readonly trouble: null } | { readonly trouble: RangeTrouble };

type RangeTrouble = Told<
  Extract<
    PlanFinding,
    {
      code:
        'no-such-cable' | 'runs-backwards' | 'reversed-unplanned' | 'range' | 'filler-counted' | 'no-units';
    }
  >
>;

/** Ribbons that are made of loose fibers on both sides have this many, the last one what is left (common practice). */
const ribbonizedSize = 12;

/**
 * The splices that a closure's order asks for, and the ends that wear a connector, in the order of its lines. What can't be done is left out and told:
 * an unknown cable, a fiber that does not exist, ranges of different length, an end used twice, a ribbon broken up, and so on.
 */
export function expandOrder(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  lineNumber: (index: number) => number = (index) => index + 1,
): { splices: PlannedSplice[]; ends: PlannedEnd[]; findings: PlanFinding[] } {
  const splices: PlannedSplice[] = [];
  const ends: PlannedEnd[] = [];
  const findings: PlanFinding[] = [];
  const used = new UsedEnds(cables);
  const entries = new Map(
    closure.entries.map((entry, index) => [entry.cableId, { entry, key: entryKey(entry, index) }]),
  );
  const compared = new Set<string>();

  closure.order.forEach((line, index) => {
    const number = lineNumber(index);
    const where: Place = { kind: 'order-line', line: number };
    const say = sayAt(findings, where);

    const sides = rangesOf(line).map((range) => {
      const cable = cables.get(range.cableId);
      const resolved = resolveRange(range, cable);
      if (resolved.trouble) {
        findings.push({ ...resolved.trouble, severity: 'error', where });
        return null;
      }
      const known = entries.get(range.cableId);
      if (!known) {
        say('no-entry', { label: cable!.label });
        return null;
      }
      const { entry, key } = known;
      if (goesThrough(entry.manner) !== (range.side !== 'end')) {
        say('side', { key, side: range.side });
        return null;
      }
      // What stays whole is what would be cut whole: a tube, also one with ribbons in it, or a ribbon of a central tube.
      const whole = holdersOf(cable!).find(
        ({ number, first, fibers }) =>
          entry.through?.includes(number) && first <= resolved.to && first + fibers - 1 >= resolved.from,
      );
      if (whole) say('express-and-cut', { holder: nameOf(whole, key), line: number });
      for (const live of cable!.live ?? [])
        if (live.from <= resolved.to && live.to >= resolved.from)
          say('live-cut', {
            key,
            from: Math.max(live.from, resolved.from),
            to: Math.min(live.to, resolved.to),
            circuit: live.circuit,
            line: number,
          });
      return { cable: cable!, range, from: resolved.from, to: resolved.to };
    });
    const [left, right] = sides;
    const overlaps = new Overlaps(cables);
    if (!left) return;
    if (line.connector) {
      const { connector, circuit } = line;
      if (!mayWear(connector, left, number, say)) return;
      for (const end of endsOf(left.range, left.from, left.to - left.from + 1)) {
        const taken = used.takeOne(left.range, end.fiber, number);
        if (taken) overlaps.add(taken);
        else ends.push({ ...end, connector, circuit });
      }
      overlaps.tell(say, number);
      return;
    }
    if (!right) return;

    const length = left.to - left.from + 1;
    const rightLength = right.to - right.from + 1;
    if (length !== rightLength) {
      say('range-lengths-differ', { line: number, left: length, right: rightLength });
      return;
    }

    const pair = `${left.cable.id} ${right.cable.id}`;
    if (!compared.has(pair)) {
      compared.add(pair);
      compareFibers(left.cable, right.cable, say);
      const [one, other] = [schemeOf(left.cable), schemeOf(right.cable)];
      if (one.id !== other.id)
        say(
          'schemes-differ',
          {
            left: { label: left.cable.label, scheme: one.name },
            right: { label: right.cable.label, scheme: other.name },
          },
          'warning',
        );
    }

    if (line.mode === 'single' && [left, right].every(isWholeRibbons)) {
      const ribbons = (side: ResolvedSide) => ribbonsIn(side)!.map(({ unit }) => unit);
      const [ours, theirs] = [ribbons(left), ribbons(right)];
      say(
        'ribbons-as-singles',
        { line: number, left: [ours[0]!, ours.at(-1)!], right: [theirs[0]!, theirs.at(-1)!] },
        'warning',
      );
    }
    const pieces = line.mode === 'single' ? null : ribbonPieces(line, left, right, number, say);
    if (line.mode !== 'single' && !pieces) return;
    const kind = pieces ? 'ribbon' : 'single';
    const ended =
      kind === 'single' &&
      [right, left].find(({ cable }) => isSmall(cable) && entries.get(cable.id)!.entry.ending)?.cable;
    const unread = ended && entries.get(ended.id)!.entry.ending === 'mechanical';
    for (let at = 0, piece = 0; at < length; piece += 1) {
      const size = pieces ? pieces[piece]! : 1;
      // Ribbons are turned over each in its place; single fibers are joined from the other end of the range.
      const rightFirst = !pieces && line.polarity === 'reversed' ? right.to - at : right.from + at;
      const taken = used.take(left.range, left.from + at, right.range, rightFirst, size, number);
      if (taken) overlaps.add(taken);
      else {
        const leftEnds = endsOf(left.range, left.from + at, size);
        const rightEnds = endsOf(right.range, rightFirst, size);
        if (line.polarity === 'reversed') rightEnds.reverse();
        splices.push({
          id: spliceId(leftEnds, rightEnds),
          kind,
          left: leftEnds,
          right: rightEnds,
          circuit: line.circuit,
          ...(unread ? { unread: true as const } : {}),
        });
      }
      at += size;
    }
    overlaps.tell(say, number);
  });
  return { splices, ends, findings };
}

/** Whether fibers can end in such a connector; what speaks against it, or has to be done before, is told. */
function mayWear(connector: Connector, side: ResolvedSide, line: number, say: Say<PlanFinding>): boolean {
  const { cable } = side;
  const { label } = cable;
  if (connector === 'own') {
    if (cable.construction.kind === 'pigtails') return true;
    say('no-own-connector', { label, line });
    return false;
  }
  if (cable.construction.kind === 'pigtails') say('second-connector', { label, line }, 'warning');
  else if (isRibboned(cable)) say('ribbon-in-connectors', { label, line }, 'warning');
  else if (!isSmall(cable)) say('bare-in-connectors', { label, line }, 'warning');
  return true;
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
  say: Say<PlanFinding>,
): number[] | null {
  const sides = [left, right].map((side) => ribbonsIn(side));
  for (const [index, side] of [left, right].entries()) {
    const ribbons = sides[index]!;
    if (ribbons === null && line.mode === 'ribbon') {
      say('no-ribbons', { label: side.cable.label });
      return null;
    }
    const broken = ribbons?.find((ribbon) => ribbon.inside < ribbon.fibers);
    if (broken) {
      say('ribbon-split', { line: number, label: side.cable.label, ...broken });
      return null;
    }
  }
  const [a, b] = sides.map((ribbons) => ribbons?.map((ribbon) => ribbon.inside) ?? null);
  if (a && b) {
    const differs = a.findIndex((size, index) => size !== b[index]);
    if (differs < 0) return a;
    const [one, other] = [sides[0]![differs]!, sides[1]![differs]];
    say('ribbon-sizes-differ', {
      left: { label: left.cable.label, unit: one.unit, fibers: one.fibers },
      right: other ? { label: right.cable.label, unit: other.unit, fibers: other.fibers } : null,
    });
    return null;
  }
  if (a ?? b) return (a ?? b)!;
  const length = left.to - left.from + 1;
  if (length % ribbonizedSize === 1) {
    say('ribbon-of-one', { line: number, fibers: length });
    return null;
  }
  return Array.from({ length: Math.ceil(length / ribbonizedSize) }, (_, index) =>
    Math.min(ribbonizedSize, length - index * ribbonizedSize),
  );
}

/** Whether a range is nothing but whole ribbons. */
function isWholeRibbons(side: ResolvedSide): boolean {
  const ribbons = ribbonsIn(side);
  return ribbons !== null && ribbons.every(({ inside, fibers }) => inside === fibers);
}

/** The ribbons that a range touches, with how many of their fibers lie in it; null when the cable has loose fibers. */
function ribbonsIn({
  cable,
  from,
  to,
}: ResolvedSide): { unit: number; fibers: number; inside: number }[] | null {
  if (!isRibboned(cable)) return null;
  const found = [];
  for (let number = from; number <= to;) {
    const { unit, first, fibers } = unitOf(cable.construction, number);
    const last = first + fibers - 1;
    found.push({ unit, fibers, inside: Math.min(last, to) - number + 1 });
    number = last + 1;
  }
  return found;
}

function endsOf({ cableId, side }: OrderRange, first: number, size: number): FiberEnd[] {
  const ends: FiberEnd[] = [];
  for (let step = 0; step < size; step += 1) ends.push({ cableId, fiber: first + step, side });
  return ends;
}

/** The fibers that a range of an order means. */
export function resolveRange(range: OrderRange, cable: Cable | undefined): ResolvedRange {
  const refuse = (trouble: RangeTrouble) => ({ trouble });
  if (!cable) return refuse({ code: 'no-such-cable', params: {} });
  const { label } = cable;
  const of = range.of ?? 'fiber';
  if (range.to < range.from)
    return refuse({
      code: isRibboned(cable) ? 'reversed-unplanned' : 'runs-backwards',
      params: { label, of, from: range.from, to: range.to },
    });

  const count =
    of === 'fiber' ? fiberCount(cable.construction) : unitsNumbered(cable.construction)[of].length;
  if (of !== 'fiber' && count === 0) return refuse({ code: 'no-units', params: { label, of } });
  if (range.to > count) {
    const beyond = { label, of, count, asked: range.to };
    const places = fillersIn(cable);
    return refuse(
      places.length > 0
        ? { code: 'filler-counted', params: { ...beyond, places } }
        : { code: 'range', params: beyond },
    );
  }
  if (of === 'fiber') return { from: range.from, to: range.to, trouble: null };
  const holds = unitsNumbered(cable.construction)[of];
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

/** Places of the fillers among the strands, 1 …: where somebody counted too far, one was easily taken for a tube. */
function fillersIn({ construction }: Cable): number[] {
  if (!('strands' in construction)) return [];
  return construction.strands.flatMap((strand, index) => (strand.kind === 'filler' ? [index + 1] : []));
}

function isRibboned({ construction }: Cable): boolean {
  return fiberUnits(construction)[0]!.kind === 'ribbon';
}

import fc from 'fast-check';
import { cableA, cables, closure, id } from '../../../test/example';
import { equalTubes, type Cable } from '../../line/cable';
import type { Tray } from '../closure';
import { planClosure, unitsOnTray } from './closurePlan';
import { spliceId, type FiberEnd } from '../fiberEnd';
import type { PlannedSplice } from '../order/order';
import { layOutTrays } from './trayLayout';
import { planFindingWords, trayReasonWords } from '../words';

/** A cable of tubes with these many fibers, and single splices of all of them to fibers that nothing holds together. */
function job(sizes: readonly number[]) {
  const left: Cable = {
    ...cableA,
    construction: {
      kind: 'stranded-tubes',
      strands: sizes.map((fibers) => ({ kind: 'tube' as const, fibers })),
    },
  };
  const count = sizes.reduce((sum, size) => sum + size, 0);
  const right: Cable = {
    ...cableA,
    id: id(2),
    construction: { kind: 'pigtails', fibers: count, bufferMicrometers: 900 },
  };
  const end = (cable: Cable, fiber: number): FiberEnd => ({ cableId: cable.id, fiber, side: 'end' });
  const splices: PlannedSplice[] = Array.from({ length: count }, (_, index) => {
    const [a, b] = [end(left, index + 1), end(right, index + 1)];
    return { id: spliceId([a], [b]), kind: 'single', left: [a], right: [b], circuit: null };
  });
  const tubeOf = splices.map((_, index) => {
    let at = index;
    return sizes.findIndex((size) => (at -= size) < 0);
  });
  return { splices, cables: new Map([left, right].map((cable) => [cable.id, cable])), tubeOf };
}

const traysOf = (...slots: number[]): Tray[] => slots.map((singleSlots) => ({ singleSlots }));

test('two tubes of twelve to a tray of 24', () => {
  const { splices, cables: own } = job(Array<number>(8).fill(12));
  const { placed } = layOutTrays(splices, traysOf(24, 24, 24, 24), own);
  expect(placed.map((splice) => splice.tray)).toEqual([1, 2, 3, 4].flatMap((tray) => Array(24).fill(tray)));
  expect(placed[24]).toMatchObject({ tray: 2, slot: 1 });
});

test('a tube that does not fit into the rest of a tray goes whole to the next', () => {
  const { splices, cables: own } = job([8, 8]);
  const { placed, placements } = layOutTrays(splices, traysOf(12, 12), own);
  expect(placed.map((splice) => splice.tray)).toEqual([...Array(8).fill(1), ...Array(8).fill(2)]);
  expect(placements[1]).toMatchObject({ because: 'next-tray', passedOver: { tray: 1, free: 4 } });
});

test('spare slots stay free on every tray', () => {
  const { splices, cables: own } = job([8, 8]);
  const { placed, unplaced } = layOutTrays(splices, traysOf(12, 12), own, { spareSlots: 5 });
  expect(placed).toHaveLength(14);
  expect(unplaced).toHaveLength(2);
});

test('what a person keeps on a tray stays there, and the others go around it', () => {
  const { splices, cables: own, tubeOf } = job([6, 6, 6]);
  const pin = { cableId: cableA.id, unit: 3, tray: 1 };
  const { placed } = layOutTrays(splices, traysOf(12, 12), own, { pins: [pin] });
  const trayOfTube = (tube: number) =>
    new Set(placed.filter((splice) => tubeOf[splice.left[0]!.fiber - 1] === tube).map((one) => one.tray));
  expect([0, 1, 2].map((tube) => [...trayOfTube(tube)])).toEqual([[1], [2], [1]]);
  expect(layOutTrays(splices, traysOf(12, 12), own, { pins: [{ ...pin, tray: 9 }] }).brokenPins).toEqual([
    { pin: { ...pin, tray: 9 }, because: 'no-tray' },
  ]);
});

test('a tube of 24 on the other side keeps two tubes of 12 together', () => {
  const left: Cable = { ...cableA, construction: equalTubes(4, 6) };
  const right: Cable = { ...cableA, id: id(2), construction: equalTubes(2, 12) };
  const { trays } = planClosure(
    { ...closure, trays: traysOf(18, 18) },
    new Map([left, right].map((cable) => [cable.id, cable])),
  );
  expect(trays.map((tray) => tray.splices.length)).toEqual([12, 12]);
});

test('a tray takes sleeves of one kind', () => {
  const ribbons: Cable = {
    ...cableA,
    construction: { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 6 },
  };
  const other: Cable = { ...ribbons, id: id(2) };
  const line = closure.order[0]!;
  const mixed = planClosure(
    {
      ...closure,
      trays: Array.from({ length: 2 }, () => ({ singleSlots: 12, ribbonSlots: 6 })),
      order: [
        {
          ...line,
          mode: 'ribbon',
          left: { ...line.left, from: 1, to: 12 },
          right: { ...line.right!, from: 1, to: 12 },
        },
        { ...line, left: { ...line.left, from: 13, to: 24 }, right: { ...line.right!, from: 13, to: 24 } },
      ],
    },
    new Map([ribbons, other].map((cable) => [cable.id, cable])),
  );
  // Ribbons taken apart are asked about, and that is all.
  expect(mixed.findings.map(({ code }) => code)).toEqual(['ribbons-as-singles']);
  expect(mixed.trays.map((tray) => [tray.splices[0]!.kind, tray.splices.length, tray.fibers])).toEqual([
    ['ribbon', 2, 12],
    ['single', 12, 12],
  ]);
});

const sizes = fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 30 });
const trays = fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 1, maxLength: 12 });

test('never puts two in a slot, never exceeds a tray, keeps the order on a tray, and loses nothing', () => {
  fc.assert(
    fc.property(sizes, trays, fc.integer({ min: 0, max: 3 }), (units, slots, spareSlots) => {
      const { splices, cables: own } = job(units);
      const { placed, unplaced } = layOutTrays(splices, traysOf(...slots), own, { spareSlots });
      const all = [...placed, ...unplaced].map((one) => one.id);
      expect(all.sort()).toEqual(splices.map((one) => one.id).sort());
      expect(new Set(placed.map((one) => `${one.tray}.${one.slot}`)).size).toBe(placed.length);
      for (const one of placed)
        expect(one.slot).toBeLessThanOrEqual(Math.max(0, slots[one.tray - 1]! - spareSlots));
      for (let index = 1; index < placed.length; index += 1)
        if (placed[index]!.tray === placed[index - 1]!.tray)
          expect(placed[index]!.left[0]!.fiber).toBeGreaterThan(placed[index - 1]!.left[0]!.fiber);
    }),
  );
});

test('never splits a tube that some tray could take whole when its turn came, and leaves out only what has no slot', () => {
  fc.assert(
    fc.property(sizes, trays, (units, slots) => {
      const { splices, cables: own, tubeOf } = job(units);
      const { placed, unplaced, placements } = layOutTrays(splices, traysOf(...slots), own);
      const capacity = slots.reduce((sum, one) => sum + one, 0);
      expect(unplaced).toHaveLength(Math.max(0, splices.length - capacity));
      const traysOfTube = new Map<number, Set<number>>();
      for (const one of placed) {
        const tube = tubeOf[one.left[0]!.fiber - 1]!;
        traysOfTube.set(tube, (traysOfTube.get(tube) ?? new Set()).add(one.tray));
      }
      const largest = Math.max(...slots);
      if (placements.every((placement) => placement.because !== 'split') && unplaced.length === 0)
        for (const [tube, on] of traysOfTube) if (units[tube]! <= largest) expect(on.size).toBe(1);
    }),
  );
});

/** Fewest trays by trying every way to cut the order between tubes; Infinity when none fits. */
function fewest(units: readonly number[], slots: readonly number[]): number {
  if (units.length === 0) return 0;
  let best = Infinity;
  const visit = (unit: number, tray: number, free: number) => {
    if (unit === units.length) {
      best = Math.min(best, tray + 1);
      return;
    }
    if (units[unit]! <= free) visit(unit + 1, tray, free - units[unit]!);
    if (tray + 1 < slots.length) visit(unit, tray + 1, slots[tray + 1]!);
  };
  visit(0, 0, slots[0]!);
  return best;
}

test('uses as few trays as any way that keeps order and tubes whole (brute force)', () => {
  const few = fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 7 });
  const small = fc.array(fc.integer({ min: 6, max: 12 }), { minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(few, small, (units, slots) => {
      const best = fewest(units, slots);
      fc.pre(Number.isFinite(best));
      const { splices, cables: own } = job(units);
      const { placed } = layOutTrays(splices, traysOf(...slots), own);
      expect(Math.max(...placed.map((one) => one.tray))).toBe(best);
    }),
  );
});

test('says how many trays are missing, and that less spare would do', () => {
  const short = planClosure({ ...closure, trays: traysOf(10) }, cables);
  expect(short.unplaced).toHaveLength(14);
  const said = ({ findings }: typeof short) =>
    planFindingWords(
      findings.find((one) => one.code === 'over-capacity')!,
      'mm',
    );
  expect(said(short)).toBe(
    '14 of 24 splices have no slot. 3 more trays of 10 would hold them, or trays with more slots.',
  );
  const spare = planClosure({ ...closure, trays: traysOf(12, 12), spareSlots: 1 }, cables);
  expect(said(spare)).toContain('They fit when no spare slots are left free.');
});

test('lists the tubes of a tray once each, and why they are there', () => {
  const plan = planClosure(closure, cables);
  expect(unitsOnTray(plan.trays[1]!, cables)).toEqual([
    { cableId: cableA.id, unit: 3 },
    { cableId: cableA.id, unit: 4 },
  ]);
  expect(plan.reasons.map(trayReasonWords)).toEqual([
    'Tube 1 of A (6 splices) goes on tray 1: next in order, and there is room for all of it.',
    'Tube 2 of A (6 splices) goes on tray 1: next in order, and there is room for all of it.',
    'Tube 3 of A (6 splices) goes on tray 2: tray 1 is full.',
    'Tube 4 of A (6 splices) goes on tray 2: next in order, and there is room for all of it.',
  ]);
});

// Ribbons and fibers lie in their holders in color order, blue first (common practice).
test('lines written out of order are laid out by number', () => {
  const line = closure.order[0]!;
  const range = (from: number, to: number) => ({
    ...line,
    left: { ...line.left, from, to },
    right: { ...line.right!, from, to },
  });
  const plan = planClosure({ ...closure, order: [range(13, 24), range(1, 12)] }, cables);
  expect(plan.splices.map((splice) => splice.left[0]!.fiber)).toEqual(
    Array.from({ length: 24 }, (_, index) => index + 1),
  );
});

test('tubes that no tray holds whole go on where the one before ended: five trays for four of twelve, with one slot spare', () => {
  const { splices, cables: own } = job([12, 12, 12, 12]);
  const { placed, unplaced } = layOutTrays(splices, traysOf(...Array<number>(8).fill(12)), own, {
    spareSlots: 1,
  });
  expect(unplaced).toEqual([]);
  expect(new Set(placed.map(({ tray }) => tray)).size).toBe(5);
});

test('the order is given up before a tube is split', () => {
  const { splices, cables: own, tubeOf } = job([8, 9]);
  const { placed, placements } = layOutTrays(splices, traysOf(9, 8, 7), own);
  const on = (tube: number) =>
    new Set(placed.filter(({ left }) => tubeOf[left[0]!.fiber - 1] === tube).map(({ tray }) => tray));
  expect([[...on(0)], [...on(1)]]).toEqual([[2], [1]]);
  expect(placements.map(({ because }) => because)).toEqual(['kept-whole', 'kept-whole']);
});

test('a tray that takes either kind is kept for ribbons that fit nowhere else', () => {
  const ribbons: Cable = {
    ...cableA,
    construction: { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 6 },
  };
  const other: Cable = { ...ribbons, id: id(2) };
  const line = closure.order[0]!;
  const part = (mode: 'single' | 'ribbon', from: number, to: number) => ({
    ...line,
    mode,
    left: { ...line.left, from, to },
    right: { ...line.right!, from, to },
  });
  const { unplaced, trays } = planClosure(
    {
      ...closure,
      trays: [{ singleSlots: 12, ribbonSlots: 6 }, { singleSlots: 12 }],
      order: [part('single', 1, 12), part('ribbon', 13, 24)],
    },
    new Map([ribbons, other].map((cable) => [cable.id, cable])),
  );
  expect(unplaced).toEqual([]);
  expect(trays.map((tray) => tray.splices[0]!.kind)).toEqual(['ribbon', 'single']);
});

test('a ribbon that is made of two tubes keeps both together, and is seen where they are apart', () => {
  const two: Cable = { ...cableA, construction: equalTubes(2, 12) };
  const other: Cable = { ...two, id: id(2) };
  const line = closure.order[0]!;
  const job = (from: number, to: number, mode: 'single' | 'ribbonized') => ({
    ...line,
    mode,
    left: { ...line.left, from, to },
    right: { ...line.right!, from, to },
  });
  const { findings } = planClosure(
    {
      ...closure,
      trays: [{ singleSlots: 12 }, { singleSlots: 0, ribbonSlots: 6 }],
      order: [job(1, 6, 'single'), job(7, 18, 'ribbonized')],
    },
    new Map([two, other].map((cable) => [cable.id, cable])),
  );
  expect(
    findings.flatMap((finding) =>
      finding.code === 'unit-split' ? [`${finding.params.holder.key}${finding.params.holder.number}`] : [],
    ),
  ).toEqual(['A1', 'B1']);
});

/** Proved against all ways there are, both sides bound. */
test('as many tubes lie whole as can, on no more trays than the order asks for', () => {
  const some = (most: number, max: number) =>
    fc.array(fc.integer({ min: 1, max }), { minLength: 1, maxLength: most });
  fc.assert(
    fc.property(some(5, 6), some(6, 8), some(4, 9), (lefts, rights, slots) => {
      const count = lefts.reduce((sum, size) => sum + size, 0);
      // The other side's tubes, of other sizes, as far as they go.
      const others: number[] = [];
      for (let left = count, at = 0; left > 0; at += 1) {
        const size = Math.min(left, rights[at % rights.length]!);
        others.push(size);
        left -= size;
      }
      const cable = (number: number, sizes: readonly number[]): Cable => ({
        ...cableA,
        id: id(number),
        construction: {
          kind: 'stranded-tubes',
          strands: sizes.map((fibers) => ({ kind: 'tube' as const, fibers })),
        },
      });
      const [a, b] = [cable(1, lefts), cable(2, others)];
      const splices: PlannedSplice[] = Array.from({ length: count }, (_, index) => {
        const [one, other] = [a, b].map((own): FiberEnd => ({
          cableId: own.id,
          fiber: index + 1,
          side: 'end',
        }));
        return {
          id: spliceId([one!], [other!]),
          kind: 'single',
          left: [one!],
          right: [other!],
          circuit: null,
        };
      });
      // Bound together: where no tube of either side begins, the group goes on.
      const ends = (sizes: readonly number[]) => {
        let at = 0;
        return new Set(sizes.map((size) => (at += size)));
      };
      const [ofA, ofB] = [ends(lefts), ends(others)];
      const groups: number[] = [];
      for (let at = 1, from = 0; at <= count; at += 1)
        if (ofA.has(at) && ofB.has(at)) {
          groups.push(at - from);
          from = at;
        }
      fc.pre(
        groups.every((size) => size <= Math.max(...slots)) &&
          count <= slots.reduce((sum, one) => sum + one, 0),
      );

      const mostWhole = (at: number, left: readonly number[]): number => {
        if (at === groups.length) return 0;
        let best = mostWhole(at + 1, left);
        left.forEach((free, tray) => {
          if (free >= groups[at]!)
            best = Math.max(best, 1 + mostWhole(at + 1, left.with(tray, free - groups[at]!)));
        });
        return best;
      };
      /** The last tray that a way with the order kept needs; Infinity where there is none. */
      const lastInOrder = (at: number, tray: number, free: number): number => {
        if (at === groups.length) return tray;
        if (tray >= slots.length) return Infinity;
        const here = free >= groups[at]! ? lastInOrder(at + 1, tray, free - groups[at]!) : Infinity;
        return Math.min(
          here,
          tray + 1 < slots.length ? lastInOrder(at, tray + 1, slots[tray + 1]!) : Infinity,
        );
      };
      const { placed, unplaced } = layOutTrays(
        splices,
        traysOf(...slots),
        new Map([a, b].map((own) => [own.id, own])),
      );
      expect(unplaced).toEqual([]);
      const trayOf = new Map(placed.map((splice) => [splice.left[0]!.fiber, splice.tray]));
      let first = 1;
      let whole = 0;
      for (const size of groups) {
        const on = new Set(Array.from({ length: size }, (_, index) => trayOf.get(first + index)));
        if (on.size === 1) whole += 1;
        first += size;
      }
      expect(whole).toBeGreaterThanOrEqual(mostWhole(0, slots));
      const last = lastInOrder(0, 0, slots[0]!);
      if (last !== Infinity) expect(Math.max(...trayOf.values())).toBe(last + 1);
    }),
    { numRuns: 400 },
  );
});

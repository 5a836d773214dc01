import fc from 'fast-check';
import { cableA, cableB, closure, id } from '../../test/example';
import { equalTubes, type Cable } from '../line/cable';
import type { Site } from '../line/project';
import { kitList } from '../kit/kitList';
import type { Closure, Entry } from './closure';
import { planClosure, unassigned, type ClosurePlan } from './trays/closurePlan';
import { fiberEndKey } from './fiberEnd';
import { followFiber } from './follow/followFiber';
import { guessOrderCsv, readOrderCsv } from './order/orderCsv';
import { readOrder, writeOrder } from './order/orderText';
import { planChange } from './order/planChange';

/** Laws that hold for every plan, tried on made-up ones. */

const entries: Entry[] = [
  { cableId: cableA.id, manner: 'cut' },
  { cableId: cableB.id, manner: 'cut' },
];
/** Four tubes of twelve on one side, eight ribbons of six on the other. */
const loose: Cable = { ...cableA, construction: equalTubes(4, 12) };
const ribbons: Cable = {
  ...cableB,
  construction: { kind: 'central-ribbon', ribbons: 8, fibersPerRibbon: 6 },
};
const cables = new Map([loose, ribbons].map((cable) => [cable.id, cable]));

/** A few lines that may overlap, run over the end or not fit each other, as people write them. */
const anyOrder = fc
  .array(
    fc.record({
      unit: fc.integer({ min: 1, max: 9 }),
      from: fc.integer({ min: 1, max: 48 }),
      length: fc.integer({ min: 1, max: 14 }),
      kind: fc.constantFrom('fibers', 'ribbonized', 'reversed'),
    }),
    { maxLength: 6 },
  )
  .map((lines) =>
    lines
      .map(({ unit, from, length, kind }) =>
        kind === 'fibers'
          ? `A ${from}-${from + length - 1} > B ${from}-${from + length - 1}`
          : `A ${(unit - 1) * 6 + 1}-${unit * 6} > B R${unit} ribbonized${kind === 'reversed' ? ' reversed' : ''}`,
      )
      .join('\n'),
  );
const anyTrays = fc.array(
  fc.record({
    singleSlots: fc.integer({ min: 0, max: 14 }),
    ribbonSlots: fc.integer({ min: 0, max: 4 }),
  }),
  { minLength: 1, maxLength: 6 },
);
const anyPins = fc.array(
  fc.record({
    cableId: fc.constantFrom(cableA.id, cableB.id),
    unit: fc.integer({ min: 1, max: 8 }),
    tray: fc.integer({ min: 1, max: 7 }),
  }),
  { maxLength: 3 },
);

function planned(order: string, more: Partial<Closure> = {}): { closure: Closure; plan: ClosurePlan } {
  const read = readOrder(order, entries);
  const at: Closure = {
    ...closure,
    entries,
    order: read.lines.map((line, index) => ({ ...line, id: id(900 + index) })),
    ...more,
  };
  return { closure: at, plan: planClosure(at, cables) };
}

test('no fiber end is in two splices, no slot holds two sleeves, and a tray holds one kind in its slots', () => {
  fc.assert(
    fc.property(anyOrder, anyTrays, anyPins, fc.nat({ max: 2 }), (order, trays, pins, spareSlots) => {
      const { plan } = planned(order, { trays, pins, spareSlots });
      const ends = [...plan.splices, ...plan.unplaced].flatMap(({ left, right }) =>
        [...left, ...right].map(fiberEndKey),
      );
      expect(new Set(ends).size).toBe(ends.length);
      expect(new Set(plan.splices.map(({ tray, slot }) => `${tray}.${slot}`)).size).toBe(plan.splices.length);
      for (const { splices, tray } of plan.trays) {
        expect(new Set(splices.map((splice) => splice.kind)).size).toBeLessThanOrEqual(1);
        const { singleSlots, ribbonSlots } = trays[tray - 1]!;
        const slots = splices[0]?.kind === 'ribbon' ? ribbonSlots : singleSlots;
        expect(splices.length).toBeLessThanOrEqual(Math.max(0, slots - spareSlots));
      }
      // Whatever is left out has been told.
      if (plan.unplaced.length > 0)
        expect(plan.findings.map((finding) => finding.code)).toContain('over-capacity');
    }),
  );
});

test('what is pinned lies on its tray, or it is said why not', () => {
  fc.assert(
    fc.property(anyOrder, anyTrays, anyPins, (order, trays, [pin]) => {
      fc.pre(pin !== undefined);
      const { plan } = planned(order, { trays, pins: [pin] });
      if (plan.findings.some((finding) => finding.code === 'pin')) return;
      // At least the piece that was pinned is there; a tube larger than a tray has others.
      expect(plan.reasons.some(({ tray, because }) => tray === pin.tray && because === 'pinned')).toBe(true);
    }),
  );
});

test('every fiber is either spliced or listed as not assigned', () => {
  fc.assert(
    fc.property(anyOrder, anyTrays, (order, trays) => {
      const { plan } = planned(order, { trays });
      for (const cable of cables.values()) {
        const spliced = [...plan.splices, ...plan.unplaced].flatMap(({ left, right }) =>
          [...left, ...right].filter((end) => end.cableId === cable.id).map((end) => end.fiber),
        );
        const rest = unassigned(plan, cable).flatMap(({ from, to }) =>
          Array.from({ length: to - from + 1 }, (_, index) => from + index),
        );
        expect([...spliced, ...rest].sort((a, b) => a - b)).toEqual(
          Array.from({ length: 48 }, (_, index) => index + 1),
        );
      }
    }),
  );
});

test('an order written out and read again plans the same', () => {
  fc.assert(
    fc.property(anyOrder, (order) => {
      const first = planned(order);
      const again = planned(writeOrder(first.closure));
      expect(again.plan.splices.map(({ id: splice, tray, slot }) => [splice, tray, slot])).toEqual(
        first.plan.splices.map(({ id: splice, tray, slot }) => [splice, tray, slot]),
      );
    }),
  );
});

test('a table with one row a fiber plans the same as the line it was made of', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 8 }), (from, length) => {
      const fibers = Array.from({ length }, (_, index) => String(from + index));
      const header = ['From cable', 'From fiber', 'To cable', 'To fiber'];
      const table = [header, ...fibers.map((fiber) => ['A', fiber, 'B', fiber])];
      const { lines, problems } = readOrderCsv(table, guessOrderCsv(header), entries, cables);
      expect(problems).toEqual([]);
      const asLines = {
        ...closure,
        entries,
        order: lines.map((line, index) => ({ ...line, id: id(index) })),
      };
      expect(writeOrder(asLines)).toBe(
        length === 1
          ? `A ${from} > B ${from}`
          : `A ${from}-${from + length - 1} > B ${from}-${from + length - 1}`,
      );
    }),
  );
});

test('one sleeve is counted for every splice, whatever the order', () => {
  fc.assert(
    fc.property(anyOrder, anyTrays, (order, trays) => {
      const { closure: at, plan } = planned(order, { trays });
      const kit = kitList(at, plan, cables, { sparePercent: 0 });
      const sleeves = kit.filter((line) => line.item.includes('sleeve'));
      expect(sleeves.reduce((sum, line) => sum + line.count, 0)).toBe(
        plan.splices.length + plan.unplaced.length,
      );
    }),
  );
});

test('of the splices that were made, each stays, leaves, moves or comes back, and none is told twice', () => {
  fc.assert(
    fc.property(anyOrder, anyOrder, anyTrays, (before, after, trays) => {
      const [was, will] = [planned(before, { trays }).plan, planned(after, { trays }).plan];
      const facts = [...was.splices, ...will.splices].map((splice) => splice.id);
      const { leaving, moving, returning } = planChange(was, will, facts);
      const told = [...leaving, ...moving.map((one) => one.spliceId), ...returning];
      expect(new Set(told).size).toBe(told.length);
      for (const spliceId of leaving) {
        expect(was.positionOf.has(spliceId)).toBe(true);
        expect(will.positionOf.has(spliceId)).toBe(false);
      }
      for (const spliceId of returning) expect(was.positionOf.has(spliceId)).toBe(false);
      expect(planChange(was, was, facts).leaving).toEqual([]);
    }),
  );
});

/** Cables of 12 end to end through `joints`, in each closure joined by its own shuffle. */
function shuffledChain(joints: readonly (readonly number[])[]) {
  const sites: Site[] = Array.from({ length: joints.length + 2 }, (_, index) => ({
    id: id(100 + index),
    name: `Site ${index}`,
    kind: 'closure',
    chainage: index * 50,
    placement: null,
  }));
  const chain = new Map(
    Array.from({ length: joints.length + 1 }, (_, index): [string, Cable] => [
      id(200 + index),
      {
        ...cableA,
        id: id(200 + index),
        construction: equalTubes(1, 12),
        siteIds: [sites[index]!.id, sites[index + 1]!.id],
      },
    ]),
  );
  const closures = joints.map((shuffle, index) => {
    const own: Entry[] = [
      { cableId: id(200 + index), manner: 'cut' },
      { cableId: id(201 + index), manner: 'cut' },
    ];
    const text = shuffle.map((to, from) => `A ${from + 1} > B ${to}`).join('\n');
    const at: Closure = {
      ...closure,
      id: id(300 + index),
      siteId: sites[index + 1]!.id,
      entries: own,
      order: readOrder(text, own).lines.map((line, place) => ({ ...line, id: id(400 + place) })),
    };
    return { closure: at, plan: planClosure(at, chain) };
  });
  return { sites, cables: chain, closures };
}

test('a fiber comes out where the splices on its way lead, from either end', () => {
  const numbers = Array.from({ length: 12 }, (_, index) => index + 1);
  const shuffle = fc.shuffledSubarray(numbers, { minLength: 12 });
  fc.assert(
    fc.property(
      fc.array(shuffle, { minLength: 1, maxLength: 6 }),
      fc.constantFrom(...numbers),
      (joints, fiber) => {
        const route = shuffledChain(joints);
        const out = joints.reduce((at, one) => one[at - 1]!, fiber);
        const way = followFiber(route, id(200), fiber);
        const lengths = way.filter((step) => step.kind === 'length');
        expect(lengths.map((step) => step.meters)).toEqual(lengths.map(() => 50));
        expect(lengths.at(-1)).toMatchObject({ cableId: id(200 + joints.length), fiber: out });
        expect(followFiber(route, id(200 + joints.length), out)).toEqual(way);
      },
    ),
  );
});

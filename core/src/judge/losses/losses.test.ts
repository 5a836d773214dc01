import fc from 'fast-check';
import { attempt, cables, closure, id, limits, measuredLoss, plan, timeOf } from '../../../test/example';
import { planClosure } from '../../plan/trays/closurePlan';
import { buildLedger } from '../../splice/record/ledger';
import { factVersion, type Attempt, type Fact } from '../../facts';
import { runsOf } from '../../plan/fiberEnd';
import { placeKey, placesOf } from './places';
import { asMeasured, choicesOf, chosen, facets, lossRows, valueOf, worstOf } from './rows';
import { distributionOf } from './distribution';
import { heatMapOf } from './heatMap';
import { redoList } from './tomorrow';

const dayOf = (madeAt: string) => madeAt.slice(0, 10);
const ledgerOf = (facts: readonly Fact[]) => buildLedger(plan, facts, limits);
const rowsOf = (facts: readonly Fact[]) =>
  lossRows([{ closureId: closure.id, ledger: ledgerOf(facts) }], cables, dayOf);

const gear = { machine: { id: id(71), label: 'Single 1' } };
const facts = [
  attempt(0, 0.02, { minute: 1, by: 'Iara', gear }),
  attempt(1, 0.14, { minute: 2, by: 'Davi' }),
  attempt(1, 0.03, { minute: 3, by: 'Davi' }),
  attempt(7, 0.16, { minute: 4, by: 'Iara' }),
  attempt(13, null, { minute: 5 }),
];

test('every fiber that was tried stands once, in its place, as it is in the tray', () => {
  const rows = rowsOf(facts);
  expect(
    rows.map(({ tray, slot, loss, mark, tries, person }) => [tray, slot, loss, mark, tries, person]),
  ).toEqual([
    [1, 1, 0.02, 'holds', 1, 'Iara'],
    [1, 2, 0.03, 'holds', 2, 'Davi'],
    [1, 8, 0.16, 'redo', 1, 'Iara'],
    [2, 2, null, 'redo', 1, null],
  ]);
  // Tubes of six: the eighth fiber lies in the second.
  expect(rows[2]!.unit).toMatchObject({ kind: 'tube', unit: 2 });
  expect(rows[2]).toMatchObject({ over: true, limit: 0.1, day: '2026-04-15', machine: null });
  expect(rows[0]!.machine).toBe(id(71));
});

test('what is chosen: every facet alone and together, with counts under the other choices', () => {
  const rows = rowsOf(facts);
  expect(chosen(rows, { person: 'Iara' })).toHaveLength(2);
  expect(chosen(rows, { person: 'Iara', tray: `${closure.id} 2` })).toHaveLength(0);
  expect(choicesOf(rows, { tray: `${closure.id} 1` }, 'person')).toEqual([
    { value: 'Iara', count: 2 },
    { value: 'Davi', count: 1 },
  ]);
  // A choice that has none under the others stays in sight.
  expect(choicesOf(rows, { tray: `${closure.id} 2` }, 'person')).toEqual([
    { value: 'Iara', count: 0 },
    { value: 'Davi', count: 0 },
  ]);
});

test('counts of a facet add up to what is chosen by the others and has one', () => {
  const tries = fc.array(
    fc.record({
      splice: fc.integer({ min: 0, max: 23 }),
      loss: fc.integer({ min: 0, max: 30 }),
      by: fc.constantFrom('A', 'B', null),
    }),
    { maxLength: 60 },
  );
  fc.assert(
    fc.property(tries, fc.constantFrom(...facets), fc.constantFrom(...facets), (list, one, other) => {
      const rows = rowsOf(list.map(({ splice, loss, by }) => attempt(splice, loss / 100, { by })));
      const [row] = rows;
      const value = row && valueOf(row, other);
      const filter = value == null || one === other ? {} : { [other]: value };
      const sum = choicesOf(rows, filter, one).reduce((total, { count }) => total + count, 0);
      expect(sum).toBe(chosen(rows, filter).filter((each) => valueOf(each, one) !== null).length);
    }),
    { numRuns: 60 },
  );
});

test('a distribution: each reading in its step, what is beyond in the last one, and what was expected', () => {
  const rows = rowsOf([0, 0.01, 0.01, 0.02, 0.29, 0.07].map((loss, index) => attempt(index, loss)));
  const found = distributionOf(rows, (loss) => 1 - Math.exp(-loss / 0.02), 10);
  expect(found.bins.map(({ count }) => count)).toEqual([1, 2, 1, 0, 0, 0, 0, 1, 0, 1]);
  expect(found).toMatchObject({ count: 6, broken: 0, over: 1 });
  expect(found.mean).toBeCloseTo(0.4 / 6, 12);
  expect(found.median).toBeCloseTo(0.015, 12);
  // All of what is expected adds up; a reading of 0.01 stands for 0.005 to 0.015.
  expect(found.bins.reduce((sum, { expected }) => sum + expected!, 0)).toBeCloseTo(6, 9);
  expect(found.bins[1]!.expected).toBeCloseTo(6 * (Math.exp(-0.25) - Math.exp(-0.75)), 9);
  expect(distributionOf([], null)).toMatchObject({ count: 0, mean: null, median: null, p95: null });
});

test('every hundredth lies in its own step, whatever decimal fractions do', () => {
  for (let hundredths = 0; hundredths < 20; hundredths += 1) {
    const rows = rowsOf([attempt(0, hundredths / 100)]);
    expect(distributionOf(rows, null, 21).bins[hundredths]!.count).toBe(1);
  }
});

test('ribbons by positions, with the mean of each', () => {
  const ribboned = {
    ...closure,
    trays: [{ singleSlots: 0, ribbonSlots: 4 }],
    order: [{ ...closure.order[0]!, mode: 'ribbon' as const }],
  };
  const ribbonCables = new Map(
    [...cables].map(([key, cable]) => [
      key,
      {
        ...cable,
        construction: { kind: 'central-ribbon' as const, ribbons: 2, fibersPerRibbon: 12 as const },
      },
    ]),
  );
  const ribbonPlan = planClosure(ribboned, ribbonCables);
  const made = ribbonPlan.splices.map((splice, at): Attempt => ({
    v: factVersion('attempt'),
    id: id(6000 + at),
    kind: 'attempt',
    madeAt: timeOf(at),
    by: null,
    device: null,
    subject: { on: 'splice', closureId: closure.id, left: runsOf(splice.left), right: runsOf(splice.right) },
    body: {
      source: 'hand',
      simulated: false,
      readings: splice.left.map((_, index) => ({
        loss: index === 6 ? (9 + at) / 100 : 0.02,
        cleaveLeft: null,
        cleaveRight: null,
      })),
      proofTestFailed: false,
      note: '',
    },
  }));
  const rows = lossRows(
    [{ closureId: closure.id, ledger: buildLedger(ribbonPlan, made, limits) }],
    ribbonCables,
    dayOf,
  );
  const { ribbons, means } = heatMapOf(rows);
  expect(ribbons.map(({ slot, losses }) => [slot, losses.length, losses[6]])).toEqual([
    [1, 12, 0.09],
    [2, 12, 0.1],
  ]);
  expect(means[6]).toBeCloseTo(0.095, 12);
  expect(means[0]).toBeCloseTo(0.02, 12);
  expect(choicesOf(rows, {}, 'position')).toHaveLength(12);
  expect(heatMapOf(rowsOf(facts))).toEqual({ ribbons: [], means: [] });
});

test('tomorrow: what is open anyway first, then where one reopening serves most', () => {
  const [one, two, three] = [[1], [0, 3, 13], [7]].map((splices) =>
    ledgerOf(splices.map((splice) => attempt(splice, 0.2))),
  );
  const list = redoList([
    { closureId: 'sealed, one', ledger: one!, sealed: true },
    { closureId: 'sealed, three', ledger: two!, sealed: true },
    { closureId: 'open', ledger: three!, sealed: false },
    { closureId: 'nothing', ledger: ledgerOf([attempt(0, 0.02)]), sealed: true },
  ]);
  expect(list.closures.map(({ closureId, count }) => [closureId, count])).toEqual([
    ['open', 1],
    ['sealed, three', 3],
    ['sealed, one', 1],
  ]);
  expect(list).toMatchObject({ splices: 5, reopenings: 2 });
  expect(list.closures[1]!.trays.map(({ tray, splices }) => [tray, splices.length])).toEqual([
    [1, 2],
    [2, 1],
  ]);
});

test('every fiber of the plan in its place: read, broke or open, those that are chosen, and what was measured', () => {
  const ledger = ledgerOf([...facts, measuredLoss(facts[0]!, { fromLeft: 0.2, fromRight: 0.1 })]);
  const books = [{ closureId: closure.id, ledger }];
  const [first, second] = placesOf(books, null, false);
  expect(first!.cells.map(({ state }) => state).slice(0, 8)).toEqual([
    ...['read', 'read', 'open', 'open', 'open', 'open', 'open', 'read'],
  ]);
  expect(first!.cells[7]).toMatchObject({ over: true, slot: 8, position: 1, chosen: true });
  expect(first!.cells[7]!.share).toBeCloseTo(1.6, 12);
  expect([first!.read, first!.over]).toEqual([3, 1]);
  expect(second!.cells[1]!.state).toBe('broke');
  const one = new Set([placeKey(closure.id, first!.cells[0]!.spliceId, 1)]);
  expect(placesOf(books, one, false)[0]!.cells.filter((cell) => cell.chosen)).toHaveLength(1);
  const [measured] = placesOf(books, null, true);
  expect(measured!.cells[0]).toMatchObject({ state: 'read', over: true });
  expect(measured!.read).toBe(1);
  const rows = lossRows(books, cables, dayOf);
  expect(asMeasured(rows).map(({ loss, over }) => [Math.round(loss! * 100) / 100, over])).toEqual([
    [0.15, true],
  ]);
});

test('the worst are those of a sort, broken ones first', () =>
  fc.assert(
    fc.property(fc.array(fc.option(fc.integer({ min: 0, max: 20 })), { maxLength: 24 }), (list) => {
      const rows = rowsOf(list.map((loss, index) => attempt(index, loss === null ? null : loss / 100)));
      const sorted = rows
        .map(({ loss }) => loss ?? Infinity)
        .sort((a, b) => b - a)
        .slice(0, 5);
      expect(worstOf(rows, 5).map(({ loss }) => loss ?? Infinity)).toEqual(sorted);
    }),
  ));

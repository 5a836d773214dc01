import fc from 'fast-check';
import { differenceOf, measuresOver } from '../odds/measuring';
import type { LossRow } from './rows';
import { worthMeasuring } from './worthMeasuring';

const row = (loss: number | null, more: Partial<LossRow> = {}): LossRow => ({
  closureId: 'c',
  spliceId: `s${loss}`,
  attempt: 'a',
  tray: 1,
  slot: 1,
  position: 1,
  kind: 'single',
  unit: null,
  trayKey: 'c 1',
  unitKey: null,
  pair: 'A B',
  pairTerm: 0,
  machine: null,
  cleaver: null,
  person: null,
  at: 0,
  day: '',
  loss,
  measured: null,
  limit: 0.1,
  over: loss !== null && loss > 0.1,
  mark: 'holds',
  tries: 1,
  ...more,
});

test('what is near its limit on either side comes first, what is far from it not at all', () => {
  const rows = [row(0.02), row(0.09), row(0.1), row(0.12, { mark: 'redo' }), row(0.3, { mark: 'redo' })];
  const list = worthMeasuring(rows, rows);
  expect(list.map(({ row: { loss } }) => loss)).toEqual([0.1, 0.09, 0.12]);
  expect(list.map(({ why }) => why)).toEqual(['may-be-over', 'may-be-over', 'may-hold']);
});

test('where the mode fields differ more deserves it', () => {
  const differ = { pairTerm: 0.02 };
  const rows = [row(0.06), row(0.061, differ)];
  expect(worthMeasuring(rows, rows).map(({ row: { loss } }) => loss)).toEqual([0.061]);
});

test('what was measured, broke, is open or allowed is not asked about', () => {
  const rows = [
    row(0.1, { measured: 0.08 }),
    row(null),
    row(0.11, { mark: 'allowed' }),
    row(0.1, { mark: 'open' }),
  ];
  expect(worthMeasuring(rows, rows)).toEqual([]);
});

test('what was measured at the same cables counts for the rest: all of it lies 0.05 above', () => {
  const measured = [0.02, 0.03, 0.04, 0.02, 0.03].map((loss) => row(loss, { measured: loss + 0.05 }));
  const rest = [row(0.07), row(0.07, { pair: 'A C' })];
  const [first, ...others] = worthMeasuring([...measured, ...rest], rest);
  expect(others).toEqual([]);
  expect(first).toMatchObject({ row: { pair: 'A B' }, why: 'may-be-over', known: { count: 5 } });
  expect(first!.known!.mean).toBeCloseTo(0.05, 12);
  expect(first!.chance).toBeGreaterThan(0.35);
});

// Normal prior and normal readings: the textbook's posterior (Gelman et al., Bayesian Data Analysis, 2.5), by hand with prior 0.01, spread 0.015 at a loss of 0.
test('the closed form is the textbook’s', () => {
  const { mean, deviation } = differenceOf(0, 0, { count: 3, sum: 0.06 });
  const precision = 3 / 0.015 ** 2 + 1 / 0.01 ** 2;
  expect(mean).toBeCloseTo(((3 / 0.015 ** 2) * 0.02) / precision, 12);
  expect(deviation).toBeCloseTo(Math.sqrt(0.015 ** 2 + 1 / precision), 12);
});

test('a higher estimate is likelier over, and a chance is one', () =>
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 0.3, noNaN: true }),
      fc.double({ min: 0, max: 0.05, noNaN: true }),
      (loss, term) => {
        const chance = measuresOver(loss, 0.1, term);
        expect(chance).toBeGreaterThanOrEqual(0);
        expect(chance).toBeLessThanOrEqual(1);
        // A wider spread makes far ones likelier too; at the limit itself it is even.
        expect(measuresOver(0.1, 0.1, term)).toBeCloseTo(0.5, 9);
        expect(loss <= 0.1 ? chance <= 0.5 + 1e-9 : chance >= 0.5 - 1e-9).toBe(true);
      },
    ),
  ));

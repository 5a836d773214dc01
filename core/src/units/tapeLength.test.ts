import fc from 'fast-check';
import { formatTape, mixedUnit, parseTape, tapeFigure, tapeInput } from './tapeLength';

// Inch and mm side by side as the trade prints them (common practice, no published source).
test.each([
  [64, 1626],
  [8, 203],
  [2.25, 57],
  [15, 381],
  [70, 1778],
  [3, 76],
  [20, 508],
  [1.5, 38],
  [6, 152],
  [102, 2591],
  [48, 1219],
  [24, 610],
  [4, 102],
  [36, 914],
  [0.25, 6],
  [12, 305],
])('%d in are %d mm on the tape', (inches, millimeters) => {
  expect(parseTape(String(inches), 'in')).toBeCloseTo(inches * 25.4, 9);
  expect(tapeFigure(inches * 25.4, 'mm').replace(/\s/g, '')).toBe(String(millimeters));
});

test('inches are read and written in sixteenths', () => {
  expect(formatTape(57.15, 'in')).toBe('2-1/4\u00a0in');
  expect(formatTape(6.35, 'in')).toBe('1/4\u00a0in');
  expect(formatTape(4.7625, 'in')).toBe('3/16\u00a0in');
  expect(formatTape(1625.6, 'in')).toBe('64\u00a0in');
  expect(formatTape(-25.4, 'in')).toBe('−1\u00a0in');
  expect(formatTape(0, 'in')).toBe('0\u00a0in');
  expect(formatTape(-0.2, 'mm')).toBe('0\u00a0mm');
  expect(formatTape(NaN, 'mm')).toBe('–');
});

test.each([
  ['2-1/4', 'in', 57.15],
  ['2 1/4', 'in', 57.15],
  ['1/2 in', 'mm', 12.7],
  ['64"', 'mm', 1625.6],
  ['1 626', 'mm', 1626],
  ['12,5', 'mm', 12.5],
  ['2 m', 'in', 2000],
  ['5 ft', 'mm', 1524],
  ['30 cm', 'in', 300],
  ['64 inch', 'mm', 1625.6],
  ['64 inches', 'mm', 1625.6],
  ['64”', 'mm', 1625.6],
  ['64″', 'mm', 1625.6],
  ['2¼', 'in', 57.15],
  ['¾ in', 'mm', 19.05],
  ['5\' 4"', 'mm', 1625.6],
  ['5’ 4”', 'in', 1625.6],
  ['5 ft 4', 'mm', 1625.6],
  ['5\' 4 1/2"', 'mm', 1638.3],
  ['2 feet', 'mm', 609.6],
  ['1,626', 'in', 1626 * 25.4],
  ['1,5', 'in', 38.1],
  ['1,626', 'mm', 1.626],
] as const)('“%s” in a project of %s is %d mm', (text, units, millimeters) => {
  expect(parseTape(text, units)).toBeCloseTo(millimeters, 9);
});

test.each(['', 'abc', '1/0', '-5', '1.2.3', 'NaN', '1 2 3', "5' x", "'", '"', '¼¼'])(
  '“%s” is no length',
  (text) => {
    expect(parseTape(text, 'mm')).toBeNull();
  },
);

test('what was given in sixteenths of an inch is shown in the very same inches', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 16 * 200 }), (sixteenths) => {
      const stored = parseTape(tapeFigure((sixteenths / 16) * 25.4, 'in'), 'in')!;
      expect(stored).toBeCloseTo((sixteenths / 16) * 25.4, 9);
      expect(tapeFigure(stored, 'in')).toBe(tapeFigure((sixteenths / 16) * 25.4, 'in'));
    }),
  );
});

test('a field that nobody touched gives its length again, to a hundredth of a millimeter', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 5000, noNaN: true }),
      fc.constantFrom('mm', 'in'),
      (length, units) => {
        expect(Math.abs(parseTape(tapeInput(length, units), units)! - length)).toBeLessThan(0.02);
      },
    ),
  );
  expect(tapeInput(1625.6, 'in')).toBe('64');
  expect(tapeInput(1626, 'in')).toBe('64.016');
  expect(tapeInput(12.4, 'in')).toBe('0.488');
});

test('a unit mixed up by 25.4 is told in its direction', () => {
  const fits = (value: number) => value > 500 && value < 3000;
  expect(mixedUnit(1626, fits)).toBeNull();
  expect(mixedUnit(64, fits)).toBe('inches as mm');
  expect(mixedUnit(41_300, fits)).toBe('mm as inches');
  expect(mixedUnit(1, fits)).toBeNull();
});

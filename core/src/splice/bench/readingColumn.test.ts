import fc from 'fast-check';
import { readReadingColumn } from './readingColumn';

const codes = (text: string, fibers = 12) => readReadingColumn(text, fibers).findings.map(({ code }) => code);
const twelve = Array.from({ length: 12 }, (_, index) => (0.01 + index / 1000).toFixed(3));

test('a column is read as it is copied, with units, commas, and an empty line at its end', () => {
  expect(readReadingColumn(`${twelve.join('\n')}\n`, 12).losses).toEqual(twelve.map(Number));
  expect(readReadingColumn('0,02\r\n0,03', 2).losses).toEqual([0.02, 0.03]);
  expect(readReadingColumn('0.02 dB\n.03dB', 2).losses).toEqual([0.02, 0.03]);
  expect(readReadingColumn('0.02\t0.03;0.04', 3).losses).toEqual([0.02, 0.03, 0.04]);
});

test.each([
  ['nothing', '', 'empty'],
  ['thirteen for twelve', [...twelve, '0.02'].join('\n'), 'count'],
  ['eleven for twelve', twelve.slice(1).join('\n'), 'count'],
  ['an empty cell', twelve.with(4, '').join('\n'), 'empty-cell'],
  ['a word', twelve.with(4, 'ok').join('\n'), 'no-number'],
  ['a dash', twelve.with(4, '-').join('\n'), 'no-number'],
  ['another unit', twelve.with(4, '0.02 mm').join('\n'), 'unit'],
  ['a percentage', twelve.with(4, '2 %').join('\n'), 'unit'],
  ['below zero', twelve.with(4, '-0.02').join('\n'), 'range'],
  ['a lost decimal point', twelve.with(4, '20').join('\n'), 'range'],
])('%s is told with its row, and nothing is taken', (_, text, code) => {
  expect(codes(text)).toEqual([code]);
  expect(readReadingColumn(text, 12).losses).toEqual([]);
});

test('all bad rows are told at once', () => {
  expect(readReadingColumn('x\n0.02\ny', 3).findings.map(({ where }) => where)).toEqual([
    { kind: 'row', row: 1 },
    { kind: 'row', row: 3 },
  ]);
});

test('what was written is what is read, for every reading the schema takes', () => {
  const loss = fc.integer({ min: 0, max: 10_000 }).map((thousandths) => thousandths / 1000);
  fc.assert(
    fc.property(
      fc.array(loss, { minLength: 1, maxLength: 24 }),
      fc.constantFrom('.', ','),
      (losses, sign) => {
        const text = losses.map((one) => one.toFixed(3).replace('.', sign)).join('\n');
        expect(readReadingColumn(text, losses.length)).toEqual({ losses, findings: [] });
      },
    ),
  );
});

import fc from 'fast-check';
import { cableA, cableB, cables, closure, id } from '../../../test/example';
import { orderLineSchema, type Entry } from '../closure';
import { rowProblemWords } from '../words';
import { completeOrderRow } from './orderCompletion';
import { readOrder, readOrderRow, writeOrder, writeOrderLine, type WrittenLine } from './orderText';

const entries: Entry[] = [
  { cableId: cableA.id, manner: 'cut' },
  { cableId: cableB.id, manner: 'express' },
  { cableId: id(3), manner: 'drop', key: 'DX', ending: 'mechanical' },
];
const a = { cableId: cableA.id, side: 'end' as const };

test.each([
  ['A 1-72 > DX 1-72', { left: { ...a, from: 1, to: 72 }, mode: 'single', circuit: null }],
  ['a 5>dx 7', { left: { ...a, from: 5, to: 5 }, mode: 'single' }],
  ['A T3 > DX T1', { left: { ...a, of: 'tube', from: 3, to: 3 }, mode: 'single' }],
  ['A R1-R6 → DX R1–6', { left: { ...a, of: 'ribbon', from: 1, to: 6 }, mode: 'ribbon' }],
  ['A R7 > DX R7 reversed', { mode: 'ribbon', polarity: 'reversed' }],
  ['A 1-12 > DX 1-12 ribbonized straight : Ring north', { mode: 'ribbonized', circuit: 'Ring north' }],
  ['A 1 > B+ 3', { right: { cableId: cableB.id, side: 'high', from: 3, to: 3 } }],
  ['A 1 > B- 3', { right: { cableId: cableB.id, side: 'low', from: 3, to: 3 } }],
  [
    'A 1-2 > fused connector : Ring',
    { right: null, connector: 'fusion-connector', mode: 'single', circuit: 'Ring' },
  ],
  ['A 1->FUSION', { right: null, connector: 'fusion-connector' }],
  [
    'A T1 > mechanical',
    { left: { ...a, of: 'tube', from: 1, to: 1 }, right: null, connector: 'mechanical', mode: 'single' },
  ],
  ['A R1 > mechanical connectors', { right: null, connector: 'mechanical', mode: 'single' }],
  ['B+ 3 > own connector', { left: { side: 'high' }, right: null, connector: 'own' }],
  // As the cable ends by its entry, or fused.
  ['A 1 > connector', { right: null, connector: 'fusion-connector' }],
  ['DX 1 > connector', { right: null, connector: 'mechanical' }],
])('reads “%s”', (row, expected) => {
  expect(readOrderRow(row, entries).line).toMatchObject(expected);
});

test.each([
  ['Q 1-2 > DX 1-2', 2, 'Expected a cable of this closure (A, B, DX), and found "1-2".'],
  ['A > DX 1', 3, 'Expected fibers like 1-12, a tube like T3 or ribbons like R1-R6, and found ">".'],
  ['A 1-', 5, 'Expected the number at which the range ends, and the line ends here.'],
  ['A 1-3 DX 1-3', 7, 'Expected ">", and found "DX".'],
  ['A T1-R3 > DX 1', 7, 'Expected the range to end as it began, with T, and found "3".'],
  ['A 0-3 > DX 1', 6, 'Expected a number from 1 up, since numbers start at 1, and found ">".'],
  [
    'A 1 > DX 1 backwards',
    12,
    'Expected single, ribbon, ribbonized, straight, reversed or ": circuit", and found "backwards".',
  ],
  [
    'A 1 > fused connector ribbon',
    23,
    'Expected ": circuit" or the end of the line behind a connector, and found "ribbon".',
  ],
  [
    'A 1 > own',
    10,
    'Expected a cable of this closure (A, B, DX), “fused connector” or “mechanical connector”, and the line ends here.',
  ],
  ['A 1 > DX 1 :  ', 15, 'Expected the circuit’s name, and the line ends here.'],
])('says where “%s” cannot be read, and what was expected', (row, column, message) => {
  const read = readOrderRow(row, entries);
  if (read.line !== undefined) throw new Error('It was read');
  expect([read.column, rowProblemWords(read)]).toEqual([column, message]);
});

test('a cable that is called like a word of a connector is a cable', () => {
  const own: Entry[] = [...entries, { cableId: id(4), manner: 'drop', key: 'OWN' }];
  expect(readOrderRow('A 1 > OWN 1', own).line).toMatchObject({ right: { cableId: id(4), from: 1 } });
  expect(readOrderRow('OWN 1 > own connector', own).line).toMatchObject({
    left: { cableId: id(4) },
    right: null,
    connector: 'own',
  });
});

test('a list of ends in connectors becomes a line for each run', () => {
  const { lines, problems } = readOrder('A 1, 3, 5-8 > fused connector : Ring', entries);
  expect(problems).toEqual([]);
  expect(lines.map((line) => writeOrderLine(line, entries))).toEqual([
    'A 1 > fused connector : Ring',
    'A 3 > fused connector : Ring',
    'A 5-8 > fused connector : Ring',
  ]);
});

test('a row that cannot be read costs only itself, and empty rows nothing', () => {
  const { lines, rows, problems } = readOrder('A 1 > DX 1\n\nA 2 DX 2\nA 3 > DX 3', entries);
  expect(lines).toHaveLength(2);
  expect(rows).toEqual([1, 4]);
  expect(problems).toMatchObject([{ row: 3, column: 5 }]);
});

const range = fc
  .record({
    entry: fc.constantFrom(...entries),
    high: fc.boolean(),
    of: fc.constantFrom('tube' as const, 'ribbon' as const, undefined),
    from: fc.integer({ min: 1, max: 6912 }),
    more: fc.nat({ max: 300 }),
  })
  .map(({ entry, high, of, from, more }) => ({
    cableId: entry.cableId,
    side: entry.manner === 'express' ? (high ? ('high' as const) : ('low' as const)) : ('end' as const),
    ...(of ? { of } : {}),
    from,
    to: from + more,
  }));
const circuit = fc.option(
  fc
    .string({ minLength: 1, maxLength: 60 })
    .map((text) => text.trim())
    .filter((text) => text !== '' && !text.includes('\n')),
);
const anySplices: fc.Arbitrary<WrittenLine> = fc
  .record({
    left: range,
    right: range,
    mode: fc.constantFrom('single' as const, 'ribbon' as const, 'ribbonized' as const),
    reversed: fc.boolean(),
    circuit,
  })
  .map(({ reversed, ...line }) => ({ ...line, ...(reversed ? { polarity: 'reversed' as const } : {}) }));

const anyEnds: fc.Arbitrary<WrittenLine> = fc.record({
  left: range,
  right: fc.constant(null),
  connector: fc.constantFrom('mechanical' as const, 'fusion-connector' as const, 'own' as const),
  mode: fc.constant('single' as const),
  circuit,
});
const anyLine = fc.oneof({ weight: 3, arbitrary: anySplices }, { weight: 1, arbitrary: anyEnds });

test('what is written is read back the same', () => {
  fc.assert(
    fc.property(anyLine, (line) => {
      expect(readOrderRow(writeOrderLine(line, entries), entries).line).toEqual(line);
    }),
  );
});

test('a line leads to other fibers or to a connector, never to both or to nothing', () => {
  const { right, ...line } = closure.order[0]!;
  const isLine = (more: object) => orderLineSchema.safeParse({ ...line, ...more }).success;
  expect(isLine({ right })).toBe(true);
  expect(isLine({ right: null, connector: 'mechanical' })).toBe(true);
  expect(isLine({ right: null })).toBe(false);
  expect(isLine({ right, connector: 'mechanical' })).toBe(false);
  expect(isLine({ right: null, connector: 'mechanical', mode: 'ribbon' })).toBe(false);
});

test('writes the closure’s order', () => expect(writeOrder(closure)).toBe('A 1-24 > B 1-24'));

test('no text breaks the reader', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60 }), (text) => {
      const { lines, problems } = readOrder(text, entries);
      expect(lines.length + problems.length).toBe(text.split('\n').filter((row) => row.trim() !== '').length);
    }),
  );
});

describe('completion', () => {
  const known = new Map([...cables, [id(3), { ...cableA, id: id(3), label: 'Drop' }]]);
  const complete = (before: string, others: WrittenLine[] = []) =>
    completeOrderRow(before, [entries[0]!, entries[2]!], known, others).map((one) => one.insert.trim());
  const [line] = readOrder('A 1-12 > DX 1-12', entries).lines;

  test('offers the cables, then what is free, then the arrow, then as many on the other side', () => {
    expect(complete('')).toEqual(['A', 'DX']);
    expect(complete('A ', [line!])).toEqual(['13-24', 'T3']);
    expect(complete('A 13-24 ')).toEqual(['>']);
    expect(complete('A 13-24 > ')).toEqual(['DX', 'fused connector', 'mechanical connector']);
    expect(complete('A 13-24 > m')).toEqual(['mechanical connector']);
    expect(complete('A 13 > fused connector ')).toEqual([':']);
    expect(complete('A 13-24 > DX ', [line!])).toEqual(['13-24', '13-24']);
    expect(complete('A T1 > DX ')).toEqual(['T1', '1-6']);
  });

  test('goes by the letters typed so far', () => {
    expect(complete('A 1 > DX 1 rib')).toEqual(['ribbon', 'ribbonized']);
    expect(complete('d')).toEqual(['DX']);
  });

  test('whatever is offered is read on', () => {
    for (const before of ['', 'A ', 'A 1-6 ', 'A 1-6 > ', 'A 1-6 > DX '])
      for (const { insert, replaces } of completeOrderRow(before, entries, known, [])) {
        const after = before.slice(0, before.length - replaces) + insert;
        const read = readOrderRow(after, entries);
        if (read.line === undefined) expect(read.found).toBeNull();
      }
  });
});

test.each([
  ['A 1-12 -> DX 1-12', 'A 1-12 > DX 1-12'],
  ['A 5->DX 7', 'A 5 > DX 7'],
  ['A 1—12 => DX 1–12', 'A 1-12 > DX 1-12'],
  ['A tube 3 > DX tubes 1', 'A T3 > DX T1'],
  ['A ribbons 1 - 6 > DX Ribbon 1-6', 'A R1-R6 > DX R1-R6'],
  ['A ribbon 7 > DX ribbon 7 ribbon reversed', 'A R7 > DX R7 reversed'],
])('reads “%s” as people type it', (typed, written) => {
  const { lines, problems } = readOrder(typed, entries);
  expect(problems).toEqual([]);
  expect(lines.map((line) => writeOrderLine(line, entries))).toEqual([written]);
});

test('a list becomes a line for each run that both sides have', () => {
  const read = (text: string) => {
    const { lines, rows, problems } = readOrder(text, entries);
    return {
      lines: lines.map((line) => writeOrderLine(line, entries)),
      rows,
      problems: problems.map((one) => rowProblemWords(one)),
    };
  };
  expect(read('A 24 > DX 12\nA 1, 3, 5-8 > DX 1-6 : Ring, north')).toEqual({
    lines: [
      'A 24 > DX 12',
      'A 1 > DX 1 : Ring, north',
      'A 3 > DX 2 : Ring, north',
      'A 5-8 > DX 3-6 : Ring, north',
    ],
    rows: [1, 2, 2, 2],
    problems: [],
  });
  expect(read('A T1,3 > DX T1, T2').lines).toEqual(['A T1 > DX T1', 'A T3 > DX T2']);
  expect(read('A 1,2,3 > B+ 7-9').lines).toEqual(['A 1-3 > B+ 7-9']);
  // The same order of the numbers on both sides, whatever they are.
  expect(read('A 3,1 > DX 1,2').lines).toEqual(['A 3 > DX 1', 'A 1 > DX 2']);
  expect(read('A 1,3 > DX 1-3').problems).toEqual([
    'Expected as many on both sides; the lists have 2 on the left and 3 on the right, and found "A 1,3 > DX 1-3".',
  ]);
  expect(read('A 1,3 > DX 1-2 reversed').problems).toEqual([
    'Expected a line for each range: lists are neither ribbonized nor reversed, and found "A 1,3 > DX 1-2 reversed".',
  ]);
  expect(read('A 1,x > DX 1-2').problems).toHaveLength(1);
  expect(read('A 1,3 > Q 1-2').problems).toEqual([
    'Expected a cable of this closure (A, B, DX), “fused connector” or “mechanical connector”, and found "1".',
  ]);
  expect(read(`A 1-99999,1 > DX 1-99999,1`).problems).toHaveLength(1);
});

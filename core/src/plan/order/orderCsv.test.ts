import fc from 'fast-check';
import { cableA, cableB, cables, closure, id } from '../../../test/example';
import { anyConstruction } from '../../../test/arbitraries';
import type { Cable } from '../../line/cable';
import { fiberCount, fiberPosition, fiberUnits } from '../../line/fiberNumber';
import { connectorNames, type Entry, type OrderLine } from '../closure';
import { expandOrder, unitsNumbered, type PlannedSplice } from './order';
import { csvProblemWords } from '../words';
import { guessOrderCsv, readOrderCsv, type OrderCsvField } from './orderCsv';
import { writeOrderLine } from './orderText';

const header = ['From cable', 'From fiber', 'To cable', 'To fiber', 'Mode', 'Circuit'];
const mapping = guessOrderCsv(header);
const read = (...rows: string[][]) => readOrderCsv([header, ...rows], mapping, closure.entries, cables);

test('finds the columns by their names', () => {
  expect(mapping).toEqual({
    leftCable: 0,
    leftUnit: null,
    leftFibers: 1,
    rightCable: 2,
    rightUnit: null,
    rightFibers: 3,
    mode: 4,
    polarity: null,
    circuit: 5,
  });
  expect(guessOrderCsv(['x', 'y'])).toMatchObject({ leftCable: null, rightFibers: null });
});

test('one row a fiber becomes one line a run; ranges and tubes are taken too', () => {
  const { lines, problems } = read(
    ['A', '1', 'b', '3', '', 'Ring'],
    ['A', '2', 'B', '4', 'single', 'Ring'],
    ['', '', '', '', '', ''],
    ['A', '3', 'B', '5', '', ''],
    ['A', 'T2', 'B', 'T2', '', ''],
    ['A', '13-18', 'B', '13-18', '', ''],
  );
  expect(problems).toEqual([]);
  expect(lines.map((line) => writeOrderLine(line, closure.entries))).toEqual([
    'A 1-2 > B 3-4 : Ring',
    'A 3 > B 5',
    'A T2 > B T2',
    'A 13-18 > B 13-18',
  ]);
});

test('lists every bad row at once, and then takes none', () => {
  const { lines, problems } = read(
    ['A', '1', 'B', '1', '', ''],
    ['Z', '2', 'B', '2', '', ''],
    ['A', 'two', 'B', '99', '', ''],
    ['A', '3', 'B', '3', 'glued', ''],
    ['', '4', 'B', '4', '', ''],
  );
  expect(lines).toEqual([]);
  expect(problems.map(({ row, column }) => [row, column])).toEqual([
    [3, 'From cable'],
    [4, 'From fiber'],
    [4, 'To fiber'],
    [5, 'Mode'],
    [6, 'From cable'],
  ]);
  expect(problems.map(({ told }) => csvProblemWords(told, 'mm'))).toEqual([
    '“Z” is no cable of this closure. Give its key (A, B) or its label.',
    '“two” is not a range of fibers. Write 5, 1-12, T3 for a tube, or R1-R6 for ribbons.',
    'B has 24 fibers, so there is no fiber 99. End the range at 24 or less.',
    '“glued” is no mode. Write single, ribbon or ribbonized.',
    'No cable is named. Give its key or its label.',
  ]);
});

test('asks for the columns that it needs', () => {
  const { problems } = readOrderCsv([header], { ...mapping, leftFibers: null }, closure.entries, cables);
  expect(problems).toEqual([
    { row: 1, column: 'From fibers', told: { code: 'column', params: { name: 'From fibers' } } },
  ]);
});

test('a column of cable numbers is the cable, and columns after a side belong to it', () => {
  const named = (...names: string[]) => {
    const guess = guessOrderCsv(names);
    return (Object.keys(guess) as OrderCsvField[]).flatMap((field) =>
      guess[field] === null ? [] : `${field}: ${names[guess[field]]}`,
    );
  };
  expect(named('From cable number', 'From fiber number', 'To cable number', 'To fiber number')).toEqual([
    'leftCable: From cable number',
    'leftFibers: From fiber number',
    'rightCable: To cable number',
    'rightFibers: To fiber number',
  ]);
  expect(guessOrderCsv(['From', 'Tube', 'Fiber', 'To', 'Tube', 'Fiber', 'Service'])).toMatchObject({
    leftCable: 0,
    leftUnit: 1,
    leftFibers: 2,
    rightCable: 3,
    rightUnit: 4,
    rightFibers: 5,
    circuit: 6,
  });
  expect(guessOrderCsv(['A buffer tube', 'A strand', 'B buffer tube', 'B strand'])).toMatchObject({
    leftCable: null,
    leftUnit: 0,
    leftFibers: 1,
    rightUnit: 2,
    rightFibers: 3,
  });
});

test('fibers are numbered in the tube or ribbon where a column names it', () => {
  const columns = ['From cable', 'From tube', 'From fiber', 'To cable', 'To tube', 'To fiber'];
  const rows = (...cells: string[][]) =>
    readOrderCsv([columns, ...cells], guessOrderCsv(columns), closure.entries, cables);
  const inTubes = rows(
    ['A', '3', '1', 'B', '3', '1'],
    ['A', '3', '2', 'B', 'T3', '2'],
    ['A', '4', '', 'B', '4', ''],
  );
  expect(inTubes.lines.map((line) => writeOrderLine(line, closure.entries))).toEqual([
    'A 13-14 > B 13-14',
    'A T4 > B T4',
  ]);
  const wrong = rows(['A', '3', '7', 'B', '9', '1'], ['A', 'blue', '1', 'B', '1', 'T1']);
  expect(wrong.problems.map(({ column, told }) => [column, csvProblemWords(told, 'mm')])).toEqual([
    [
      'From fiber',
      'Tube 3 has 6 fibers, so there is no fiber 7 in it. Number the fibers in their tube, or leave its column out.',
    ],
    ['To tube', 'B has 4 tubes, so there is no tube 9. End the range at 4 or less.'],
    ['From tube', '“blue” is no tube or ribbon. Write its number, like 3, T3 or R3.'],
    ['To fiber', '“T1” is not a range of fibers. Write 5, 1-12, T3 for a tube, or R1-R6 for ribbons.'],
  ]);
});

test('a label that is the key of another cable names neither', () => {
  const turned = new Map([
    [cableA.id, { ...cableA, label: 'B' }],
    [cableB.id, { ...cableB, label: 'East' }],
  ]);
  const row = (from: string) =>
    readOrderCsv([header, [from, '1', 'East', '1', '', '']], mapping, closure.entries, turned);
  expect(row('A').problems).toEqual([]);
  expect(row('B').problems.map(({ told }) => told.code)).toEqual(['two-cables']);
});

test('a row may lead to a connector in place of a cable, and then says no more of that side', () => {
  const { lines, problems } = read(
    ['A', '1', 'Fused connector', '', '', 'Ring'],
    ['A', '2', 'fused', '', 'single', 'Ring'],
    ['A', '3', 'mechanical connector', '', '', ''],
  );
  expect(problems).toEqual([]);
  expect(lines.map((line) => writeOrderLine(line, closure.entries))).toEqual([
    'A 1-2 > fused connector : Ring',
    'A 3 > mechanical connector',
  ]);
  const wrong = read(
    ['A', '1', 'fused connector', '5', '', ''],
    ['A', '2', 'fused connector', '', 'ribbon', ''],
  );
  expect(wrong.problems.map(({ row, column, told }) => [row, column, told.code])).toEqual([
    [2, 'To fiber', 'behind-connector'],
    [3, 'Mode', 'behind-connector'],
  ]);
  expect(csvProblemWords(wrong.problems[0]!.told, 'mm')).toBe(
    'A fiber in a connector leads no farther, so “5” has no meaning here. Leave it empty, or name a cable.',
  );
});

test('loose fibers made into ribbons keep the sizes of their rows', () => {
  const rows = [
    ['A', '1-8', 'B', '1-8', 'ribbonized', ''],
    ['A', '9-16', 'B', '9-16', 'ribbonized', ''],
    ['A', '17-24', 'B', '17-24', 'ribbonized', ''],
  ];
  const { lines } = read(...rows);
  const order = lines.map((line, index) => ({ id: id(700 + index), ...line }));
  expect(expandOrder({ ...closure, order }, cables).splices.map(({ left }) => left.length)).toEqual([
    8, 8, 8,
  ]);
});

/** Any order that is written as a table of any sensible columns reads back to the same splices. */
test('what is written as a table reads back to the same splices', () => {
  const anyTable = fc.record({
    construction: anyConstruction,
    through: fc.boolean(),
    ranges: fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 4 }),
    mode: fc.constantFrom('single' as const, 'ribbon' as const, 'ribbonized' as const),
    reversed: fc.boolean(),
    /** Fibers by their numbers in the cable; in their tube; in their ribbon. */
    numbered: fc.constantFrom('cable' as const, 'tube' as const, 'ribbon' as const),
    /** A row for each splice, or for each line of the order. */
    rows: fc.constantFrom('splice' as const, 'line' as const),
    called: fc.constantFrom('key' as const, 'label' as const),
    /** What every second line ends in; null: in the other cable. */
    connector: fc.constantFrom(null, 'mechanical' as const, 'fusion-connector' as const),
  });
  fc.assert(
    fc.property(
      anyTable,
      ({ construction, through, ranges, mode, reversed, numbered, rows, called, connector }) => {
        const count = fiberCount(construction);
        const here: Cable = {
          ...cableA,
          label: 'North trunk',
          construction,
          siteIds: through ? [id(11), id(12), id(13)] : cableA.siteIds,
        };
        const there: Cable = { ...cableB, label: 'South trunk', construction };
        const both = new Map([here, there].map((cable) => [cable.id, cable]));
        const entries: Entry[] = [
          { cableId: here.id, manner: through ? 'express' : 'cut' },
          { cableId: there.id, manner: 'cut' },
        ];
        // Ranges one after the other, so that no fiber is used twice.
        const bounds = [...new Set(ranges.flat().map((number) => (number % count) + 1))].sort(
          (a, b) => a - b,
        );
        const order = bounds.map((from, index): OrderLine => {
          const to = (bounds[index + 1] ?? count + 1) - 1;
          const line = {
            id: id(800 + index),
            left: { cableId: here.id, side: through ? ('low' as const) : ('end' as const), from, to },
          };
          if (connector && index % 2 === 1)
            return { ...line, right: null, connector, mode: 'single', circuit: null };
          return {
            ...line,
            right: { cableId: there.id, side: 'end', from, to },
            mode,
            ...(reversed ? { polarity: 'reversed' as const } : {}),
            circuit: index === 2 ? 'Ring' : null,
          };
        });
        const planned = { ...closure, entries, order };
        const { splices, ends: inConnectors, findings } = expandOrder(planned, both);
        // A ribbon that was written in pieces, which is an error, is whole again when they are read as one.
        fc.pre(findings.every(({ severity }) => severity !== 'error'));

        const units = fiberUnits(construction);
        const byUnit = numbered !== 'cable' && unitsNumbered(construction)[numbered].length > 0;
        const numberOf = (fiber: number): [string, number] => {
          if (!byUnit) return ['', fiber];
          const at = unitsNumbered(construction)[numbered as 'tube' | 'ribbon'].findIndex(
            ({ first, last }) => first <= fiber && fiber <= last,
          );
          const { first } = unitsNumbered(construction)[numbered as 'tube' | 'ribbon'][at]!;
          return [String(at + 1), fiber - first + 1];
        };
        const cells = (cable: Cable, key: string, side: string, fibers: readonly number[]) => {
          const from = Math.min(...fibers);
          const [unit, first] = numberOf(from);
          const [other, last] = numberOf(Math.max(...fibers));
          if (unit !== other) return null;
          return [
            `${called === 'key' ? key : cable.label}${side}`,
            unit,
            first === last ? String(first) : `${first}-${last}`,
          ];
        };
        const kind = `${numbered === 'ribbon' ? 'ribbon' : 'tube'}`;
        const columns = [
          'From cable',
          `From ${kind}`,
          'From fibers',
          'To cable',
          `To ${kind}`,
          'To fibers',
          'Mode',
          'Polarity',
          'Circuit',
        ];
        const spread = (pieces: readonly Pick<PlannedSplice, 'left' | 'right' | 'circuit'>[]) =>
          pieces.map(({ left, right, circuit }) => {
            const a = cells(
              here,
              'A',
              through ? '-' : '',
              left.map(({ fiber }) => fiber),
            );
            const b = cells(
              there,
              'B',
              '',
              right.map(({ fiber }) => fiber),
            );
            // A reversed single in a row of its own is one fiber on both sides.
            const polarity = reversed && (rows === 'line' || mode !== 'single') ? 'reversed' : '';
            return a && b ? [...a, ...b, mode, polarity, circuit ?? ''] : null;
          });
        const joined = order.filter((line) => line.right !== null);
        const asPieces = joined.map(({ left, right, circuit }) => {
          const ends = ({ cableId, from, to }: OrderLine['left'], side: 'low' | 'end') =>
            Array.from({ length: to - from + 1 }, (_, index) => ({ cableId, fiber: from + index, side }));
          return { left: ends(left, through ? 'low' : 'end'), right: ends(right!, 'end'), circuit };
        });
        const endRows = (
          rows === 'line'
            ? order.flatMap(({ left, right }) =>
                right ? [] : [Array.from({ length: left.to - left.from + 1 }, (_, at) => left.from + at)],
              )
            : inConnectors.map(({ fiber }) => [fiber])
        ).map((fibers) => {
          const a = cells(here, 'A', through ? '-' : '', fibers);
          return a && [...a, connectorNames[connector!], '', '', '', '', ''];
        });
        const made = [...spread(rows === 'line' ? asPieces : splices), ...endRows];
        // A range over several tubes cannot be written by its place in one.
        fc.pre(
          made.every((row) => row !== null) && units.length > 0 && fiberPosition(construction, 1).fiber === 1,
        );
        const table = [columns, ...(made as string[][])];
        const readBack = readOrderCsv(table, guessOrderCsv(columns), entries, both);
        expect(readBack.problems).toEqual([]);
        const again = readBack.lines.map((line, index) => ({ id: id(900 + index), ...line }));
        const idsOf = (list: readonly PlannedSplice[]) =>
          list.map(({ id: own, kind: what, circuit }) => [own, what, circuit].join(' ')).sort();
        const read = expandOrder({ ...planned, order: again }, both);
        expect(idsOf(read.splices)).toEqual(idsOf(splices));
        expect(read.ends).toEqual(inConnectors);
      },
    ),
    { numRuns: 300 },
  );
});

import { cables, closure } from '../../../test/example';
import { csvProblemWords } from '../words';
import { guessOrderCsv, readOrderCsv } from './orderCsv';
import { writeOrderLine } from './orderText';

const header = ['From cable', 'From fiber', 'To cable', 'To fiber', 'Mode', 'Circuit'];
const mapping = guessOrderCsv(header);
const read = (...rows: string[][]) => readOrderCsv([header, ...rows], mapping, closure.entries, cables);

test('finds the columns by their names', () => {
  expect(mapping).toEqual({
    leftCable: 0,
    leftFibers: 1,
    rightCable: 2,
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

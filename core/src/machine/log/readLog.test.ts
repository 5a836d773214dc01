import fc from 'fast-check';
import { machine } from '../../../test/gear';
import type { LogRow } from '../link';
import { StandIn } from '../standIn';
import { cellsOf } from './cells';
import { logMappingSchema } from './mapping';
import { proposeMapping } from './propose';
import { numberOf, readLog } from './rows';

/** The memory of a simulated machine after some splices of so many fibers. */
function memory(splices: number, fibers: number): readonly LogRow[] {
  const standIn = new StandIn({
    seed: 9,
    gear: machine,
    aligns: fibers === 1 ? 'cores' : 'grooves',
    pausesBeforeArc: false,
    faults: { coldStripper: 0.2 },
  });
  const start = Date.UTC(2026, 3, 16, 1, 30);
  for (let n = 0; n < splices; n += 1) {
    const pairs = Array.from({ length: fibers }, (_, index) => ({
      left: { key: `a ${n * fibers + index}`, modeField: 9.2 },
      right: { key: `b ${n * fibers + index}`, modeField: 9.2 },
    }));
    const at = start + n * 240_000;
    standIn.command({ do: 'load', splice: `s ${n}`, fibers: pairs }, at);
    standIn.advance(at + 60_000);
    standIn.command({ do: 'take-out' }, at + 60_000);
  }
  return standIn.log(0);
}

interface Dialect {
  readonly delimiter: ',' | ';' | '\t' | '|';
  readonly decimal: '.' | ',';
  readonly row: 'fiber' | 'splice';
  readonly heading: boolean;
  readonly ahead: readonly string[];
  readonly end: '\n' | '\r\n';
}

const zone = 'America/Sao_Paulo';
const localTime = (at: string) => {
  // 3 h behind Greenwich, without changes.
  const [date, time] = new Date(Date.parse(at) - 3 * 3600_000).toISOString().split('T') as [string, string];
  const [year, month, day] = date.split('-');
  return `${day}/${month}/${year} ${time.slice(0, 8)}`;
};

function write(rows: readonly LogRow[], { delimiter, decimal, row, heading, ahead, end }: Dialect): string {
  const figure = (value: number | null, digits: number) =>
    value === null ? '' : value.toFixed(digits).replace('.', decimal);
  const test = (failed: boolean) => (failed ? 'Failed' : 'OK');
  const quoted = (cell: string) => (cell.includes(delimiter) ? `"${cell}"` : cell);
  const fibers = rows[0]!.fibers.length;
  const lines =
    row === 'fiber'
      ? rows.flatMap((one) =>
          one.fibers.map(({ loss, cleaveLeft, cleaveRight }, index) => [
            String(one.splice),
            localTime(one.at),
            String(index + 1),
            figure(loss, 2),
            figure(cleaveLeft, 1),
            figure(cleaveRight, 1),
            test(one.proofTestFailed),
          ]),
        )
      : rows.map((one) => [
          String(one.splice),
          localTime(one.at),
          ...one.fibers.flatMap(({ loss, cleaveLeft, cleaveRight }) => [
            figure(loss, 2),
            figure(cleaveLeft, 1),
            figure(cleaveRight, 1),
          ]),
          test(one.proofTestFailed),
        ]);
  const head =
    row === 'fiber'
      ? [
          'Record No.',
          'Date and time',
          'Fiber',
          'Est. loss (dB)',
          'Cleave angle L',
          'Cleave angle R',
          'Proof test',
        ]
      : [
          'Record No.',
          'Date and time',
          ...Array.from({ length: fibers }, (_, index) => [
            `Loss ${index + 1} (dB)`,
            `Angle left ${index + 1}`,
            `Angle right ${index + 1}`,
          ]).flat(),
          'Proof test',
        ];
  return [
    ...ahead,
    ...[...(heading ? [head] : []), ...lines].map((cells) => cells.map(quoted).join(delimiter)),
  ]
    .map((line) => line + end)
    .join('');
}

const read = (text: string) => {
  const mapping = logMappingSchema.parse(proposeMapping(text, 'utf-8', zone));
  return { mapping, log: readLog(cellsOf(text, mapping), mapping, null) };
};

const ribbons = memory(20, 12);
const singles = memory(40, 1);

test('law: a memory written in any dialect is read as it was by the mapping that is proposed for it', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(ribbons, singles),
      fc.record<Dialect>({
        delimiter: fc.constantFrom(',', ';', '\t', '|'),
        decimal: fc.constantFrom('.', ','),
        row: fc.constantFrom('fiber', 'splice'),
        heading: fc.constant(true),
        ahead: fc.constantFrom([], ['Memory of machine 7', '']),
        end: fc.constantFrom('\n', '\r\n'),
      }),
      (rows, dialect) => {
        const { log } = read(write(rows, dialect));
        expect(log.findings).toEqual([]);
        expect(
          log.splices.map(({ number, at, proofTestFailed, readings }) => [
            number,
            at,
            proofTestFailed,
            readings.map(({ loss, cleaveLeft, cleaveRight }) => [loss, cleaveLeft, cleaveRight]),
          ]),
        ).toEqual(
          rows.map(({ splice, at, proofTestFailed, fibers }) => [
            String(splice),
            Math.floor(Date.parse(at) / 1000) * 1000,
            proofTestFailed,
            fibers.map(({ loss, cleaveLeft, cleaveRight }) => [loss, cleaveLeft, cleaveRight]),
          ]),
        );
      },
    ),
    { numRuns: 60 },
  );
});

test('without headings columns are told by what they hold', () => {
  const { mapping, log } = read(
    write(singles, { delimiter: ';', decimal: ',', row: 'splice', heading: false, ahead: [], end: '\n' }),
  );
  expect(mapping.columns.map(({ holds }) => holds)).toEqual([
    'splice',
    'time',
    'loss',
    'cleaveLeft',
    'cleaveRight',
    null,
  ]);
  expect(log.splices).toHaveLength(40);
});

test('JSON Lines, one object a splice, are read by the paths of their fields', () => {
  const text = ribbons.map((row) => `${JSON.stringify(row)}\n`).join('');
  const { log } = read(text);
  expect(log.splices.map(({ readings }) => readings.map(({ loss }) => loss))).toEqual(
    ribbons.map(({ fibers }) => fibers.map(({ loss }) => loss)),
  );
});

test('columns of fixed width, and losses in thousandths', () => {
  const text = [
    'NO   DATE        TIME      LOSS(mdB)',
    '   1 2026-04-15  22:10:05        31',
    '   2 2026-04-15  23:58:40       104',
    '   3 2026-04-16  00:03:12         8',
  ].join('\n');
  const { mapping, log } = read(text);
  expect([mapping.format, mapping.lossUnit]).toEqual(['fixed', 'mdB']);
  expect(log.splices.map(({ at, readings }) => [new Date(at!).toISOString(), readings[0]!.loss])).toEqual([
    ['2026-04-16T01:10:05.000Z', 0.031],
    ['2026-04-16T02:58:40.000Z', 0.104],
    ['2026-04-16T03:03:12.000Z', 0.008],
  ]);
});

describe('what cannot be read is told with its line, and the rest is read', () => {
  const good = write(ribbons.slice(0, 3), {
    delimiter: ';',
    decimal: ',',
    row: 'fiber',
    heading: true,
    ahead: [],
    end: '\n',
  });
  const mapping = proposeMapping(good, 'utf-8', zone)!;
  const spoiled = (work: (lines: string[]) => void, end = '\n') => {
    const lines = good.trimEnd().split('\n');
    work(lines);
    const log = readLog(cellsOf(lines.join('\n') + end, mapping), mapping, null);
    return {
      found: log.findings.map(({ line, why, cell }) => [line, why, cell]),
      splices: log.splices.length,
    };
  };
  const cell = (line: string, column: number, text: string) => {
    const cells = line.split(';');
    cells[column] = text;
    return cells.join(';');
  };
  // The heading is line 1; the first splice stands on lines 2 to 13.
  test.each<[string, (lines: string[]) => void, readonly (readonly [number, string, string])[], number]>([
    ['no number', (lines) => (lines[4] = cell(lines[4]!, 3, 'x0,03')), [[5, 'no-number', 'x0,03']], 2],
    [
      'a point for a comma',
      (lines) => (lines[4] = cell(lines[4]!, 3, '0.03')),
      [[5, 'no-number', '0.03']],
      2,
    ],
    [
      'a loss that cannot be',
      (lines) => (lines[14] = cell(lines[14]!, 3, '-0,5')),
      [[15, 'range', '-0,5']],
      2,
    ],
    [
      'no time',
      (lines) => (lines[1] = cell(lines[1]!, 1, '31/02/2026 10:00')),
      [[2, 'time', '31/02/2026 10:00']],
      2,
    ],
    [
      'a fiber twice',
      (lines) => (lines[2] = cell(lines[2]!, 2, '1')),
      [
        [3, 'double-fiber', '1'],
        [13, 'missing-fiber', '2'],
      ],
      2,
    ],
    ['a fiber that is missing', (lines) => lines.splice(6, 1), [[12, 'missing-fiber', '6']], 2],
    [
      'too few cells',
      (lines) => (lines[20] = '2;15/04'),
      [
        [21, 'cells', '2;15/04'],
        [25, 'missing-fiber', '8'],
      ],
      2,
    ],
  ])('%s', (_, work, found, splices) => expect(spoiled(work)).toEqual({ found, splices }));

  test('a file that was not written to its end', () => {
    const cut = spoiled((lines) => (lines[36] = lines[36]!.slice(0, 12)), '');
    expect(cut).toEqual({ found: [[37, 'cut-off', '']], splices: 3 });
  });

  test('a quote that is not closed', () => {
    const { found } = spoiled((lines) => (lines[30] = `"${lines[30]}`));
    expect(found.map(([line, why]) => [line, why])).toContainEqual([31, 'open-quote']);
  });
});

test('a text that is no log has no mapping', () => {
  for (const text of ['', '\n\n', 'hello', 'a;b\nc;d\n', '{"a":1}\n', '<html><body>1,2</body></html>'])
    expect(proposeMapping(text, 'utf-8', zone)).toBeNull();
});

test('law: whatever the text, it is read or told, and nothing is thrown', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 300 }), fc.constantFrom(',', ';', '\n', '"'), (text, glue) => {
      const odd = [text, '1;2;0,03', text].join(glue);
      const mapping = proposeMapping(odd, 'utf-8', zone);
      if (mapping) readLog(cellsOf(odd, mapping), mapping, '2026-04-15');
    }),
  );
});

test.each([
  ['0,03', ',', 0.03],
  ['0.03 dB', '.', 0.03],
  ['.5', '.', 0.5],
  ['12 µm', '.', 12],
  ['0.03', ',', null],
  ['<0.01', '.', null],
  ['1,234.5', '.', null],
  ['', '.', null],
] as const)('“%s” with “%s” is %s', (text, decimal, value) => expect(numberOf(text, decimal)).toBe(value));

import fc from 'fast-check';
import type { RecordedTry } from './alignTries';
import { labelFinder } from './labelFinder';
import { matchLog, type LogMatching, type MatchTarget } from './matchLog';
import type { LogSplice } from './rows';

const t0 = Date.parse('2026-04-15T01:00:00.000Z');
const minutes = (count: number) => count * 60_000;

const row = (number: number, loss: number | readonly number[], more: Partial<LogSplice> = {}): LogSplice => ({
  lines: [number + 1],
  number: String(number),
  at: t0 + minutes(3 * number),
  doubt: null,
  label: '',
  program: '',
  proofTestFailed: false,
  readings: (typeof loss === 'number' ? [loss] : loss).map((one) => ({
    loss: one,
    cleaveLeft: null,
    cleaveRight: null,
    offset: null,
    gap: null,
  })),
  ...more,
});
let made = 0;
const tried = (
  loss: number | readonly number[],
  minute: number,
  more: Partial<RecordedTry> = {},
): RecordedTry => ({
  id: `try ${(made += 1)}`,
  at: t0 + minutes(minute),
  losses: typeof loss === 'number' ? [loss] : loss,
  proofTestFailed: false,
  source: 'hand',
  origin: null,
  elsewhere: false,
  ...more,
});
const target = (slot: number, tries: readonly RecordedTry[] = [], fibers = 1): MatchTarget => ({
  id: `slot ${slot}`,
  tray: 1,
  slot,
  leftFibers: Array.from({ length: fibers }, (_, index) => (slot - 1) * fibers + index + 1),
  circuit: null,
  tries,
  open: tries.length === 0,
  limit: 0.1,
});
const told = ({ matches }: LogMatching) =>
  matches.map(({ what, splice, row: index }) => [what, splice, index]);

describe('what comes out', () => {
  test('agrees, fills a gap, differs, extra and missing, each where it belongs', () => {
    const targets = [
      target(1, [tried(0.03, 4)]),
      target(2, [tried(0.05, 7)]),
      target(3),
      target(4, [tried(0.04, 13)]),
      target(5, [tried(0.02, 16)]),
    ];
    const log = [row(1, 0.03), row(2, 0.06), row(3, 0.01), row(4, 0.04), row(6, [0.02, 0.03])];
    expect(told(matchLog(log, targets, { by: 'time' }))).toEqual([
      ['agrees', 'slot 1', 0],
      ['differs', 'slot 2', 1],
      ['fills', 'slot 3', 2],
      ['agrees', 'slot 4', 3],
      ['missing', 'slot 5', null],
      ['extra', null, 4],
    ]);
  });

  test('an empty closure is filled in the order of work; after a reading over the limit the next row is another try of it', () => {
    const targets = [1, 2, 3].map((slot) => target(slot));
    const log = [row(1, 0.03), row(2, 0.3), row(3, 0.02), row(4, 0.04)];
    const { matches } = matchLog(log, targets, { by: 'order' });
    expect(matches.map(({ splice, doubt }) => [splice, doubt])).toEqual([
      ['slot 1', null],
      ['slot 2', null],
      ['slot 2', 'again'],
      ['slot 3', null],
    ]);
  });

  test('the try that mended what was entered by hand is of the same splice', () => {
    const redo = { ...target(1, [tried(0.3, 4)]), open: true };
    expect(told(matchLog([row(1, 0.3), row(2, 0.02)], [redo, target(2)], { by: 'order' }))).toEqual([
      ['agrees', 'slot 1', 0],
      ['fills', 'slot 1', 1],
    ]);
  });

  test('it begins where a person says', () => {
    const targets = [1, 2, 3].map((slot) => target(slot));
    expect(told(matchLog([row(1, 0.03)], targets, { by: 'order', from: 'slot 2' }))).toEqual([
      ['fills', 'slot 2', 0],
    ]);
  });

  test('by label: tray and slot, the fiber, a ribbon’s fibers, a circuit; what fits two splices fits none', () => {
    const ribbons = [1, 2].map((slot) => target(slot, [], 12));
    const singles = [3, 4].map((slot) => ({ ...target(slot), circuit: slot === 3 ? 'School' : null }));
    const find = labelFinder([...ribbons, ...singles, { ...target(4), id: 'branch', tray: 2 }]);
    const found = (label: string, fibers = 1) => find(label, fibers)?.id ?? null;
    expect([found('T1 S3'), found('1/3'), found('school'), found('SCHOOL '), found('3')]).toEqual(
      Array(5).fill('slot 3'),
    );
    expect([found('1-1', 12), found('A 13-24', 12), found('13', 12)]).toEqual(['slot 1', 'slot 2', 'slot 2']);
    // Fiber 4 is in two cables.
    expect([found('4'), found('1-1'), found(''), found('new')]).toEqual([null, null, null, null]);
    expect(found('2.4')).toBe('branch');
  });

  test('by label, several tries of a splice are compared with those on record, in their order', () => {
    const targets = [target(1, [tried(0.02, 9)]), target(2)];
    const log = [
      row(1, 0.3, { label: 'T1 S1' }),
      row(2, 0.02, { label: 't1 s1' }),
      row(3, 0.05, { label: '1-2' }),
    ];
    expect(told(matchLog(log, targets, { by: 'label' }))).toEqual([
      ['fills', 'slot 1', 0],
      ['agrees', 'slot 1', 1],
      ['fills', 'slot 2', 2],
    ]);
  });

  test('what was made with another machine is not compared, and a machine that shows no seconds is known again', () => {
    const origin = { splice: null, at: t0 + minutes(3) + 20_000 };
    const targets = [
      target(1, [tried(0.03, 4, { source: 'machine', origin })]),
      target(2, [tried(0.04, 7, { elsewhere: true })]),
    ];
    expect(told(matchLog([row(1, 0.03, { number: '' })], targets, { by: 'time' }))).toEqual([
      ['known', 'slot 1', 0],
    ]);
  });

  test('numbers that began anew are told apart by their time', () => {
    const origin = { splice: 1, at: t0 - minutes(60 * 24) };
    const targets = [target(1, [tried(0.03, -60 * 24, { source: 'log', origin })]), target(2)];
    expect(told(matchLog([row(1, 0.03)], targets, { by: 'order' }))).toEqual([['fills', 'slot 2', 0]]);
  });
});

describe('laws, over nights of any kind', () => {
  /** A night: each splice with its tries, what of them was entered by hand, and rightly or not. */
  const night = fc.record({
    splices: fc.array(
      fc.record({
        loss: fc.integer({ min: 0, max: 9 }),
        redo: fc.constantFrom(0, 0, 0, 0, 1),
        entered: fc.constantFrom(true, true, true, false),
        typo: fc.constantFrom(false, false, false, false, false, true),
        /** Until the splice before was done, s. */
        took: fc.integer({ min: 150, max: 700 }),
      }),
      { minLength: 5, maxLength: 40 },
    ),
    /** The machine's clock is off by so many minutes. */
    off: fc.integer({ min: -200, max: 200 }),
  });
  function played({ splices, off }: typeof night extends fc.Arbitrary<infer N> ? N : never) {
    const log: LogSplice[] = [];
    const truth: { splice: string; entered: boolean; typo: boolean }[] = [];
    let clock = 0;
    const targets = splices.map((one, index): MatchTarget => {
      const losses = [...(one.redo ? [0.31] : []), one.loss / 100];
      const tries = losses.flatMap((loss) => {
        clock += one.took / 60;
        log.push(row(log.length + 1, loss, { at: t0 + minutes(clock - off) }));
        truth.push({ splice: `slot ${index + 1}`, entered: one.entered, typo: one.typo });
        return one.entered ? [tried(one.typo ? loss + 0.4 : loss, clock + 1)] : [];
      });
      return { ...target(index + 1, tries), open: tries.length === 0 };
    });
    return { log, targets, truth };
  }

  test('by time, each row that was entered is compared with its own entry, and each other one fills its own splice', () => {
    fc.assert(
      fc.property(night, (given) => {
        const { log, targets, truth } = played(given);
        // With too few entries nobody can tell how the clocks differ.
        fc.pre(truth.filter(({ entered, typo }) => entered && !typo).length >= 5);
        const { matches } = matchLog(log, targets, { by: 'time' });
        const rows = matches.filter(({ row: index }) => index !== null);
        rows.forEach(({ what, splice }, index) => {
          const { entered, typo, splice: own } = truth[index]!;
          expect([splice, what]).toEqual([own, entered ? (typo ? 'differs' : 'agrees') : 'fills']);
        });
        expect(matches.some(({ what }) => what === 'missing')).toBe(false);
      }),
    );
  });

  test('a log that is written newest first, or in any order, is matched as if it were in order', () => {
    fc.assert(
      fc.property(night, fc.infiniteStream(fc.nat()), (given, random) => {
        const { log, targets } = played(given);
        const mixed = log
          .map((row) => [row, random.next().value] as const)
          .sort(([, a], [, b]) => a - b)
          .map(([row]) => row);
        const said = (rows: readonly LogSplice[], by: 'time' | 'order') =>
          matchLog(rows, targets, { by }).matches.map(({ row: index, ...match }) => ({
            ...match,
            number: index === null ? null : rows[index]!.number,
          }));
        for (const by of ['time', 'order'] as const) {
          const inOrder = said(log, by);
          expect(said(mixed, by)).toEqual(inOrder);
          const untimed = log.map((row) => ({ ...row, at: null }));
          expect(said([...untimed].reverse(), by)).toEqual(said(untimed, by));
        }
      }),
    );
  });

  test('whatever the log: each row stands once and in order, each try is compared once, no gap is filled by rows of another size', () => {
    const any = fc.record({
      rows: fc.array(fc.record({ loss: fc.nat(30), two: fc.boolean(), at: fc.option(fc.nat(400)) }), {
        maxLength: 30,
      }),
      targets: fc.array(
        fc.record({ losses: fc.array(fc.nat(30), { maxLength: 2 }), two: fc.boolean(), at: fc.nat(400) }),
        { maxLength: 30 },
      ),
      by: fc.constantFrom('order', 'time', 'label' as const),
    });
    fc.assert(
      fc.property(any, ({ rows, targets: drafts, by }) => {
        const log = rows.map(({ loss, two, at }, index) =>
          row(index + 1, two ? [loss / 100, 0.01] : loss / 100, {
            at: at === null ? null : t0 + minutes(at),
          }),
        );
        const targets = drafts.map(({ losses, two, at }, index) =>
          target(
            index + 1,
            losses.map((loss, nth) => tried(two ? [loss / 100, 0.01] : loss / 100, at + nth)),
            two ? 2 : 1,
          ),
        );
        const { matches } = matchLog(log, targets, { by });
        const stands = matches.flatMap(({ row: index }) => index ?? []);
        const timed = log.every((one) => one.at !== null);
        // As they were made; with no times to tell, as they stand in the file.
        expect(stands).toEqual(
          log.map((_, index) => index).sort((a, b) => (timed ? log[a]!.at! - log[b]!.at! : 0) || a - b),
        );
        const compared = matches.flatMap(({ tryId }) => tryId ?? []);
        expect(new Set(compared).size).toBe(compared.length);
        for (const { row: index, splice } of matches)
          if (index !== null && splice !== null)
            expect(log[index]!.readings.length).toBe(
              targets.find(({ id }) => id === splice)!.leftFibers.length,
            );
      }),
    );
  });

  test('a log that is on record adds nothing, and a longer one only what is new', () => {
    fc.assert(
      fc.property(night, fc.nat(10), (given, more) => {
        const { log, targets, truth } = played(given);
        const stored = targets.map((one): MatchTarget => {
          const tries = log.flatMap((own, index) =>
            truth[index]!.splice === one.id
              ? [
                  tried(
                    own.readings.map(({ loss }) => loss!),
                    0,
                    {
                      at: own.at!,
                      source: 'log',
                      origin: { splice: Number(own.number), at: own.at },
                    },
                  ),
                ]
              : [],
          );
          return { ...one, tries, open: false };
        });
        const after = Array.from({ length: more }, (_, index) => target(1000 + index));
        const longer = [
          ...log,
          ...after.map((_, index) =>
            row(log.length + index + 1, 0.02, { at: log.at(-1)!.at! + minutes(4 * (index + 1)) }),
          ),
        ];
        for (const by of ['order', 'time'] as const)
          expect(
            matchLog(longer, [...stored, ...after], { by }).matches.map(({ what, splice }) => [what, splice]),
          ).toEqual([
            ...truth.map(({ splice }) => ['known', splice]),
            ...after.map(({ id }) => ['fills', id]),
          ]);
      }),
    );
  });
});

test('seven thousand rows against as many tries and gaps', () => {
  const targets = Array.from({ length: 7000 }, (_, index) =>
    target(index + 1, index % 3 ? [tried((index % 10) / 100, index * 3)] : []),
  );
  const log = targets.map((_, index) =>
    row(index + 1, (index % 10) / 100, { at: t0 + minutes(index * 3 - 1) }),
  );
  const { matches } = matchLog(log, targets, { by: 'time' });
  expect(matches.every(({ splice }, index) => splice === `slot ${index + 1}`)).toBe(true);
});

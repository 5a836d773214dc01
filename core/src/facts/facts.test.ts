import fc from 'fast-check';
import { attempt, factAfter, id, spliceAt, subjectOf, timeOf } from '../../test/example';
import { readProjectFile, writeProjectFile } from '../handover/projectFile';
import { buildLedger } from '../splice/record/ledger';
import { planClosure } from '../plan/trays/closurePlan';
import { isDone, measured, prepareState, tickOf, tickTargets } from '../prepare/steps/tickTargets';
import {
  closureOf,
  concernsGear,
  factVersion,
  isSpliceFact,
  knownFact,
  readFact,
  sameFact,
  type Fact,
} from './registry';
import { spliceIdOf } from './subject';

/** Written by Cordel 0.1 itself: the demo after an evening at the bench, and the storage of a phone that was offline. */
const oldFile: {
  project: { limits: Parameters<typeof buildLedger>[2] };
  facts: { fact: { id: string; kind: string; about?: string; closureId: string; spliceId?: string } }[];
} = jest.requireActual('../../test/fixtures/project-format-1.json');
const oldStorage: Record<string, string> = jest.requireActual('../../test/fixtures/device-storage-1.json');
const outbox = Object.entries(oldStorage)
  .filter(([key]) => key.startsWith('cordel.outbox.'))
  .map(([, text]) => (JSON.parse(text) as { fact: { id: string; closureId: string } }).fact);

describe('what Cordel 0.1 wrote', () => {
  const { file } = readProjectFile(oldFile);
  const facts = (file?.facts ?? []).map((stored) => stored.fact as Fact);

  test('is read to the last fact', () => {
    expect(facts.map((fact) => fact.id)).toEqual(oldFile.facts.map(({ fact }) => fact.id));
    expect(facts.map((fact) => readFact(fact).status)).toEqual(facts.map(() => 'known'));
    expect(facts.map(closureOf)).toEqual(oldFile.facts.map(({ fact }) => fact.closureId));
  });

  test('keeps every splice with its facts: nothing becomes unplanned, and the figures are those of 0.1', () => {
    const cables = new Map(file!.cables.map((cable) => [cable.id, cable]));
    const books = file!.closures.map((closure) =>
      buildLedger(
        planClosure(closure, cables),
        facts.filter((fact) => closureOf(fact) === closure.id),
        oldFile.project.limits,
      ),
    );
    expect(books.map((book) => book.unplanned.size)).toEqual(books.map(() => 0));
    const spliced = new Set(oldFile.facts.map(({ fact }) => fact.spliceId).filter(Boolean));
    const touched = books
      .flatMap((book) => book.trays.flatMap((tray) => tray.splices))
      .filter((state) => state.facts.length > 0);
    expect(touched).toHaveLength(spliced.size);
    // U1 "Ponte" was handed over: 96 of 96, as the demo's own shelf said.
    expect(books.map((book) => book.rollUp.settled).sort((a, b) => b - a)[0]).toBe(96);
  });

  test('keeps ticks, marks and measurements under what they are about', () => {
    const old = (about: string) => oldFile.facts.find(({ fact }) => fact.about?.startsWith(about))!.fact;
    const at = (closureId: string) => prepareState(facts.filter((fact) => closureOf(fact) === closureId));
    const mark = old('mark ');
    const [, cableId = '', markId = ''] = mark.about!.split(' ');
    const body = tickOf(at(mark.closureId), tickTargets.mark(cableId, markId))!.body;
    expect(body).toMatchObject({ what: 'mark', mark: markId, state: 'done', mm: 101.6 });
    const diameter = old('diameter ');
    expect(measured(at(diameter.closureId), tickTargets.diameter(diameter.about!.split(' ')[1]!))).toBe(12.4);
    const sheath = old('sheath-mark ');
    expect(measured(at(sheath.closureId), tickTargets.sheathNumber(sheath.about!.split(' ')[1]!))).toBe(1252);
    expect(isDone(at(old('sealed').closureId), tickTargets.sealed)).toBe(true);
  });

  test('is written in the format of today and read back the same', () => {
    const text = writeProjectFile(file!, file!.facts);
    const again = readProjectFile(JSON.parse(text));
    expect(again.file!.facts).toHaveLength(oldFile.facts.length);
    expect(writeProjectFile(again.file!, again.file!.facts)).toBe(text);
  });

  test('an unsent outbox is brought up, with the answers that were given', () => {
    const read = outbox.map(readFact);
    expect(read.map((one) => one.status)).toEqual(outbox.map(() => 'known'));
    const bodies = read.flatMap((one) => (one.status === 'known' ? [one.fact.body] : []));
    expect(bodies).toContainEqual({
      what: 'step',
      step: 'find-tubes',
      state: 'done',
      answer: { colors: ['BL'] },
      note: 'color faded, counted twice',
    });
    expect(bodies).toContainEqual({
      what: 'step',
      step: 'degrease',
      state: 'done',
      answer: { count: 8 },
      note: '',
    });
    expect(bodies).toContainEqual({
      what: 'holder',
      tray: 5,
      holder: 1,
      state: 'done',
      answer: { colors: ['BL', 'BL'] },
      note: '',
    });
    expect(bodies).toContainEqual({
      what: 'mark',
      mark: 'strength-member.low',
      mm: -1296.8,
      state: 'done',
      note: '',
    });
  });

  test('a reason that the bench wrote by itself becomes a code', () => {
    const taken = outbox.map(readFact).flatMap((one) => (one.status === 'known' ? [one.fact] : []));
    expect(taken.find((fact) => fact.kind === 'correction')!.body).toMatchObject({
      because: 'taken-back',
      reason: '',
      result: null,
    });
  });

  test.each([
    [
      'ribbonized',
      `ribbonized ${id(1)}.13.low`,
      '12, BL, RD',
      { what: 'ribbonized', answer: { count: 12, colors: ['BL', 'RD'] } },
      { on: 'end', cableId: id(1), fiber: 13, side: 'low' },
    ],
    [
      'a step of one fiber',
      `step ${id(1)}.2.end connector-parts`,
      '2',
      { what: 'step', step: 'connector-parts', answer: { count: 2 } },
      { on: 'end', fiber: 2 },
    ],
    [
      'an answer in words',
      `step ${id(1)} x`,
      'two or three',
      { what: 'step', answer: { words: 'two or three' } },
      { on: 'cable' },
    ],
  ])('%s', (_, about, text, body, subject) => {
    const flat = {
      id: id(1),
      closureId: id(2),
      madeAt: timeOf(1),
      by: null,
      kind: 'tick',
      about,
      state: 'done',
      answer: { text, right: true },
      note: '',
    };
    expect(readFact(flat)).toMatchObject({ status: 'known', fact: { v: 2, body, subject } });
  });
});

test('an attempt of version 2, which had no origin, is what it was, and the same fact as before', () => {
  const now = attempt(0, 0.02);
  const before = { ...now, v: 2 };
  expect(readFact(before)).toEqual({ status: 'known', fact: now });
  expect(sameFact(before, now)).toBe(true);
  expect(sameFact({ ...before, by: 'Davi' }, now)).toBe(false);
});

describe('what a newer Cordel wrote', () => {
  const newer = {
    ...attempt(0, 0.02),
    v: factVersion('attempt') + 1,
    body: { everything: ['is', { other: 1 }] },
  };
  const kind = { ...newer, v: 1, kind: 'seal-test', subject: { on: 'closure', closureId: id(21), port: 3 } };

  test('is kept as it came, and counts for nothing', () => {
    expect(readFact(newer)).toEqual({ status: 'unknown', fact: newer });
    expect(readFact(kind)).toEqual({ status: 'unknown', fact: kind });
    expect(knownFact(newer)).toBeNull();
    expect(closureOf(kind)).toBe(id(21));
  });

  test.each([
    ['with a character that cannot be stored', { note: 'a\0b' }],
    ['with half a character', { note: '\ud83d' }],
    ['with such a field name', { 'a\0b': 1 }],
    ['longer than a fact can be', { note: 'x'.repeat(70_000) }],
    ['deeper than a fact can be', deep(50_000)],
  ])('is refused %s, and nothing is thrown', (_, body) => {
    expect(readFact({ ...kind, body }).status).toBe('wrong');
  });
});

function deep(levels: number): unknown {
  let value: unknown = 1;
  for (let level = 0; level < levels; level += 1) value = [value];
  return value;
}

describe('whatever it is given', () => {
  test('reading throws nothing, and what is read as known goes through again the same', () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.anything(),
          fc.record({
            v: fc.anything(),
            id: fc.anything(),
            kind: fc.constantFrom('attempt', 'tick', 'new'),
            subject: fc.anything(),
            body: fc.anything(),
          }),
        ),
        (raw) => {
          const read = readFact(raw);
          if (read.status === 'known') expect(readFact(read.fact)).toEqual(read);
        },
      ),
    ));

  test.each([
    ['NUL in a note', { note: 'a\0b' }, 'Some characters of this text are broken. Type it again.'],
    ['half an emoji', { note: 'cold \ud83e' }, 'Some characters of this text are broken. Type it again.'],
    [
      'no loss',
      { readings: [{ loss: null, cleaveLeft: null, cleaveRight: null }], proofTestFailed: false },
      'A splice that passed its proof test has a loss for every fiber.',
    ],
  ])('%s is told in words', (_, wrong, message) => {
    expect(readFact(attempt(0, 0.02, wrong))).toMatchObject({ status: 'wrong', message });
  });

  test('whole emoji, and identifiers in capitals, are fine and count', () => {
    const shouting = attempt(0, 0.02, { note: 'cold 🥶' });
    const upper = JSON.parse(JSON.stringify(shouting).replaceAll(id(1), id(1).toUpperCase())) as unknown;
    const read = readFact(upper);
    expect(read.status === 'known' && isSpliceFact(read.fact) && spliceIdOf(read.fact)).toBe(spliceAt(0).id);
  });

  test.each(['0000-01-01T00:00:00.000Z', '9999-12-31T00:00:00.000Z', '2026-04-14'])(
    '%s is no time of a fact',
    (madeAt) => expect(readFact(attempt(0, 0.02, { madeAt })).status).toBe('wrong'),
  );

  test('readings that are not one each of the splice are refused', () => {
    const end = (fiber: number) => ({ ...spliceAt(0).left[0]!, fiber });
    const two = subjectOf({ left: [end(1), end(2)], right: [end(3), end(4)] });
    expect(readFact(attempt(0, 0.02, { subject: two }))).toMatchObject({
      status: 'wrong',
      path: ['body', 'readings'],
    });
  });

  test('a tick where such a thing cannot be ticked is refused', () => {
    const tick = {
      ...factAfter(attempt(0, 0.02)),
      kind: 'tick',
      subject: { on: 'closure', closureId: id(21) },
      body: { what: 'mark', mark: 'x', mm: 1, state: 'done', note: '' },
    };
    expect(readFact(tick)).toMatchObject({ status: 'wrong', message: 'This cannot be ticked there.' });
  });
});

test('which facts count for gear follows from their kinds', () => {
  const used = attempt(0, 0.02, { gear: { machine: { id: id(9), label: 'M' } } });
  const back = (result: null | { readings: []; proofTestFailed: true; note: '' }): Fact => ({
    ...factAfter(used),
    kind: 'correction',
    body: { attemptId: used.id, result, reason: 'x' },
  });
  expect(
    [attempt(0, 0.02), used, back(null), back({ readings: [], proofTestFailed: true, note: '' })].map(
      concernsGear,
    ),
  ).toEqual([false, true, true, true]);
});

test('the same fact is the same whatever order its fields come in', () => {
  const fact = attempt(0, 0.02, { by: 'Iara' });
  const turned = Object.fromEntries(Object.entries(fact).reverse()) as never;
  expect(sameFact(fact, turned)).toBe(true);
  expect(sameFact(fact, { ...fact, by: 'Davi' })).toBe(false);
});

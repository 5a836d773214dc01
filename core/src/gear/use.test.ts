import fc from 'fast-check';
import { attempt, factAfter, id, isFact, limits, refusalOf } from '../../test/example';
import { calibration, cleaver, machine } from '../../test/gear';
import { readFact, type Fact } from '../facts';
import { gearBook, joinBooks, useOf } from './use';

const gear = {
  machine: { id: machine.id, label: machine.label },
  cleaver: { id: cleaver.id, label: cleaver.label },
};

test('an attempt says what made it, and whether it was bad', () => {
  expect(useOf(attempt(0, 0.04, { gear }), limits)).toMatchObject({
    machine: machine.id,
    cleaver: cleaver.id,
    fibers: 1,
    bad: false,
  });
  expect(useOf(attempt(0, 0.11, { gear }), limits)!.bad).toBe(true);
  expect(useOf(attempt(0, 0.1, { gear }), limits)!.bad).toBe(false);
  expect(useOf(attempt(0, null, { gear: { ...gear, cladding: 400 } }), limits)).toMatchObject({
    bad: true,
    cladding: 400,
  });
  expect(useOf(attempt(0, 0.04), limits)).toBeNull();
});

test('what was taken back is told, and a fact of the gear is taken as it is', () => {
  const wrong = attempt(0, 0.3, { gear });
  const back: Fact = {
    ...factAfter(wrong),
    kind: 'correction',
    body: {
      attemptId: wrong.id,
      result: null,
      reason: 'mistake',
    },
  };
  const done = calibration(1);
  expect(gearBook([back, wrong, done], limits)).toMatchObject({
    withdrawn: [wrong.id],
    facts: [done],
    uses: [{ id: wrong.id }],
  });
});

/** What was recorded of it later. */
const recorded = (typed: Extract<Fact, { kind: 'attempt' }>): Fact => ({
  ...factAfter(typed),
  kind: 'correction',
  body: {
    attemptId: typed.id,
    result: { readings: typed.body.readings, proofTestFailed: false, note: '' },
    reason: 'typed',
  },
});

test('a correction tells how it was in truth; a sleeve that was forgotten says nothing about the arc', () => {
  const typed = attempt(0, 0.3, { gear });
  const { readings, proofTestFailed, note } = typed.body;
  const corrected = (result: object): Fact => ({
    ...factAfter(typed),
    kind: 'correction',
    body: { attemptId: typed.id, result: { readings, proofTestFailed, note, ...result }, reason: 'typed' },
  });
  const bad = (fact: Fact) => gearBook([typed, fact], limits).corrected;
  expect(bad(corrected({ readings: [{ ...readings[0]!, loss: 0.03 }] }))).toMatchObject([
    { attemptId: typed.id, bad: false },
  ]);
  expect(bad(corrected({}))).toMatchObject([{ bad: true }]);
  expect(useOf(attempt(0, 0.04, { gear, sleeveForgotten: true }), limits)!.bad).toBe(false);
});

test('books joined in any order and with doubles are the book of all facts', () => {
  const facts: Fact[] = Array.from({ length: 12 }, (_, index) =>
    index % 3 === 2
      ? calibration(index)
      : index % 4 === 3
        ? recorded(attempt(index, 0.3, { gear }))
        : attempt(index, 0.05, { gear }),
  );
  fc.assert(
    fc.property(fc.array(fc.subarray(facts), { maxLength: 4 }), (parts) => {
      const all = [...new Map(parts.flat().map((fact) => [fact.id, fact])).values()];
      expect(joinBooks(...parts.map((part) => gearBook(part, limits)))).toEqual(gearBook(all, limits));
    }),
  );
});

test('facts of the gear go through the schema, and what cannot be is refused in words', () => {
  const good = calibration(1);
  expect(readFact(good)).toEqual({ status: 'known', fact: good });
  const { conditions } = good.body;
  const bad = { ...good, body: { ...good.body, conditions: { ...conditions, temperature: 250 } } };
  expect(refusalOf(bad)).toBe('Temperature is at most 70 °C.');
  expect(isFact(attempt(0, 0.04, { gear: { machine: { id: id(1), label: ' ' } } }))).toBe(false);
});

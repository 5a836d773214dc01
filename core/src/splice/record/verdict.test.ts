import fc from 'fast-check';
import { attempt, factAfter, limits } from '../../../test/example';
import type { Attempt, OwnerAnswer, SpliceFact } from '../../facts';
import { spliceHistory, spliceOrder } from './history';
import { cleaveReasons, judgeSplice, triesLeft } from './verdict';
import { reasonWords } from '../words';

const judge = (...facts: SpliceFact[]) => judgeSplice(spliceHistory(spliceOrder(facts)), 'single', limits);
const codes = (verdict: ReturnType<typeof judge>) => verdict.reasons.map((reason) => reason.code);
const answer = (about: Attempt, given: OwnerAnswer['body']['answer']): OwnerAnswer => ({
  ...factAfter(about),
  v: 3,
  kind: 'owner-answer',
  body: {
    attemptId: about.id,
    answer: given,
    note: '',
  },
});

test('nothing yet is open', () => expect(judge()).toMatchObject({ mark: 'open', tries: 0 }));

test.each([0, 0.03, 0.1])('%p dB of 0.10 holds', (loss) =>
  expect(judge(attempt(0, loss))).toMatchObject({ mark: 'holds', reasons: [] }),
);

test('over the limit is a redo with its numbers', () => {
  const verdict = judge(attempt(0, 0.14));
  expect(verdict).toMatchObject({ mark: 'redo', tries: 1 });
  expect(triesLeft(verdict, limits)).toBe(2);
  expect(reasonWords(verdict.reasons[0]!)).toBe('0.14 dB is over 0.10 dB.');
});

test('the last attempt counts, not the best', () => {
  expect(judge(attempt(0, 0.02), attempt(0, 0.2)).mark).toBe('redo');
  expect(judge(attempt(0, 0.2), attempt(0, 0.02)).mark).toBe('holds');
});

test('when the tries are used up it is the owner’s call', () => {
  const verdict = judge(attempt(0, 0.14), attempt(0, 0.13), attempt(0, 0.12));
  expect(verdict).toMatchObject({ mark: 'owner', tries: 3 });
  expect(triesLeft(verdict, limits)).toBe(0);
  expect(codes(verdict)).toEqual(['loss', 'tries-used']);
});

test('a failed proof test is a redo whatever the loss, however many tries', () => {
  expect(judge(attempt(0, 0.01, { proofTestFailed: true })).mark).toBe('redo');
  const worn = [0.2, 0.2, 0.2].map((loss) => attempt(0, loss));
  const broken = attempt(0, null);
  expect(judge(...worn, broken).mark).toBe('redo');
  expect(judge(...worn, broken, answer(broken, 'allow')).mark).toBe('redo');
});

test('a forgotten sleeve is a redo with that reason, also when it is noticed later, and the owner cannot allow it', () => {
  const forgotten = attempt(0, 0.02, { sleeveForgotten: true });
  expect(judge(forgotten)).toMatchObject({ mark: 'redo', tries: 1 });
  expect(codes(judge(forgotten))).toEqual(['sleeve']);
  expect(judge(forgotten, answer(forgotten, 'allow')).mark).toBe('redo');
  const good = attempt(0, 0.02);
  const noticed: SpliceFact = {
    ...factAfter(good),
    kind: 'correction',
    body: {
      attemptId: good.id,
      reason: 'Sleeve forgotten',
      result: { readings: good.body.readings, proofTestFailed: false, sleeveForgotten: true, note: '' },
    },
  };
  expect(codes(judge(good, noticed))).toEqual(['sleeve']);
  expect(judge(good, noticed, attempt(0, 0.03)).mark).toBe('holds');
});

test.each([
  [{ cleaveLeft: 1.1 }, ['cleave-left']],
  [{ cleaveRight: 1.4 }, ['cleave-right']],
  [{ cleaveLeft: 1.1, cleaveRight: 1.4 }, ['cleave-left', 'cleave-right']],
])('a cleave angle over 1° asks to recleave that side: %p', (angles, expected) => {
  const verdict = judge(attempt(0, 0.02, angles));
  expect(verdict.mark).toBe('redo');
  expect(codes(verdict)).toEqual(expected);
});

test('a cleave angle at its limit is fine, and can be checked before the arc', () => {
  expect(cleaveReasons({ cleaveLeft: 1, cleaveRight: null }, limits)).toEqual([]);
  const [reason] = cleaveReasons({ cleaveLeft: 1.6, cleaveRight: null }, limits);
  expect(reasonWords(reason!)).toBe('Cleave left 1.6° is over 1.0°. Recleave the left end before fusing.');
});

describe('the owner', () => {
  const high = attempt(0, 0.14);

  test('can be left an attempt before the tries are used up', () =>
    expect(judge(high, answer(high, 'ask')).mark).toBe('owner'));
  test('can allow it', () => expect(judge(high, answer(high, 'allow')).mark).toBe('allowed'));
  test('can want it done again', () => expect(judge(high, answer(high, 'redo')).mark).toBe('redo'));
  test('has said nothing of a later try', () =>
    expect(judge(high, answer(high, 'allow'), attempt(0, 0.15)).mark).toBe('redo'));
  test('has said nothing of a corrected reading', () => {
    const allowed = answer(high, 'allow');
    const corrected: SpliceFact = {
      ...factAfter(high),
      kind: 'correction',
      body: {
        attemptId: high.id,
        result: {
          readings: [{ loss: 0.4, cleaveLeft: null, cleaveRight: null }],
          proofTestFailed: false,
          note: '',
        },
        reason: 'misread',
      },
    };
    expect(judge(high, allowed, corrected).mark).toBe('redo');
  });
});

test('a correction replaces the reading, and taking it back undoes the try', () => {
  const high = attempt(0, 0.14);
  const correct = (result: Attempt['body']['readings'] | null): SpliceFact => ({
    ...factAfter(high),
    kind: 'correction',
    body: {
      attemptId: high.id,
      result: result && { readings: result, proofTestFailed: false, note: '' },
      reason: 'misread',
    },
  });
  expect(judge(high, correct([{ loss: 0.04, cleaveLeft: null, cleaveRight: null }])).mark).toBe('holds');
  const taken = correct(null);
  expect(judge(high, taken)).toMatchObject({ mark: 'open', tries: 0 });
  expect(spliceHistory([high, taken]).withdrawn.map((one) => one.fact.id)).toEqual([high.id]);
});

test('facts mean the same in whatever order they arrive', () => {
  const first = attempt(0, 0.14);
  const second = attempt(0, 0.12);
  const facts = [first, second, answer(second, 'allow')];
  fc.assert(
    fc.property(fc.shuffledSubarray(facts, { minLength: 3 }), (shuffled) => {
      expect(judge(...shuffled)).toEqual(judge(...facts));
    }),
  );
});

test('under a looser limit nothing that held is redone', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 5 }),
      fc.double({ min: 0.01, max: 0.5, noNaN: true }),
      fc.double({ min: 0, max: 0.5, noNaN: true }),
      (losses, tight, more) => {
        const history = spliceHistory(losses.map((loss) => attempt(0, loss)));
        const at = (singleMax: number) => judgeSplice(history, 'single', { ...limits, singleMax }).mark;
        if (at(tight) === 'holds') expect(at(tight + more)).toBe('holds');
      },
    ),
  );
});

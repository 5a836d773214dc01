import fc from 'fast-check';
import { attempt, factAfter, id, limits, plan, spliceAt, subjectOf, timeOf } from '../../../test/example';
import { compareFacts, factVersion, readFact, spliceIdOf, type Attempt, type Fact } from '../../facts';
import { addFact, allFacts, buildLedger, findSplice, rejudge } from './ledger';
import { needsSplicing, nextOnTray, nextSplice } from '../bench/workOrder';

/** A splice that is not planned. */
const gone = { left: [{ ...spliceAt(0).left[0]!, fiber: 99 }], right: spliceAt(0).right };

/** Attempts, corrections and answers at a few splices, some of them not in the plan. */
const someFacts: fc.Arbitrary<Fact[]> = fc
  .array(
    fc.record({
      splice: fc.integer({ min: 0, max: 6 }),
      kind: fc.constantFrom('attempt', 'attempt', 'attempt', 'correction', 'withdrawal', 'allow', 'ask'),
      loss: fc.integer({ min: 0, max: 25 }).map((hundredths) => hundredths / 100),
      minute: fc.integer({ min: 0, max: 50 }),
      about: fc.nat(),
    }),
    { maxLength: 40 },
  )
  .map((drafts) => {
    const facts: Fact[] = [];
    drafts.forEach((draft, index) => {
      const base = {
        v: 2,
        id: id(5000 + index),
        madeAt: timeOf(draft.minute),
        by: null,
        device: null,
        subject: subjectOf(draft.splice === 6 ? gone : spliceAt(draft.splice)),
      };
      const result = {
        readings: [{ loss: draft.loss, cleaveLeft: null, cleaveRight: null }],
        proofTestFailed: false,
        note: '',
      };
      const attempts = facts.filter(
        (fact): fact is Attempt =>
          fact.kind === 'attempt' && spliceIdOf(fact) === spliceIdOf({ subject: base.subject }),
      );
      const about = attempts[draft.about % Math.max(1, attempts.length)];
      if (draft.kind === 'attempt' || !about)
        facts.push({
          ...base,
          v: factVersion('attempt'),
          kind: 'attempt',
          body: { source: 'hand', simulated: true, ...result },
        });
      else if (draft.kind === 'correction' || draft.kind === 'withdrawal')
        facts.push({
          ...base,
          kind: 'correction',
          body: {
            attemptId: about.id,
            result: draft.kind === 'withdrawal' ? null : result,
            reason: 'test',
          },
        });
      else
        facts.push({
          ...base,
          v: 3,
          kind: 'owner-answer',
          body: {
            attemptId: about.id,
            answer: draft.kind === 'allow' ? 'allow' : 'ask',
            note: '',
          },
        });
    });
    return facts;
  });

test('adding facts one by one, in any order, gives the same to the last digit as building from all', () => {
  fc.assert(
    fc.property(
      someFacts.chain((facts) =>
        fc.tuple(fc.constant(facts), fc.shuffledSubarray(facts, { minLength: facts.length })),
      ),
      ([facts, shuffled]) => {
        const grown = shuffled.reduce(addFact, buildLedger(plan, [], limits));
        const built = buildLedger(plan, facts, limits);
        expect(grown.trays).toEqual(built.trays);
        expect(grown.rollUp).toEqual(built.rollUp);
        expect(grown.sortedLosses).toEqual(built.sortedLosses);
        expect(new Map([...grown.unplanned].sort())).toEqual(new Map([...built.unplanned].sort()));
      },
    ),
  );
});

test('a fact that comes twice counts once', () => {
  fc.assert(
    fc.property(someFacts, (facts) => {
      const once = buildLedger(plan, facts, limits);
      expect(facts.reduce(addFact, once)).toBe(once);
      expect(buildLedger(plan, [...facts, ...facts], limits).rollUp).toEqual(once.rollUp);
    }),
  );
});

test('no fact is ever lost, planned or not', () => {
  fc.assert(
    fc.property(someFacts, (facts) => {
      const ids = [...allFacts(buildLedger(plan, facts, limits))].map((fact) => fact.id).sort();
      expect(ids).toEqual(facts.map((fact) => fact.id).sort());
      expect(facts.map(readFact)).toEqual(facts.map((fact) => ({ status: 'known', fact })));
    }),
  );
});

test('marks add up to the plan, and the mean lies between best and worst', () => {
  fc.assert(
    fc.property(someFacts, (facts) => {
      const { rollUp } = buildLedger(plan, facts, limits);
      expect(Object.values(rollUp.marks).reduce((sum, count) => sum + count, 0)).toBe(plan.splices.length);
      if (rollUp.mean === null) return;
      expect(rollUp.mean).toBeLessThanOrEqual(rollUp.worst!.loss + 1e-12);
      expect(rollUp.p95!).toBeGreaterThanOrEqual(rollUp.median!);
    }),
  );
});

test('changing a limit judges everything anew', () => {
  const ledger = buildLedger(plan, [attempt(0, 0.14), attempt(1, 0.02)], limits);
  expect(ledger.rollUp.marks).toMatchObject({ redo: 1, holds: 1, open: 22 });
  expect(rejudge(ledger, { ...limits, singleMax: 0.15 }).rollUp.marks).toMatchObject({ redo: 0, holds: 2 });
});

test('facts of a splice that left the plan stay and are shown as unplanned', () => {
  const stray = attempt(0, 0.03, { subject: subjectOf(gone) });
  const ledger = addFact(buildLedger(plan, [], limits), stray);
  expect([...ledger.unplanned]).toEqual([[spliceIdOf(stray), [stray]]]);
  expect(ledger.rollUp.marks.open).toBe(24);
});

test('sorts by time, then by id', () => {
  const first = attempt(0, 0.1, { minute: 5 });
  const second = { ...factAfter(first), ...attempt(0, 0.2, { minute: 5 }) };
  expect([second, first].sort(compareFacts)).toEqual([first, second]);
});

describe('the next splice', () => {
  test('is the first never spliced, then the first to be done again', () => {
    const all = Array.from({ length: 24 }, (_, index) => attempt(index, index === 3 ? 0.2 : 0.02));
    expect(nextSplice(buildLedger(plan, all.slice(0, 5), limits), null)!.splice.slot).toBe(6);
    const redo = nextSplice(buildLedger(plan, all, limits), null)!;
    expect([redo.splice.slot, needsSplicing(redo)]).toEqual([4, true]);
    const [first, second] = buildLedger(plan, all, limits).trays;
    expect(nextOnTray(first!)!.splice.slot).toBe(4);
    expect(nextOnTray(second!)).toBeNull();
  });

  test('goes on along the cord and comes round to what was skipped', () => {
    const skipped = buildLedger(
      plan,
      Array.from({ length: 23 }, (_, index) => attempt(index + 1, 0.02)),
      limits,
    );
    expect(nextSplice(skipped, spliceAt(23).id)!.splice).toMatchObject({ tray: 1, slot: 1 });
  });

  test('is none when everything is settled', () => {
    const done = buildLedger(
      plan,
      Array.from({ length: 24 }, (_, index) => attempt(index, 0.02)),
      limits,
    );
    expect(nextSplice(done, null)).toBeNull();
    expect(findSplice(done, spliceAt(2).id)!.verdict.mark).toBe('holds');
    expect(findSplice(done, 'unknown')).toBeNull();
  });
});

import fc from 'fast-check';
import {
  attempt,
  cableA,
  cableB,
  factAfter,
  id,
  limits,
  measuredLoss,
  plan,
  refusalOf,
  spliceAt,
  subjectOf,
} from '../../../test/example';
import { factVersion, type MeasuredLoss, type OwnerAnswer, type SpliceFact } from '../../facts';
import type { Limits } from '../../limits/limits';
import { endsOfRuns } from '../../plan/fiberEnd';
import { mismatchLoss } from './spliceLoss';
import { spliceHistory, spliceOrder } from './history';
import { addFact, buildLedger, findSplice } from './ledger';
import { measuredValue } from './measured';
import { asPlanned } from './orientation';
import { judgeSplice } from './verdict';

const wanted: Limits = { ...limits, measured: true };
const verdict = (facts: readonly SpliceFact[], under = wanted) =>
  judgeSplice(spliceHistory(spliceOrder(facts)), 'single', under);

describe('the loss that a measurement gives', () => {
  const otdr = { method: 'otdr', fromLeft: 0.31, fromRight: -0.19 } as const;

  test('is by OTDR the mean of both directions, whatever one of them shows', () =>
    expect(measuredValue(otdr)).toBeCloseTo(0.06, 12));

  // What one direction shows beside the loss is ± 10·lg(w1/w2): the fibers scatter by their mode fields (truth.md, OTDR). It goes out of the mean.
  test('is free of the mode fields', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 8, max: 11, noNaN: true }),
        fc.double({ min: 8, max: 11, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (one, other, offset) => {
          const loss = mismatchLoss(one, other) + offset;
          const apparent = 10 * Math.log10(one / other);
          expect(
            measuredValue({ method: 'otdr', fromLeft: loss + apparent, fromRight: loss - apparent }),
          ).toBeCloseTo(loss, 10);
        },
      ),
    ));

  test('is not known by OTDR from one end, and by power meter it is', () => {
    expect(measuredValue({ ...otdr, fromRight: null })).toBeNull();
    expect(measuredValue({ method: 'power-meter', fromLeft: null, fromRight: 0.07 })).toBe(0.07);
  });
});

describe('a fiber that was measured', () => {
  const tried = attempt(0, 0.04);
  const high = measuredLoss(tried, { fromLeft: 0.2, fromRight: 0.1 });

  test('is judged by it where the owner wants that, and by the estimate where not', () => {
    expect(verdict([tried, high])).toMatchObject({
      mark: 'redo',
      reasons: [{ code: 'measured-loss', params: { limit: 0.1 } }],
    });
    expect(verdict([tried, high], limits).mark).toBe('holds');
    expect(verdict([attempt(0, 0.14)]).mark).toBe('redo');
    const over = attempt(0, 0.14);
    expect(verdict([over, measuredLoss(over)]).mark).toBe('holds');
  });

  test('from one end only is judged by its estimate', () =>
    expect(verdict([tried, measuredLoss(tried, { fromLeft: 0.4, fromRight: null })]).mark).toBe('holds'));

  test('is judged anew by a later measurement, and by the estimate when it is taken back', () => {
    const again = measuredLoss(tried);
    expect(verdict([tried, high, again]).mark).toBe('holds');
    const back = measuredLoss(tried, { fromLeft: null, fromRight: null });
    expect(spliceHistory(spliceOrder([tried, high, back])).measured).toEqual([]);
  });

  test('is another joint after a new try', () => {
    const next = attempt(0, 0.03);
    expect(verdict([tried, high, next]).mark).toBe('holds');
    // It is written of the old joint, later.
    expect(verdict([tried, next, measuredLoss(tried, { fromLeft: 0.5, fromRight: 0.5 })]).mark).toBe('holds');
  });

  test('that was allowed before is asked about again, where measured losses count', () => {
    const over = attempt(0, 0.14);
    const allow: OwnerAnswer = {
      ...factAfter(over),
      v: factVersion('owner-answer'),
      kind: 'owner-answer',
      body: { attemptId: over.id, answer: 'allow', note: '' },
    };
    const worse = measuredLoss(over, { fromLeft: 0.3, fromRight: 0.3 });
    expect(verdict([over, allow]).mark).toBe('allowed');
    expect(verdict([over, allow, worse]).mark).toBe('redo');
    expect(verdict([over, allow, worse], limits).mark).toBe('allowed');
    // From one end alone nothing follows, and the answer stands.
    const oneEnd = measuredLoss(over, { fromLeft: 0.3, fromRight: null });
    expect(verdict([over, allow, oneEnd]).mark).toBe('allowed');
    const after = { ...allow, ...factAfter(over), v: allow.v };
    expect(verdict([over, worse, after]).mark).toBe('allowed');
  });
});

describe('in the book of a closure', () => {
  const [one, two] = [attempt(0, 0.02), attempt(1, 0.03)];
  const facts = [one, two, measuredLoss(one, { fromLeft: 0.06, fromRight: 0.08 })];

  test('means of what was estimated and what was measured stay apart', () => {
    const { rollUp } = buildLedger(plan, facts, limits);
    expect(rollUp.mean).toBeCloseTo(0.025, 12);
    expect(rollUp.measured).toMatchObject({ fibers: 1, over: true });
    expect(rollUp.measured!.mean).toBeCloseTo(0.07, 12);
    expect(rollUp.meanOver).toBe(false);
    expect(buildLedger(plan, facts, wanted).rollUp.meanOver).toBe(true);
  });

  test('when every fiber is measured those decide, else both are held against the limit', () => {
    const estimates = [attempt(0, 0.09), attempt(1, 0.08)];
    const first = measuredLoss(estimates[0]!);
    expect(buildLedger(plan, [...estimates, first], wanted).rollUp).toMatchObject({
      meanOver: true,
      measured: { over: false },
    });
    const whole = [...estimates, first, measuredLoss(estimates[1]!)];
    expect(buildLedger(plan, whole, wanted).rollUp.meanOver).toBe(false);
  });

  test('fact by fact is the same as anew', () => {
    const ledger = facts.reduce(addFact, buildLedger(plan, [], wanted));
    expect(ledger).toEqual(buildLedger(plan, facts, wanted));
    expect(findSplice(ledger, spliceAt(0).id)!.measured[0]).toBeCloseTo(0.07, 12);
  });
});

test('named from the other side, its directions and its place in the ribbon turn with it', () => {
  const ends = (cableId: string, from: number, to: number) =>
    endsOfRuns([{ cableId, from, to, side: 'end' as const }]);
  const tried = attempt(0, 0.02, {
    subject: subjectOf({ left: ends(cableA.id, 1, 12), right: ends(cableB.id, 12, 1) }),
  });
  const fact = measuredLoss(tried, { position: 2, fromLeft: 0.1, fromRight: 0.02 });
  const turned = asPlanned(fact, { left: ends(cableB.id, 1, 12), right: ends(cableA.id, 12, 1) });
  expect(turned.body).toMatchObject({ position: 11, fromLeft: 0.02, fromRight: 0.1 });
});

test.each([
  [{ fromLeft: 11 }, /Check the decimal point/],
  [{ fromLeft: Number.NaN }, /number in dB/],
  [{ position: 2 }, /fewer fibers/],
  [{ wavelength: 850 }, /./],
  [{ attemptId: 'x' }, /./],
])('%p is refused', (wrong, message) => {
  const tried = attempt(0, 0.04, { id: id(9001) });
  expect(refusalOf(measuredLoss(tried))).toBeNull();
  expect(refusalOf(measuredLoss(tried, wrong as Partial<MeasuredLoss['body']>))).toMatch(message);
});

import { buildLedger } from '@cordel/core';
import { attemptAt, smallJob } from '../../test/job';
import { ledgerOf } from './ledger';

const definition = smallJob();
const closure = definition.closures[0]!;
const { plan } = ledgerOf(definition, closure, []);
const attempt = (index: number, loss: number) => attemptAt(definition, index, loss);

test('the same facts give the same ledger, without judging again', () => {
  const facts = [attempt(0, 0.03)];
  expect(ledgerOf(definition, closure, facts)).toBe(ledgerOf(definition, closure, facts));
});

test('facts added at the end carry on from the ledger that was; other facts or limits build anew, all with the same result', () => {
  const first = [attempt(0, 0.03), attempt(1, 0.2)];
  const before = ledgerOf(definition, closure, first);
  const more = [...first, attempt(2, 0.05)];
  const after = ledgerOf(definition, closure, more);
  expect(after.trays[0]!.splices[0]).toBe(before.trays[0]!.splices[0]);
  expect(after.rollUp).toEqual(buildLedger(plan, more, before.limits).rollUp);

  const others = [attempt(5, 0.01)];
  expect(ledgerOf(definition, closure, others).rollUp).toEqual(
    buildLedger(plan, others, before.limits).rollUp,
  );

  const limits = { ...before.limits, singleMax: 0.3 };
  const looser = { ...definition, project: { ...definition.project, limits } };
  expect(ledgerOf(looser, closure, more).rollUp.marks.redo).toBe(0);
});

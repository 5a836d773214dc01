import { buildLedger, limitsPresets, runsOf, type Attempt } from '@cordel/core';
import { straightProject } from '@cordel/core/straightProject';
import { ledgerOf } from './ledger';

let next = 1;
const newId = () => `01900000-0000-7000-8000-${String(next++).padStart(12, '0')}`;
const cable = { tubes: 2, fibersPerTube: 12, schemeId: 'tia-598-d' };
const definition = straightProject(
  {
    name: 'Test',
    units: 'mm',
    limits: limitsPresets[0]!.limits,
    from: 'Hub',
    to: 'Cabinet',
    closure: { name: 'Joint', kind: 'dome', chainage: 0, trays: 1, slotsPerTray: 24 },
    left: { label: 'A', ...cable },
    right: { label: 'B', ...cable },
  },
  newId,
);
const closure = definition.closures[0]!;
const { plan } = ledgerOf(definition, closure, []);
const attempt = (index: number, loss: number): Attempt => ({
  v: 2,
  id: newId(),
  kind: 'attempt',
  madeAt: `2026-04-15T01:${String(index).padStart(2, '0')}:00.000Z`,
  by: null,
  device: null,
  subject: {
    on: 'splice',
    closureId: closure.id,
    left: runsOf(plan.trays[0]!.splices[index]!.left),
    right: runsOf(plan.trays[0]!.splices[index]!.right),
  },
  body: {
    source: 'hand',
    simulated: false,
    readings: [{ loss, cleaveLeft: null, cleaveRight: null }],
    proofTestFailed: false,
    note: '',
  },
});

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

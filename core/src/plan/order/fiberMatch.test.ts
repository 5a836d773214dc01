import { cableA, cableB } from '../../../test/example';
import type { Cable } from '../../line/cable';
import { sayAt } from '../../finding';
import { compareFibers } from './fiberMatch';
import { planFindingWords, type PlanFinding } from '../words';

const match = (left: Partial<Cable>, right: Partial<Cable>) => {
  const findings: PlanFinding[] = [];
  compareFibers(
    { ...cableA, ...left },
    { ...cableB, ...right },
    sayAt(findings, { kind: 'order-line', line: 1 }),
  );
  return findings;
};
const said = (finding: PlanFinding | undefined) => planFindingWords(finding!, 'mm');

test('fibers of one type match, and so do types of one mode field', () => {
  expect(match({}, {})).toEqual([]);
  expect(match({ fiberType: 'g657a2' }, { fiberType: 'g657b3' })).toEqual([]);
  expect(match({ fiberType: 'om3' }, { fiberType: 'om4' })).toEqual([]);
});

// D. Marcuse 1977: mode fields 9.2 and 8.6 μm lose 0.0197 dB; 10 log10(8.6/9.2) is −0.293 dB one way.
test('mode fields that differ are told with the loss and the two one-way steps', () => {
  const [finding] = match({ modeField: 9.2 }, { modeField: 8.6 });
  expect(finding).toMatchObject({ code: 'mode-fields-differ', severity: 'warning' });
  expect(said(finding)).toContain('loses 0.020 dB');
  expect(said(finding)).toContain('−0.273 dB from A and +0.313 dB from B');
  const [other] = match({ modeField: 8.6 }, { modeField: 9.2 });
  expect(said(other)).toContain('+0.313 dB from A and −0.273 dB from B');
});

test('a cable’s own mode field counts before its type’s', () =>
  expect(match({ fiberType: 'g652d', modeField: 8.6 }, { fiberType: 'g657a2' })).toEqual([]));

test('single-mode and multimode cannot be joined, nor cores of 50 and 62.5 μm', () => {
  expect(match({ fiberType: 'om3' }, {})[0]).toMatchObject({ code: 'fiber-modes-differ', severity: 'error' });
  const [cores] = match({ fiberType: 'om1' }, { fiberType: 'om3' });
  expect(cores).toMatchObject({ code: 'fiber-cores-differ', severity: 'error' });
  expect(said(cores)).toContain('62.5 μm');
});

import { cables, closure, spliceAt } from '../../../test/example';
import { checkDraft } from './draft';
import { planFindingWords } from '../words';

const touched = [spliceAt(0).id];
const check = (text: string) => checkDraft({ closure, text }, closure, cables, touched);

test('a draft as it is stored changes nothing', () => {
  const { problems, findings, splices, unplaced, change, trays, rest } = check('A 1-24 > B 1-24');
  expect({ problems, findings, splices, unplaced }).toEqual({
    problems: [],
    findings: [],
    splices: 24,
    unplaced: 0,
  });
  expect(change.leaving).toEqual([]);
  expect(trays.map((tray) => [tray.used, tray.units.map((one) => one.unit)])).toEqual([
    [12, [1, 2]],
    [12, [3, 4]],
  ]);
  expect(rest.map((one) => one.ranges)).toEqual([[], []]);
});

test('findings stand at the row of the text, empty rows and broken ones counted', () => {
  const { problems, findings } = check('A 1-6 > B 1-6\n\nA x\nA 6 > B 7');
  expect(problems.map((one) => one.row)).toEqual([3]);
  expect(findings[0]).toMatchObject({
    where: { kind: 'order-line', line: 4 },
    code: 'end-used-twice',
    params: { label: 'A', from: 6, to: 6, lines: [1, 4] },
  });
  expect(planFindingWords(findings[0]!, 'mm')).toBe(
    'A fiber 6 is used twice, in order lines 1 and 4. Take it out of one.',
  );
});

test('what is spliced and would leave the plan is told, and what stays dark', () => {
  const { change, rest } = check('A 7-12 > B 7-12');
  expect(change.leaving).toEqual([spliceAt(0).id]);
  expect(rest[0]!.ranges).toEqual([
    { from: 1, to: 6 },
    { from: 13, to: 24 },
  ]);
});

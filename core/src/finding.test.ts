import { placeWords, sayAt, wordsIn, type FindingIn, type Place } from './finding';
import type { Units } from './line/project';
import { formatMillimeters } from './units/length';

const words = {
  thick: ({ diameter }: { diameter: number }, units: Units) => `${formatMillimeters(diameter, units)} thick`,
  gone: () => 'Gone.',
};
type Found = FindingIn<typeof words>;

test('a finding holds numbers; its English, in the units of whoever reads it, comes from the table', () => {
  const findings: Found[] = [];
  const say = sayAt(findings, { kind: 'cable', key: 'A' });
  say('thick', { diameter: 25.4 }, 'warning');
  say('gone', {});
  expect(findings).toEqual([
    { code: 'thick', severity: 'warning', where: { kind: 'cable', key: 'A' }, params: { diameter: 25.4 } },
    { code: 'gone', severity: 'error', where: { kind: 'cable', key: 'A' }, params: {} },
  ]);
  const said = (units: Units) =>
    findings.map((finding) => wordsIn(words, finding, units).replace('\u00a0', ' '));
  expect(said('mm')).toEqual(['25.4 mm thick', 'Gone.']);
  expect(said('in')).toEqual(['1 in thick', 'Gone.']);
});

test('a finding is data: it crosses to a worker and back as it is', () => {
  const findings: Found[] = [];
  sayAt(findings, { kind: 'tray', tray: 3 })('thick', { diameter: 12 });
  expect(JSON.parse(JSON.stringify(findings))).toEqual(findings);
});

test.each<[Place, string]>([
  [{ kind: 'order-line', line: 2 }, 'line 2'],
  [{ kind: 'cable', key: 'A' }, 'cable A'],
  [{ kind: 'tray', tray: 3 }, 'tray 3'],
  [{ kind: 'trays' }, 'trays'],
  [{ kind: 'span', label: '48 Ladeira', from: 'U1', to: 'U2' }, '48 Ladeira, U1 to U2'],
  [{ kind: 'row', row: 5 }, 'row 5'],
  [{ kind: 'column' }, 'column'],
])('%j is called “%s”', (place, called) => expect(placeWords(place)).toBe(called));

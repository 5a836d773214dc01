import fc from 'fast-check';
import { attempt, definition, factAfter, id, timeOf } from '../../test/example';
import { anyConstruction } from '../../test/arbitraries';
import { tia598 } from '../line/colorCode';
import { builtInModels } from '../plan/models/builtInModels';
import { closureOfModel } from '../plan/models/closureModel';
import { readEdit, settingsOf, withoutEdits } from '../edits';
import { readProjectFile, referenceProblems, writeProjectFile, type StoredFact } from './projectFile';

const store = (fact: StoredFact['fact']): StoredFact => ({ fact, receivedAt: timeOf(500) });
const first = attempt(0, 0.14, { cleaveLeft: 0.6, by: 'Iara', note: 'wind' });
const facts = (
  [
    first,
    attempt(1, null),
    {
      ...factAfter(first),
      kind: 'correction' as const,
      body: { attemptId: first.id, result: null, reason: 'misread' },
    },
    {
      ...factAfter(first),
      v: 3,
      kind: 'owner-answer' as const,
      body: {
        attemptId: first.id,
        answer: 'ask' as const,
        note: '',
      },
    },
  ] as StoredFact['fact'][]
).map(store);

test('export, import, export gives the same bytes', () => {
  const text = writeProjectFile(definition, facts);
  const file = readProjectFile(JSON.parse(text)).file!;
  expect(writeProjectFile(file, file.facts)).toBe(text);
});

test('a file with edits that no server has says so by its version, and reads back; one without stays as it was', () => {
  const base = settingsOf(definition);
  const edit = {
    kind: 'settings',
    documentId: definition.project.id,
    base,
    mine: { ...base, name: 'Edited' },
  };
  const shown = { ...definition, project: { ...definition.project, name: 'Edited' } };
  const raw = JSON.parse(writeProjectFile(shown, facts, [edit])) as { formatVersion: number };
  expect(raw.formatVersion).toBe(3);
  const file = readProjectFile(raw).file!;
  expect(file.edits).toEqual([edit]);
  expect(
    withoutEdits(
      shown,
      file.edits.map((one) => readEdit(one)!),
    ),
  ).toEqual(definition);
  expect(JSON.parse(writeProjectFile(definition, facts))).toMatchObject({ formatVersion: 2 });
});

/** The same document with its fields and, where order means nothing, its lists turned round, as a database may give them back. */
function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned);
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, inner]) => [key, turned(inner)]),
  );
}

test('the bytes do not depend on the order in which things were stored', () => {
  const text = writeProjectFile(definition, facts);
  fc.assert(
    fc.property(fc.shuffledSubarray(facts, { minLength: facts.length }), (shuffled) => {
      const other = turned({
        ...definition,
        sites: [...definition.sites].reverse(),
        cables: [...definition.cables].reverse(),
      }) as typeof definition;
      expect(writeProjectFile(other, shuffled.map(turned) as StoredFact[])).toBe(text);
    }),
  );
});

test('a sound project has no reference problems', () =>
  expect(referenceProblems(definition, facts)).toEqual([]));

const [site, ...sites] = definition.sites;
const [cable] = definition.cables;
const [closure] = definition.closures;
test.each([
  ['a site that is gone', { ...definition, sites }, [], 'cables.0.siteIds.0'],
  ['a site twice', { ...definition, sites: [site!, ...definition.sites] }, [], 'sites.1.id'],
  ['a cable that is gone', { ...definition, cables: [cable!] }, [], 'closures.0.entries.1.cableId'],
  [
    'a closure at no site',
    { ...definition, closures: [{ ...closure!, siteId: id(77) }] },
    [],
    'closures.0.siteId',
  ],
  ['a fact twice', definition, [facts[0]!, facts[0]!], 'facts.1.fact.id'],
  [
    'a fact of another closure',
    definition,
    [store({ ...first, subject: { ...first.subject, closureId: id(77) } })],
    'facts.0.fact.subject.closureId',
  ],
])('tells of %s', (_, bad, own, path) => {
  expect(referenceProblems(bad, own).map((problem) => problem.path.join('.'))).toContain(path);
});

test('every cable construction and everything a closure may have goes out and comes in the same', () => {
  fc.assert(
    fc.property(anyConstruction, fc.boolean(), (construction, rich) => {
      const more = rich
        ? {
            fiberType: 'g657a2' as const,
            modeField: 8.6,
            groupIndex: 1.468,
            diameter: 11.2,
            excess: 0.02,
            sheathMarks: { first: 120, last: 3080 },
            ownScheme: { ...tia598, id: 'own', name: 'Own', sequence: [...tia598.sequence] },
            live: [{ from: 1, to: 1, circuit: 'Ring' }],
          }
        : {};
      const [own, ...others] = definition.cables;
      const project = {
        ...definition,
        cables: [{ ...own!, construction, ...more }, ...others],
        closures: definition.closures.map((closure) => ({
          ...closure,
          ...(rich ? closureOfModel(builtInModels[0]!) : {}),
        })),
      };
      const text = writeProjectFile(project, []);
      const file = readProjectFile(JSON.parse(text)).file!;
      expect(file.cables.find((cable) => cable.id === own!.id)!.construction).toEqual(construction);
      expect(writeProjectFile(file, [])).toBe(text);
    }),
    { numRuns: 40 },
  );
});

import { builtInModels } from '../plan/models/builtInModels';
import { listWithEdits, readEdit, sameTarget, withEdits, type DocumentEdit } from './documentEdit';

const [first, second] = builtInModels as [(typeof builtInModels)[0], (typeof builtInModels)[0]];
const of = (base: typeof first | null, mine: typeof first | null): DocumentEdit => ({
  kind: 'model',
  documentId: (mine ?? base)!.id,
  base,
  mine,
});

test('a list is as edits leave it: changed in place, added at the end, deleted', () => {
  const renamed = { ...first, name: 'Renamed' };
  const list = [first];
  expect(listWithEdits(list, [of(first, renamed)], 'model')).toEqual([renamed]);
  expect(listWithEdits(list, [of(null, second)], 'model')).toEqual([first, second]);
  expect(listWithEdits(list, [of(first, renamed), of(renamed, null)], 'model')).toEqual([]);
  expect(listWithEdits([], [of(first, renamed)], 'gear')).toEqual([]);
  expect(list).toEqual([first]);
});

test('what was kept reads back; what no schema knows is told and not guessed', () => {
  const edit = of(first, { ...first, name: 'Renamed' });
  expect(readEdit(JSON.parse(JSON.stringify({ ...edit, rev: 3, scope: '' })))).toEqual(edit);
  expect(readEdit({ ...edit, mine: { name: 'half' } })).toBeNull();
  expect(readEdit({ ...edit, kind: 'seal' })).toBeNull();
  expect(readEdit(null)).toBeNull();
});

test('edits of a project that is not known change nothing', () => {
  expect(withEdits(undefined, [of(first, second)])).toBeUndefined();
});

test('the same document is of the same kind and identifier', () => {
  expect(sameTarget(of(first, null), of(first, second))).toBe(false);
  expect(sameTarget(of(first, null), of(null, first))).toBe(true);
});

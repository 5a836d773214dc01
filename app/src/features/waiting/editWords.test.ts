import { settingsOf, type FieldConflict } from '@cordel/core/edits';
import { smallJob } from '../../../test/job';
import type { StoredEdit } from '../../sync/editList';
import { editWords, fieldWords, valueWords } from './editWords';

const job = smallJob();
const closure = job.closures[0]!;
const site = job.sites.find((one) => one.id === closure.siteId)!;
const edit = (change: object) =>
  ({ scope: job.project.id, documentId: job.project.id, base: null, mine: null, ...change }) as StoredEdit;
const conflict = (path: string[], values: Partial<FieldConflict> = {}): FieldConflict => ({
  path,
  base: undefined,
  mine: undefined,
  theirs: undefined,
  ...values,
});

test('an edit is told by what it is of, and how', () => {
  const settings = settingsOf(job);
  expect(editWords(edit({ kind: 'settings', base: settings, mine: settings }), job)).toBe(
    'Settings and limits changed',
  );
  expect(editWords(edit({ kind: 'closure', mine: closure }), job)).toBe(`Closure ${site.name} made`);
  expect(editWords(edit({ kind: 'closure', base: closure }), job)).toBe(`Closure ${site.name} deleted`);
  expect(editWords(edit({ kind: 'project', mine: job }), undefined)).toBe('Project Test made');
  expect(editWords(edit({ kind: 'settings', mine: undefined }), job)).toBe('A change that cannot be read');
});

test('fields have the names that forms give them, things in lists their own', () => {
  expect(fieldWords('settings', conflict(['limits', 'singleMax']), job)).toBe('Single splice, at most');
  expect(fieldWords('closure', conflict(['lengths', 'aramid']), job)).toBe('Aramid left');
  expect(fieldWords('line', conflict(['sites', site.id, 'name']), job)).toBe(`Site ${site.name}: name`);
  expect(fieldWords('line', conflict(['cables', 'gone'], { mine: { label: 'C' } }), job)).toBe('Cable C');
  expect(fieldWords('closure', conflict([]), job)).toBe('All of it');
});

test('values are told with their units, a plan by its cables and its order', () => {
  expect(valueWords('settings', conflict(['limits', 'singleMax']), 0.1, job)).toBe('0.10 dB');
  expect(valueWords('settings', conflict(['limits', 'tries']), 3, job)).toBe('3');
  expect(valueWords('closure', conflict(['testPressure']), 21, job)).toBe('21 kPa');
  expect(valueWords('closure', conflict(['lengths', 'aramid']), 76.2, job)).toBe('76.2 mm');
  expect(valueWords('closure', conflict(['spareSlots']), undefined, job)).toBe('Not set');
  expect(valueWords('line', conflict(['sites', site.id]), undefined, job)).toBe('Taken out');
  expect(valueWords('closure', conflict([]), undefined, job)).toBe('Deleted');
  const { entries, trays, order } = closure;
  expect(valueWords('closure', conflict(['plan']), { entries, trays, order }, job)).toBe(
    'A (cut), B (cut)\n1 tray\nA 1-24 > B 1-24',
  );
});

import type { Attempt } from '@cordel/core';
import type * as Outbox from './outbox';

const projectId = '01900000-0000-7000-8000-000000000041';
const attempt = (number: number): Attempt => ({
  v: 2,
  id: `01900000-0000-7000-8000-00000000000${number}`,
  kind: 'attempt',
  madeAt: `2026-04-15T01:0${number}:00.000Z`,
  by: null,
  device: null,
  subject: {
    on: 'splice',
    closureId: '01900000-0000-7000-8000-000000000021',
    left: [{ cableId: '01900000-0000-7000-8000-000000000031', from: 1, to: 1, side: 'end' }],
    right: [{ cableId: '01900000-0000-7000-8000-000000000032', from: 1, to: 1, side: 'end' }],
  },
  body: {
    source: 'hand',
    simulated: false,
    readings: [{ loss: 0.03, cleaveLeft: null, cleaveRight: null }],
    proofTestFailed: false,
    note: '',
  },
});

/** The outbox as a freshly loaded page finds it. */
function afterReload(): typeof Outbox {
  let loaded!: typeof Outbox;
  jest.isolateModules(() => {
    loaded = jest.requireActual('./outbox');
  });
  return loaded;
}

beforeEach(() => localStorage.clear());

test('what is added is there after a reload, in order, until it is removed', () => {
  const before = afterReload().outbox;
  before.add(projectId, attempt(2));
  before.add(projectId, attempt(1));
  const after = afterReload().outbox;
  expect(after.entries().map((entry) => entry.fact)).toEqual([attempt(1), attempt(2)]);
  after.remove(new Set([attempt(1).id]));
  expect(
    afterReload()
      .outbox.entries()
      .map((entry) => entry.fact.id),
  ).toEqual([attempt(2).id]);
});

test('a refusal and its reason survive a reload', () => {
  const { outbox } = afterReload();
  outbox.add(projectId, attempt(1));
  outbox.refuse(attempt(1).id, 'No such closure.');
  expect(afterReload().outbox.entries()[0]!.refused).toBe('No such closure.');
});

test('an unreadable entry does not take the others with it', () => {
  const { outbox } = afterReload();
  outbox.add(projectId, attempt(1));
  localStorage.setItem('cordel.outbox.broken', '{"half":');
  localStorage.setItem('cordel.outbox.other', '{"fact":{}}');
  expect(afterReload().outbox.entries()).toHaveLength(1);
  expect(localStorage.getItem('cordel.outbox.other')).not.toBeNull();
});

test.each([
  ['Cordel 0.1', 'device-storage-1'],
  ['Cordel before facts were kept in a database', 'device-storage-2'],
])('what %s left on a phone is there to be sent, to the last entry', (_, fixture) => {
  const storage: Record<string, string> = jest.requireActual(`../../../core/test/fixtures/${fixture}.json`);
  Object.entries(storage).forEach(([key, value]) => localStorage.setItem(key, value));
  const wanted = Object.keys(storage).filter((key) => key.startsWith('cordel.outbox.'));
  const entries = afterReload().outbox.entries();
  expect(entries.map(({ fact }) => `cordel.outbox.${fact.id}`)).toEqual(wanted.sort());
  expect(entries.every(({ fact }) => fact.v === 2 && fact.subject !== undefined)).toBe(true);
});

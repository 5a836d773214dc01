import { testEngine } from '../../test/engine';
import { attemptAt, smallJob } from '../../test/job';
import type { Engine } from '../sync/engine';
import type { MemoryStore } from '../sync/memoryStore';
import { download } from './download';

const job = smallJob();
const projectId = job.project.id;
const saved: string[] = [];

let engine: Engine;
let store: MemoryStore;
beforeEach(() => {
  ({ engine, store } = testEngine());
  saved.length = 0;
  globalThis.fetch = jest.fn((address: string) => {
    saved.push(address);
    return Promise.resolve({ ok: true, headers: new Map(), blob: () => Promise.resolve(new Blob()) });
  }) as never;
  URL.createObjectURL = () => 'blob:x';
  HTMLAnchorElement.prototype.click = () => undefined;
});

afterEach(() => engine.stop());

test('a document waits for the readings of its own project that are on their way, and for nobody else’s', async () => {
  const fact = attemptAt(job, 0, 0.03);
  await engine.append(projectId, fact);
  expect(await download('/sheet', projectId)).toMatchObject({
    words: expect.stringContaining('not on the server yet'),
    failed: true,
  });
  expect(await download('/other', '01900000-0000-7000-8000-00000000ffff')).toBeNull();
  expect(await download('/models', null)).toBeNull();
  // What the server will not take holds nothing up.
  await store.refuse(new Map([[fact.id, 'No such closure.']]));
  await engine.heard({ entries: true });
  expect(await download('/sheet', projectId)).toBeNull();
  expect(saved).toEqual(['/other', '/models', '/sheet']);
});

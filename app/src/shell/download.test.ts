import { testEngine } from '../../test/engine';
import { attemptAt, smallJob } from '../../test/job';
import type { Engine } from '../sync/engine';
import type { MemoryStore } from '../sync/memoryStore';
import { download, handOn } from './download';

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

describe('a project is handed on', () => {
  const made = { text: '{}', name: 'Night.json', type: 'application/json' };
  const share = jest.fn((_: { files: File[] }) => Promise.resolve());
  const withShare = (canShare: boolean) =>
    Object.assign(navigator, { canShare: () => canShare, share: share.mockClear() });
  const here = () => Promise.resolve(made);

  test('by what the device shares with', async () => {
    withShare(true);
    expect(await handOn(here)).toMatchObject({ failed: false });
    expect(share.mock.calls[0]![0].files[0]).toMatchObject({ name: 'Night.json', type: 'application/json' });
    share.mockRejectedValueOnce(new DOMException('no', 'AbortError'));
    expect(await handOn(here)).toBeNull();
  });

  test('as a saved file, where it shares with nothing; not where it is not here as a whole', async () => {
    withShare(false);
    expect(await handOn(here)).toMatchObject({ words: expect.stringContaining('Saved.'), failed: false });
    expect(share).not.toHaveBeenCalled();
    expect(await handOn(() => Promise.resolve(null))).toMatchObject({ failed: true });
  });
});

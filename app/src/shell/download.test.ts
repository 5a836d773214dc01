import { attemptAt, smallJob } from '../../test/job';
import { outbox } from '../data/outbox';
import { download } from './download';

const job = smallJob();
const projectId = job.project.id;
const saved: string[] = [];

beforeEach(() => {
  localStorage.clear();
  outbox.remove(new Set(outbox.entries().map((entry) => entry.fact.id)));
  saved.length = 0;
  globalThis.fetch = jest.fn((address: string) => {
    saved.push(address);
    return Promise.resolve({ ok: true, headers: new Map(), blob: () => Promise.resolve(new Blob()) });
  }) as never;
  URL.createObjectURL = () => 'blob:x';
  HTMLAnchorElement.prototype.click = () => undefined;
});

test('a document waits for the readings of its own project that are on their way, and for nobody else’s', async () => {
  const fact = attemptAt(job, 0, 0.03);
  outbox.add(projectId, fact);
  expect(await download('/sheet', projectId)).toContain('not on the server yet');
  expect(await download('/other', '01900000-0000-7000-8000-00000000ffff')).toBeNull();
  expect(await download('/models', null)).toBeNull();
  // What the server will not take holds nothing up.
  outbox.refuse(fact.id, 'No such closure.');
  expect(await download('/sheet', projectId)).toBeNull();
  expect(saved).toEqual(['/other', '/models', '/sheet']);
});

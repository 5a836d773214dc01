import '../../test/indexedDb';
import { factVersion, type Photo } from '@cordel/core';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import { surroundings } from '../../test/engine';
import { TestServer } from '../../test/factServer';
import { attemptAt, smallJob } from '../../test/job';
import { Engine } from './engine';
import { IndexedStore } from './indexedStore';
import type { Surroundings } from './surroundings';

const job = smallJob();
const projectId = job.project.id;
const closureId = job.closures[0]!.id;
const reading = attemptAt(job, 0, 0.03);

const photo = (n: number): Photo => ({
  v: factVersion('photo'),
  id: `01900000-0000-7000-8000-0000000a${String(n).padStart(4, '0')}`,
  kind: 'photo',
  madeAt: '2026-04-15T06:00:00.000Z',
  by: null,
  device: null,
  subject: { on: 'closure', closureId },
  body: { did: 'taken', of: { what: 'closure' }, caption: '' },
});
const bytesOf = (n: number) => Uint8Array.from({ length: 100 + n }, (_, at) => at % 256).buffer;

let server: TestServer;
const running: Engine[] = [];
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  server = new TestServer();
});
afterEach(() => running.splice(0).forEach((engine) => engine.stop()));

const disk = () => new IndexedStore(() => undefined);
function load(other: Partial<Surroundings> = {}): Engine {
  const engine = new Engine(surroundings(disk(), { server, ...other }));
  running.push(engine);
  return engine;
}
const take = (engine: Engine, n: number) =>
  engine.append(projectId, photo(n), undefined, undefined, bytesOf(n));
const ids = (engine: Engine) => engine.log.entries().map(({ id }) => id);

test('ten photos taken with no network, by a page that died after, are all sent, each picture ahead of its fact', async () => {
  server.reachable = false;
  const engine = load();
  for (let n = 0; n < 10; n += 1) expect(await take(engine, n)).toBe(true);
  engine.stop();
  const again = load();
  await again.ready;
  await again.push.run();
  expect([ids(again).length, server.pictures.size]).toEqual([10, 0]);
  server.reachable = true;
  const orders: [pictures: number, facts: number][] = [];
  const send = server.send.bind(server);
  server.send = async (of, facts) => {
    const answer = await send(of, facts);
    orders.push([server.pictures.size, server.ids(of).length]);
    return answer;
  };
  await again.push.tryNow();
  expect(ids(again)).toEqual([]);
  expect(orders.every(([pictures, facts]) => pictures >= facts)).toBe(true);
  expect(server.ids(projectId)).toHaveLength(10);
  for (let n = 0; n < 10; n += 1)
    expect(server.pictures.get(photo(n).id)!.map((one) => new Uint8Array(one))).toEqual([
      new Uint8Array(bytesOf(n)),
    ]);
  // Sent once, and there to be looked at with no network.
  await again.push.run();
  server.reachable = false;
  expect(new Uint8Array(await again.pictures.read(projectId, photo(3).id, 'small'))).toEqual(
    new Uint8Array(bytesOf(3)),
  );
  expect(server.pictures.get(photo(3).id)).toHaveLength(1);
});

test('where the answer is lost the picture goes again, and its fact is there once', async () => {
  server.losesAnswers = true;
  const engine = load();
  await take(engine, 1);
  await engine.push.run();
  expect(ids(engine)).toEqual([photo(1).id]);
  server.losesAnswers = false;
  await engine.push.tryNow();
  expect([ids(engine), server.ids(projectId)]).toEqual([[], [photo(1).id]]);
});

test('readings go ahead of pictures, and do not wait for one that cannot be sent', async () => {
  const sendPicture = jest.spyOn(server, 'sendPicture').mockRejectedValue(new Error('too slow'));
  const engine = load();
  await take(engine, 1);
  await engine.append(projectId, reading);
  await engine.push.run();
  expect(server.ids(projectId)).toEqual([reading.id]);
  expect(ids(engine)).toEqual([photo(1).id]);
  sendPicture.mockRestore();
  await engine.push.tryNow();
  expect(server.ids(projectId)).toEqual([reading.id, photo(1).id]);
});

test('a picture that the server will not take is refused with its words, can be sent again, and is given up whole', async () => {
  server.badPictures.add(photo(1).id);
  const engine = load();
  await take(engine, 1);
  await take(engine, 2);
  await engine.push.run();
  expect(server.ids(projectId)).toEqual([photo(2).id]);
  expect(engine.log.entries().map(({ id, refused }) => [id, refused])).toEqual([
    [photo(1).id, 'This is no picture.'],
  ]);
  await engine.sendAgain([photo(1).id]);
  expect(engine.log.entries()).toHaveLength(1);
  await engine.log.drop([photo(1).id]);
  expect([engine.log.entries(), engine.pictures.onTheirWay()]).toEqual([[], []]);
  await expect(engine.pictures.read(projectId, photo(1).id, 'small')).rejects.toThrow('no such photo');
});

test('where the disk has no room neither photo nor fact is kept; those that the server has make room first', async () => {
  const engine = load();
  await take(engine, 1);
  await engine.push.run();
  const put = IDBObjectStore.prototype.put;
  let refusals = 1;
  const spy = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(function (
    this: IDBObjectStore,
    ...given: Parameters<typeof put>
  ) {
    if (this.name === 'picture' && (refusals -= 1) >= 0) throw new DOMException('full', 'QuotaExceededError');
    return put.apply(this, given);
  });
  server.reachable = false;
  expect(await take(engine, 2)).toBe(true);
  expect(await disk().picture(photo(1).id, 'own')).toBeUndefined();
  refusals = 2;
  expect(await take(engine, 3)).toBe(false);
  expect([engine.log.notKept(), ids(engine)]).toEqual(['full', [photo(2).id]]);
  spy.mockRestore();
});

test('a project that leaves the device takes its pictures along, but not those on their way', async () => {
  const engine = load();
  await take(engine, 1);
  await engine.push.run();
  server.reachable = false;
  await take(engine, 2);
  await disk().forget(projectId);
  expect(await disk().picture(photo(1).id, 'own')).toBeUndefined();
  expect(await disk().picture(photo(2).id, 'own')).toBeDefined();
});

test('a picture of another device is fetched once and there with no network then', async () => {
  await server.sendPicture(projectId, photo(1).id, bytesOf(1));
  const engine = load();
  await engine.pictures.read(projectId, photo(1).id, 'small');
  server.reachable = false;
  expect((await load().pictures.read(projectId, photo(1).id, 'small')).byteLength).toBe(101);
});

test('what a server lost of its facts comes back with its pictures', async () => {
  const engine = load();
  await take(engine, 1);
  await engine.push.run();
  // A copy from before was restored.
  server.stored.clear();
  server.pictures.clear();
  server.numbering = 'restored';
  engine.closure(projectId, closureId);
  await engine.pull.run(projectId);
  await engine.push.tryNow();
  expect([server.ids(projectId), [...server.pictures.keys()]]).toEqual([[photo(1).id], [photo(1).id]]);
});

test('the database of the version before gets its table, and nothing in it is lost', async () => {
  const before = await openDB('cordel', 2, {
    upgrade(database) {
      database.createObjectStore('edit', { keyPath: 'id' }).createIndex('scope', 'scope');
      database
        .createObjectStore('entry', { keyPath: 'n', autoIncrement: true })
        .createIndex('id', 'id', { unique: true });
      const facts = database.createObjectStore('fact', { keyPath: ['projectId', 'seq'] });
      facts.createIndex('closure', ['projectId', 'closureId', 'seq']);
      facts.createIndex('id', 'raw.id');
      database.createObjectStore('reach', { keyPath: 'projectId' });
      database.createObjectStore('snapshot', { keyPath: 'key' });
    },
  });
  await before.add('entry', { id: reading.id, projectId, raw: reading, refused: null });
  before.close();
  server.reachable = false;
  const engine = load();
  await engine.ready;
  expect(ids(engine)).toEqual([reading.id]);
  expect(await take(engine, 1)).toBe(true);
});

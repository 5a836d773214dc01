import '../../test/indexedDb';
import { factVersion, type Fact } from '@cordel/core';
import { IDBFactory } from 'fake-indexeddb';
import { surroundings } from '../../test/engine';
import { attemptAt, smallJob } from '../../test/job';
import { TestServer, Unreachable } from '../../test/factServer';
import { Engine } from './engine';
import type { Surroundings } from './surroundings';
import { IndexedStore } from './indexedStore';
import { olderStorage } from './older';
import { NotKept, type Store } from './store';

const job = smallJob();
const projectId = job.project.id;
const closureId = job.closures[0]!.id;
const otherProject = '01900000-0000-7000-8000-0000000fffff';
const facts = Array.from({ length: 24 }, (_, position) => attemptAt(job, position, 0.03));

let server: TestServer;
const running: Engine[] = [];
beforeEach(() => {
  localStorage.clear();
  globalThis.indexedDB = new IDBFactory();
  server = new TestServer();
});
afterEach(() => running.splice(0).forEach((engine) => engine.stop()));

/** A page that was just loaded on this device, or on another one. */
function load(other: Partial<Surroundings> = {}, store: Store = new IndexedStore(() => undefined)): Engine {
  const engine = new Engine(surroundings(store, { server, ...other }));
  running.push(engine);
  return engine;
}
/** A disk that writes a new entry when it is let, and does `after` before it says so. */
function slowDisk(after: () => Promise<void> = async () => undefined) {
  const store = new IndexedStore(() => undefined);
  const addNew = store.addNew.bind(store);
  let begin = () => undefined as void;
  store.addNew = async (entry) => {
    await new Promise<void>((go) => (begin = go));
    await addNew(entry);
    await after();
  };
  return { store, write: () => begin() };
}
const idsOf = (list: readonly { readonly id: string }[]) => list.map((one) => one.id);
const known = (engine: Engine) => idsOf(engine.closure(projectId, closureId).known?.facts ?? []).sort();
const seen = async (engine: Engine) => {
  engine.closure(projectId, closureId);
  await engine.pull.run(projectId);
  return known(engine);
};

describe('a record', () => {
  test('is on the disk when it is shown, and there after the page was loaded anew', async () => {
    server.reachable = false;
    const engine = load();
    const shown: string[][] = [];
    expect(await engine.append(projectId, facts[1]!, (all) => shown.push(idsOf(all)))).toBe(true);
    expect(await engine.append(projectId, facts[0]!)).toBe(true);
    expect(shown).toEqual([[facts[1]!.id]]);
    const again = load();
    await again.ready;
    expect(idsOf(again.log.entries())).toEqual([facts[1]!.id, facts[0]!.id]);
    expect(again.log.entries()[0]!.fact).toEqual(facts[1]);
  });

  test('that the disk does not take is told and counted by nobody', async () => {
    const engine = load();
    await engine.ready;
    const put = jest.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const shown = jest.fn();
    expect(await engine.append(projectId, facts[0]!, shown)).toBe(false);
    expect([engine.log.notKept(), engine.log.entries(), shown.mock.calls]).toEqual(['full', [], []]);
    put.mockRestore();
    expect(await engine.append(projectId, facts[0]!)).toBe(true);
    expect(engine.log.notKept()).toBeNull();
  });

  test('of a screen that cannot wait counts while the disk writes, and is sent only from there', async () => {
    // Another tab, or the sender, reads the disk before it is told here.
    const { store, write } = slowDisk(() => engine.log.refresh());
    const engine = load({}, store);
    await seen(engine);
    const shown: string[][] = [];
    const kept = engine.append(
      projectId,
      facts[0]!,
      (all) => shown.push(idsOf(all)),
      () => shown.push(['taken back']),
    );
    expect([shown, known(engine), engine.log.entries()]).toEqual([[[facts[0]!.id]], [facts[0]!.id], []]);
    await engine.push.run();
    expect(server.ids(projectId)).toEqual([]);
    write();
    expect([await kept, shown.length, known(engine)]).toEqual([true, 1, [facts[0]!.id]]);
    expect(idsOf(engine.log.entries())).toEqual([facts[0]!.id]);
    await engine.push.run();
    expect(server.ids(projectId)).toEqual([facts[0]!.id]);
  });

  test('that counted while the closure was still being read from the disk counts there too', async () => {
    await server.send(projectId, facts.slice(0, 3));
    await seen(load());
    const { store, write } = slowDisk();
    const engine = load({}, store);
    await engine.ready;
    const view = engine.closure(projectId, closureId);
    expect(view.known).toBeNull();
    const kept = engine.append(projectId, facts[5]!, undefined, () => undefined);
    await view.reading;
    expect(known(engine)).toHaveLength(3);
    write();
    expect([await kept, known(engine).length]).toEqual([true, 4]);
  });

  test('that counted while the disk wrote counts no more where the disk refuses, and what it did is taken back', async () => {
    const engine = load();
    await seen(engine);
    await engine.append(projectId, facts[1]!);
    const put = jest.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const order: unknown[] = [];
    const kept = engine.append(
      projectId,
      facts[0]!,
      (all) => order.push(all.length),
      () => order.push(known(engine)),
    );
    expect(order).toEqual([2]);
    expect([await kept, engine.log.notKept(), order]).toEqual([false, 'full', [2, [facts[1]!.id]]]);
    put.mockRestore();
    await engine.push.run();
    expect(server.ids(projectId)).toEqual([facts[1]!.id]);
    // Entered again, it is there once.
    expect(await engine.append(projectId, facts[0]!)).toBe(true);
    expect(known(engine)).toHaveLength(2);
  });

  test('that was sent is a fact of the project under the server’s number, and is not fetched again', async () => {
    const engine = load();
    await seen(engine);
    for (const fact of facts.slice(0, 3)) await engine.append(projectId, fact);
    await engine.push.run();
    expect([engine.log.entries(), server.ids(projectId)]).toEqual([[], idsOf(facts.slice(0, 3))]);
    expect(engine.pull.cursorOf(projectId)).toBe(3);
    const page = jest.spyOn(server, 'page');
    await engine.pull.run(projectId);
    expect(page).toHaveBeenCalledWith(projectId, 3);
    // With no network and from nothing but the disk.
    server.reachable = false;
    expect(await seen(load())).toEqual(idsOf(facts.slice(0, 3)).sort());
  });

  test('whose answer was lost is sent again and stored once; it is shown once', async () => {
    const engine = load();
    await seen(engine);
    await engine.append(projectId, facts[0]!);
    server.losesAnswers = true;
    await engine.push.run();
    expect([engine.log.waiting().length, engine.push.sending(), server.ids(projectId).length]).toEqual([
      1,
      'away',
      1,
    ]);
    await engine.pull.run(projectId);
    expect([engine.log.waiting().length, known(engine)]).toEqual([0, [facts[0]!.id]]);
    server.losesAnswers = false;
    await engine.push.run();
    expect([server.ids(projectId), known(engine)]).toEqual([[facts[0]!.id], [facts[0]!.id]]);
  });

  test('that the server took while the disk is full is no longer on its way, and counts as before', async () => {
    const store = new IndexedStore(() => undefined);
    const engine = load({}, store);
    await seen(engine);
    await engine.append(projectId, facts[0]!);
    store.accept = () => Promise.reject(new NotKept('full'));
    await engine.push.run();
    expect([engine.log.entries(), engine.push.sending(), known(engine)]).toEqual([
      [],
      'rest',
      [facts[0]!.id],
    ]);
    // There is room again.
    expect(await seen(load())).toEqual([facts[0]!.id]);
  });

  test('between those of others moves the cursor only as far as there is no gap', async () => {
    const engine = load();
    await seen(engine);
    await server.send(projectId, [facts[5]]);
    await engine.append(projectId, facts[0]!);
    await engine.push.run();
    expect(engine.pull.cursorOf(projectId)).toBe(0);
    await engine.pull.run(projectId);
    expect([engine.pull.cursorOf(projectId), known(engine)]).toEqual([
      2,
      idsOf([facts[0]!, facts[5]!]).sort(),
    ]);
  });
});

describe('what the server will not take', () => {
  test('counts no more, stays with the reason, and holds up nobody', async () => {
    const engine = load();
    await seen(engine);
    server.bad.add(facts[1]!.id);
    for (const fact of facts.slice(0, 3)) await engine.append(projectId, fact);
    expect(known(engine)).toHaveLength(3);
    await engine.push.run();
    expect(engine.log.entries()).toMatchObject([{ id: facts[1]!.id, refused: 'Not this one.' }]);
    expect(known(engine)).toEqual(idsOf([facts[0]!, facts[2]!]).sort());
    const again = load();
    await again.ready;
    expect(again.log.entries()).toMatchObject([{ refused: 'Not this one.' }]);
    expect(await seen(again)).toEqual(idsOf([facts[0]!, facts[2]!]).sort());
  });

  test('can be sent again once it would be taken, or dropped; what is on its way cannot be dropped', async () => {
    const engine = load();
    await seen(engine);
    facts.slice(0, 2).forEach((fact) => server.bad.add(fact.id));
    for (const fact of facts.slice(0, 2)) await engine.append(projectId, fact);
    await engine.push.run();
    server.bad.clear();
    await engine.sendAgain([facts[0]!.id]);
    await engine.log.drop([facts[1]!.id]);
    expect([engine.log.entries(), server.ids(projectId), known(engine)]).toEqual([
      [],
      [facts[0]!.id],
      [facts[0]!.id],
    ]);
    server.reachable = false;
    await engine.append(projectId, facts[2]!);
    await engine.log.drop([facts[2]!.id]);
    expect(engine.log.waiting()).toHaveLength(1);
  });

  test('of a project that is gone, or while one answers with errors, others go on', async () => {
    const engine = load();
    server.gone.add(otherProject);
    await engine.append(otherProject, facts[9]!);
    await engine.append(projectId, facts[0]!);
    await engine.push.run();
    expect(server.ids(projectId)).toEqual([facts[0]!.id]);
    expect(engine.log.entries()).toMatchObject([{ id: facts[9]!.id, refused: 'There is no such project.' }]);

    const send = server.send.bind(server);
    server.send = (of, given) => (of === otherProject ? Promise.reject(new Error('500')) : send(of, given));
    await engine.sendAgain([facts[9]!.id]);
    await engine.append(projectId, facts[1]!);
    await engine.push.run();
    expect(server.ids(projectId)).toEqual(idsOf(facts.slice(0, 2)));
    expect([idsOf(engine.log.waiting()), engine.push.sending()]).toEqual([[facts[9]!.id], 'away']);
  });
});

describe('a project', () => {
  test('is shown only when a whole state of it is here; a reading cut short goes on where it was', async () => {
    await server.send(projectId, facts);
    const engine = load();
    const page = server.page.bind(server);
    server.page = (of, after) => (after >= 10 ? Promise.reject(new Unreachable()) : page(of, after));
    await seen(engine);
    expect([engine.closure(projectId, closureId).known, engine.pull.errorOf(projectId)]).toEqual([
      null,
      expect.any(Unreachable),
    ]);
    server.page = page;
    server.pages = 0;
    const again = load();
    expect(await seen(again)).toEqual(idsOf(facts).sort());
    expect([server.pages, again.pull.errorOf(projectId)]).toEqual([2, null]);
  });

  test('stands from the disk with no network, and says nothing of it', async () => {
    await server.send(projectId, facts);
    await seen(load());
    server.reachable = false;
    const engine = load();
    expect(await seen(engine)).toHaveLength(24);
    expect(engine.closure(projectId, closureId).known!.facts[0]).toEqual(facts[0]);
  });

  test('is shown from the server where the disk has no room for it, and nothing can be recorded in it', async () => {
    await server.send(projectId, facts);
    const store = new IndexedStore(() => undefined);
    store.takePage = store.add = store.addNew = () => Promise.reject(new NotKept('full'));
    const engine = load({}, store);
    expect(await seen(engine)).toHaveLength(24);
    expect([await engine.append(projectId, facts[0]!), engine.log.notKept()]).toEqual([false, 'full']);
    // There is room again.
    const again = load();
    expect(await seen(again)).toHaveLength(24);
    server.reachable = false;
    expect(await seen(load())).toHaveLength(24);
  });

  test('keeps what a newer Cordel wrote, and counts it for nobody', async () => {
    await server.send(projectId, [{ ...facts[0]!, kind: 'seal', v: 1 }, facts[1]]);
    const engine = load();
    expect(await seen(engine)).toEqual([facts[1]!.id]);
    expect(engine.closure(projectId, closureId).known!.unread).toHaveLength(1);
  });
});

test('what the browser cleared while the page was open is kept again, and that is told until something else was recorded', async () => {
  server.reachable = false;
  const engine = load();
  await engine.append(projectId, facts[0]!);
  globalThis.indexedDB = new IDBFactory();
  const disk = new IndexedStore(() => undefined);
  // As the browser tells it.
  const again = load({}, disk);
  await again.ready;
  expect(again.log.entries()).toEqual([]);
  again.log['list'] = engine.log.entries();
  await again.lost();
  expect(again.log.notKept()).toBe('cleared');
  expect(idsOf(await disk.entries())).toEqual([facts[0]!.id]);
  await again.append(projectId, facts[1]!);
  expect(again.log.notKept()).toBeNull();
});

describe('a server whose database is an older copy that was restored', () => {
  /** It has the first three of five, one that somebody else recorded since, and other numbers. */
  const restore = () => {
    server.stored.set(projectId, [...facts.slice(0, 3), facts[10]!]);
    server.numbering = 'restored';
  };
  const begun = async () => {
    server.stored.set(projectId, facts.slice(0, 5));
    const engine = load();
    await seen(engine);
    return engine;
  };
  const all = idsOf([...facts.slice(0, 5), facts[10]!]).sort();

  test('is read anew, and what it lost goes to it once more', async () => {
    const engine = await begun();
    restore();
    await engine.pull.run(projectId);
    expect(known(engine)).toEqual(all);
    await engine.push.run();
    expect(engine.log.entries()).toEqual([]);
    expect([...server.ids(projectId)].sort()).toEqual(all);
    expect(await seen(load())).toEqual(all);
  });

  test('gets what is recorded before this device heard of it, and nothing is lost under its numbers', async () => {
    const engine = await begun();
    restore();
    await engine.append(projectId, facts[20]!);
    await engine.push.run();
    await engine.push.run();
    const wanted = [...all, facts[20]!.id].sort();
    expect([...server.ids(projectId)].sort()).toEqual(wanted);
    expect([known(engine), engine.log.entries()]).toEqual([wanted, []]);
  });

  test('is known by its last number too, where it does not say in which numbering it counts', async () => {
    const engine = await begun();
    server.stored.set(projectId, facts.slice(0, 2));
    await engine.pull.run(projectId);
    await engine.push.run();
    expect([...server.ids(projectId)].sort()).toEqual(idsOf(facts.slice(0, 5)).sort());
  });

  test('is heard of by the other tab', async () => {
    const engine = await begun();
    const news: unknown[] = [];
    const other = load({ tell: (one) => news.push(one) });
    await seen(other);
    restore();
    await other.pull.run(projectId);
    for (const one of news) await engine.heard(one as never);
    expect(known(engine)).toEqual(all);
  });
});

describe('two tabs', () => {
  /** Two pages on one disk that hear each other, as those of one browser do. */
  function two() {
    const tabs: Engine[] = [];
    const heard: Promise<void>[] = [];
    const tab = (index: number) =>
      load({
        tell: (news) => tabs.forEach((one, at) => at !== index && heard.push(one.heard(news))),
      });
    tabs.push(tab(0), tab(1));
    return {
      tabs: tabs as [Engine, Engine],
      settled: async () => {
        while (heard.length > 0) await Promise.all(heard.splice(0));
      },
    };
  }

  test('show what one records, sends, and what is refused of it', async () => {
    const { tabs, settled } = two();
    const [one, other] = tabs;
    await seen(one);
    await seen(other);
    server.bad.add(facts[1]!.id);
    for (const fact of facts.slice(0, 2)) await one.append(projectId, fact);
    await settled();
    expect([idsOf(other.log.waiting()), known(other)]).toEqual([idsOf(facts.slice(0, 2)), known(one)]);
    await other.push.run();
    await settled();
    for (const tab of tabs)
      expect([idsOf(tab.log.entries()), known(tab)]).toEqual([[facts[1]!.id], [facts[0]!.id]]);
    await one.log.drop([facts[1]!.id]);
    await server.send(projectId, [facts[5]]);
    await one.pull.run(projectId);
    await settled();
    expect([other.log.entries(), known(other)]).toEqual([[], idsOf([facts[0]!, facts[5]!]).sort()]);
  });
});

test.each([
  ['Cordel 0.1', 'device-storage-1'],
  ['Cordel before the database of the device', 'device-storage-2'],
])('what %s left on a phone is moved over once, to the last entry, and sent', async (_, fixture) => {
  const storage: Record<string, string> = jest.requireActual(`../../../core/test/fixtures/${fixture}.json`);
  Object.entries(storage).forEach(([key, value]) => localStorage.setItem(key, value));
  const wanted = Object.keys(storage).filter((key) => key.startsWith('cordel.outbox.'));
  const left = Object.keys(storage).length - wanted.length;
  const engine = load({ older: olderStorage });
  await engine.ready;
  expect(engine.log.entries().map(({ id }) => `cordel.outbox.${id}`)).toEqual(wanted.sort());
  expect(
    engine.log
      .entries()
      .every(({ fact, refused }) => fact?.v === factVersion(fact?.kind as Fact['kind']) && refused === null),
  ).toBe(true);
  expect(localStorage).toHaveLength(left);
  await engine.push.run();
  expect(engine.log.entries()).toEqual([]);
  expect([...server.stored.values()].flat()).toHaveLength(wanted.length);
});

test('an entry that cannot be read is moved over too: the person sees it, it is not sent, and is dropped only when they say so', async () => {
  localStorage.setItem('cordel.outbox.half', '{"half":');
  localStorage.setItem(
    'cordel.outbox.strange',
    JSON.stringify({ projectId, fact: { id: 'x', about: 'moon' } }),
  );
  localStorage.setItem('cordel.outbox.good', JSON.stringify({ projectId, fact: facts[0], refused: null }));
  const engine = load({ older: olderStorage });
  await engine.ready;
  expect(engine.log.entries()).toMatchObject([
    { id: facts[0]!.id, refused: null },
    { raw: '{"half":', fact: null, refused: expect.stringContaining('cannot read this record') },
    { raw: { about: 'moon' }, fact: null },
  ]);
  await engine.push.run();
  expect(server.ids(projectId)).toEqual([facts[0]!.id]);
  expect(engine.log.entries()).toHaveLength(2);
  await engine.log.drop(idsOf(engine.log.entries()));
  expect(engine.log.entries()).toEqual([]);
});

test('where the disk takes nothing, what an older version left stays where it is', async () => {
  localStorage.setItem('cordel.outbox.a', JSON.stringify({ projectId, fact: facts[0], refused: null }));
  const store = new IndexedStore(() => undefined);
  store.add = () => Promise.reject(new NotKept('full'));
  const engine = load({ older: olderStorage }, store);
  await engine.ready;
  expect([engine.log.notKept(), localStorage.getItem('cordel.outbox.a')]).toEqual([
    'full',
    expect.any(String),
  ]);
});

test('a project whose facts are large is sent in several requests', async () => {
  const engine = load();
  const large = (fact: (typeof facts)[number]) =>
    ({ ...fact, kind: 'trace', body: { text: 'x'.repeat(60_000) } }) as never;
  const send = jest.spyOn(server, 'send');
  server.reachable = false;
  for (const fact of facts) await engine.append(projectId, large(fact));
  server.reachable = true;
  await engine.push.tryNow();
  expect(server.ids(projectId)).toHaveLength(24);
  expect(send.mock.calls.map(([, given]) => given.length)).toEqual([16, 8]);
});

test('one that the disk has already, when it is told so too late, is there once', async () => {
  const store = new IndexedStore(() => undefined);
  const entry = { id: facts[0]!.id, projectId, raw: facts[0], refused: null };
  await store.addNew(entry);
  await store.addNew(entry);
  expect(await store.entries()).toHaveLength(1);
});

import '../../test/indexedDb';
import { buildLedger, type Fact } from '@cordel/core';
import fc from 'fast-check';
import { times } from '../../../core/test/times';
import { IDBFactory } from 'fake-indexeddb';
import { TestServer, Unreachable } from '../../test/factServer';
import { surroundings } from '../../test/engine';
import { attemptAt, smallJob } from '../../test/job';
import { planOf } from '../data/ledger';
import { Engine } from './engine';
import { IndexedStore } from './indexedStore';
import { NotKept } from './store';

/**
 * Two devices, each with two tabs, and one server. In whatever order they record, send, read, lose answers and die: in the end everybody has the same, each
 * fact once, and what is derived of it is the same.
 */
const job = smallJob();
const projectId = job.project.id;
const closure = job.closures[0]!;

/** What a request meets: "crash" ends the tab after the server stored it, before the answer is there. */
type Fate = 'well' | 'unreachable' | 'answer lost' | 'crash';
type Step =
  /** shown: it counts while the disk writes; full: which then refuses. */
  | { readonly do: 'record'; readonly bad: boolean; readonly shown: boolean; readonly full: boolean }
  | { readonly do: 'send'; readonly fate: Fate }
  /** Cut short after so many pages. */
  | { readonly do: 'read'; readonly pages: number }
  | { readonly do: 'restart' };
type Move = Step & { readonly device: number; readonly tab: number };

const oneIn = (many: number) => fc.integer({ min: 1, max: many }).map((one) => one === 1);
const fates = fc.constantFrom<Fate>('well', 'well', 'unreachable', 'answer lost', 'crash');
const steps = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('record' as const),
      bad: oneIn(5),
      shown: fc.boolean(),
      full: oneIn(6),
    }),
  },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('send' as const), fate: fates }) },
  {
    weight: 3,
    arbitrary: fc.record({ do: fc.constant('read' as const), pages: fc.integer({ min: 0, max: 4 }) }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('restart' as const) }) },
);
const moves: fc.Arbitrary<readonly Move[]> = fc.array(
  fc
    .tuple(steps, fc.integer({ min: 0, max: 1 }), fc.integer({ min: 0, max: 1 }))
    .map(([step, device, tab]) => ({ ...step, device, tab })),
  { maxLength: 40 },
);

/** A device: a disk, and tabs that hear each other. */
class Device {
  tabs: Engine[] = [];
  fate: Fate = 'well';
  pages = Infinity;
  private dying = 0;
  private onCrash = () => undefined as void;
  private heard: Promise<void>[] = [];
  /** What its disk has no room for. */
  readonly full = new Set<string>();
  private writing: Promise<unknown>[] = [];

  constructor(
    private readonly name: string,
    private readonly server: TestServer,
  ) {
    this.tabs = [0, 1].map((at) => this.load(at));
  }

  private load(at: number): Engine {
    const { server } = this;
    const store = new IndexedStore(() => undefined, this.name);
    const addNew = store.addNew.bind(store);
    store.addNew = (entry) => (this.full.has(entry.id) ? Promise.reject(new NotKept('full')) : addNew(entry));
    const engine = new Engine(
      surroundings(store, {
        server: {
          refusal: server.refusal,
          picture: server.picture.bind(server),
          sendPicture: async (of, id, bytes) => {
            if (this.fate === 'unreachable') throw new Unreachable();
            await server.sendPicture(of, id, bytes);
            if (this.fate !== 'well') throw new Unreachable();
          },
          send: async (of, facts) => {
            if (this.fate === 'unreachable') throw new Unreachable();
            const answer = await server.send(of, facts);
            if (this.fate === 'answer lost') throw new Unreachable();
            // The other tab may be sending by itself in this moment: it lives on.
            if (this.fate !== 'crash' || this.dying !== at) return answer;
            this.onCrash();
            return new Promise<never>(() => {});
          },
          page: (of, after) => {
            if ((this.pages -= 1) < 0) return Promise.reject(new Unreachable());
            return server.page(of, after);
          },
        },
        // No lock: that of a tab that died is free again.
        tell: (news) => this.tabs.forEach((one, other) => other !== at && this.heard.push(one.heard(news))),
        now: () => 0,
      }),
    );
    engine.closure(projectId, closure.id);
    return engine;
  }

  async settle(): Promise<void> {
    while (this.heard.length > 0) await Promise.all(this.heard.splice(0));
  }

  /** Goes on before the disk has it. */
  recordShown(at: number, fact: Fact): void {
    // How often it is shown.
    let counts = 0;
    const kept = this.tabs[at]!.append(
      projectId,
      fact,
      () => (counts += 1),
      () => (counts -= 1),
    );
    const wanted = this.full.has(fact.id) ? [false, 0] : [true, 1];
    this.writing.push(kept.then((is) => expect([is, counts]).toEqual(wanted)));
  }

  async written(): Promise<void> {
    await Promise.all(this.writing.splice(0));
  }

  restart(at: number): void {
    this.tabs[at]!.stop();
    this.tabs[at] = this.load(at);
  }

  async send(at: number, fate: Fate): Promise<void> {
    const tab = this.tabs[at]!;
    this.fate = fate;
    this.dying = at;
    if (fate === 'crash') await this.written();
    const stored = new Promise<void>((done) => (this.onCrash = done));
    await Promise.race([tab.push.run(), stored]);
    if (fate === 'crash') this.restart(at);
    this.fate = 'well';
  }

  async read(at: number, pages: number): Promise<void> {
    this.pages = pages;
    await this.tabs[at]!.pull.run(projectId);
    this.pages = Infinity;
  }
}

const ids = (list: readonly { readonly id: string }[]) => list.map((one) => one.id).sort();
const derived = (facts: readonly Fact[]) => {
  const { rollUp, trays } = buildLedger(planOf(closure, job), facts, job.project.limits);
  return JSON.stringify([rollUp, trays.map((tray) => tray.splices.map((splice) => splice.verdict))]);
};

test('ends in the same on both devices and the server', async () => {
  let made = 0;
  await fc.assert(
    fc.asyncProperty(moves, async (list) => {
      globalThis.indexedDB = new IDBFactory();
      const server = new TestServer();
      server.perPage = 3;
      const devices = [new Device('a', server), new Device('b', server)] as const;
      const good: string[] = [];
      const bad: [string[], string[]] = [[], []];
      for (const move of list) {
        const device = devices[move.device]!;
        if (move.do === 'record') {
          made += 1;
          const fact = attemptAt(job, made % 24, (made % 7) / 20, made % 60);
          if (move.full) device.full.add(fact.id);
          else if (move.bad) {
            server.bad.add(fact.id);
            bad[move.device]!.push(fact.id);
          } else good.push(fact.id);
          if (move.shown) device.recordShown(move.tab, fact);
          else expect(await device.tabs[move.tab]!.append(projectId, fact)).toBe(!move.full);
        } else if (move.do === 'send') await device.send(move.tab, move.fate);
        else if (move.do === 'read') await device.read(move.tab, move.pages);
        else {
          // What dies unwritten was never kept.
          await device.written();
          device.restart(move.tab);
        }
        await device.settle();
        // At no time is anything twice, or not where it was recorded.
        for (const tab of device.tabs) {
          const facts = tab.closure(projectId, closure.id).known?.facts ?? [];
          expect(new Set(ids(facts)).size).toBe(facts.length);
        }
      }
      for (const device of devices) await device.written();
      for (const device of [...devices, ...devices])
        for (const tab of device.tabs) {
          await tab.push.run();
          await tab.pull.run(projectId);
          await device.settle();
        }
      expect([...server.ids(projectId)].sort()).toEqual([...good].sort());
      const whole = derived((server.stored.get(projectId) ?? []) as Fact[]);
      devices.forEach((device, index) => {
        for (const tab of device.tabs) {
          expect(tab.log.waiting()).toEqual([]);
          expect(ids(tab.log.entries())).toEqual([...bad[index]!].sort());
          const { facts } = tab.closure(projectId, closure.id).known!;
          expect(ids(facts)).toEqual([...good].sort());
          expect(derived(facts)).toBe(whole);
          tab.stop();
        }
      });
    }),
    { numRuns: times(100, 3000) },
  );
}, 120_000);

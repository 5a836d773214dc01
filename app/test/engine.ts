import { Engine } from '../src/sync/engine';
import type { Store } from '../src/sync/store';
import type { Surroundings } from '../src/sync/surroundings';
import { replaceEngine } from '../src/sync/here';
import { MemoryStore } from '../src/sync/memoryStore';

const never = () => new Promise<never>(() => {});

/** A page alone on a disk, whose server does not answer unless the test says how. */
export const surroundings = (store: Store, other: Partial<Surroundings> = {}): Surroundings => ({
  disk: Promise.resolve({ store, trouble: null }),
  server: { send: never, page: never, sendPicture: never, picture: never, refusal: () => null },
  sendEdit: never,
  onStored: () => undefined,
  alone: (work) => work(),
  tell: () => undefined,
  older: { entries: () => [], moved: () => undefined },
  together: (work) => work(),
  onSent: () => undefined,
  now: Date.now,
  ...other,
});

/** An engine of its own on a disk in memory, which the hooks use from now on. */
export function testEngine(other: Partial<Surroundings> = {}) {
  const store = new MemoryStore();
  const engine = new Engine(surroundings(store, other));
  replaceEngine(engine);
  return { engine, store };
}

/** Puts facts on the disk as if the server had given them out, and the end of its list. */
export const fromServer = (store: MemoryStore, projectId: string, facts: readonly unknown[]) =>
  store.takePage(
    projectId,
    facts.map((raw, index) => ({ seq: index + 1, raw })),
    { cursor: facts.length, whole: true, at: 0 },
  );

import { flushSync } from 'react-dom';
import { answerOf, api, ProblemError } from '../data/api';
import { queryClient } from '../data/client';
import { device } from '../data/device';
import { keys } from '../data/keys';
import { showStored } from '../data/showStored';
import { sendEdit } from './editServer';
import { Engine } from './engine';
import type { FactServer, TabNews } from './surroundings';
import { IndexedStore } from './indexedStore';
import { MemoryStore } from './memoryStore';
import { olderStorage } from './older';
import { Snapshots } from './snapshots';
import type { NotKept } from './store';

/** A request that hangs on a bad network holds up what waits in every tab. ms */
const patience = 30_000;
/** A network that is slower than this does not carry a picture. Bytes/ms */
const slowest = 16;
const pictureAddress = (projectId: string, id: string) => `/api/projects/${projectId}/photos/${id}`;
const bounded = () => ({ init: { signal: AbortSignal.timeout(patience) } });

const server: FactServer = {
  send: (projectId, facts) =>
    answerOf(
      api.projects[':projectId'].facts.$post(
        { param: { projectId }, json: { facts: [...facts] } },
        bounded(),
      ) as never,
    ),
  page: (projectId, after) =>
    answerOf(
      api.projects[':projectId'].facts.$get(
        { param: { projectId }, query: { after: String(after) } },
        bounded(),
      ) as never,
    ),
  sendPicture: async (projectId, id, bytes) => {
    await answerOf(
      fetch(pictureAddress(projectId, id), {
        method: 'PUT',
        headers: { 'Content-Type': 'application/octet-stream', 'Cordel-Device': device },
        body: bytes,
        signal: AbortSignal.timeout(patience + bytes.byteLength / slowest),
      }),
    );
  },
  picture: async (projectId, id, size) => {
    const answer = await fetch(`${pictureAddress(projectId, id)}?size=${size}`, {
      signal: AbortSignal.timeout(patience * 2),
    });
    if (!answer.ok) await answerOf(Promise.resolve(answer));
    return answer.arrayBuffer();
  },
  // Too many, or too slow, is nobody's fault: it is tried again.
  refusal: (error) =>
    error instanceof ProblemError && error.status < 500 && error.status !== 408 && error.status !== 429
      ? error.message
      : null,
};

/** The words with which the server refused for good; null where it could not be reached, or is in trouble itself. */
export const finalRefusal = server.refusal;
const refused = (error: unknown) => finalRefusal(error) !== null;

interface Here {
  readonly engine: Engine;
  readonly snapshots: Snapshots;
}
let current: Here | null = null;

/** The one engine of this tab. */
export function engine(): Engine {
  return (current ??= ofThisBrowser()).engine;
}

/** The documents that this device keeps. */
export function snapshots(): Snapshots {
  return (current ??= ofThisBrowser()).snapshots;
}

/** For tests: an engine of their own. */
export function replaceEngine(other: Engine): void {
  current?.engine.stop();
  current = { engine: other, snapshots: new Snapshots(other.disk, Date.now, refused) };
}

function ofThisBrowser(): Here {
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('cordel');
  const indexed = new IndexedStore(() => void here.lost().catch(() => undefined));
  const disk = indexed.check().then(
    () => ({ store: indexed, trouble: null }),
    (error: NotKept) => ({ store: new MemoryStore(error), trouble: error.why }),
  );
  const here = new Engine({
    disk,
    server,
    sendEdit: (scope, edit) => sendEdit(scope, edit, finalRefusal),
    onStored: (scope, edit, stored) => showStored(queryClient, scope, edit, stored),
    // Where the browser has no locks, two tabs may send the same; the server stores it once.
    alone: async (work) => {
      await (navigator.locks ? navigator.locks.request('cordel-send', work) : work());
    },
    tell: (news) => channel?.postMessage(news),
    older: olderStorage,
    together: flushSync,
    onSent: (projectId) => {
      if (projectId === '') return;
      void queryClient.invalidateQueries({ queryKey: keys.progress(projectId) });
      void queryClient.invalidateQueries({ queryKey: keys.shelf });
      // Read again when somebody looks at it, and not for every reading.
      void queryClient.invalidateQueries({ queryKey: keys.gearBook, refetchType: 'none' });
    },
    now: Date.now,
  });
  channel?.addEventListener('message', ({ data }: MessageEvent<TabNews>) => void here.heard(data));
  window.addEventListener('online', () => void here.push.tryNow());
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void here.push.tryNow();
  });
  const snapshots = new Snapshots(disk, Date.now, refused);
  snapshots.follow(queryClient);
  return { engine: here, snapshots };
}

import { Worker } from 'node:worker_threads';
import type { Queries } from '../database/database';
import { breathe, factsAfter } from '../factStore';
import type { FromReport, ReportOrder, ToReport } from './messages';

/** A report as it is handed over. */
export interface Report {
  readonly bytes: Uint8Array;
  readonly fingerprint: string;
}

/** So many are made at once; the others wait their turn, so that however many are asked for there is memory for all. */
const mostAtOnce = 2;
let running = 0;
const waiting: (() => void)[] = [];

/** Resolves when it is one's turn. Rejects with the signal's reason where nobody waits for it any more. */
async function turn(signal: AbortSignal): Promise<void> {
  signal.throwIfAborted();
  if (running < mostAtOnce) {
    running += 1;
    return;
  }
  await new Promise<void>((go, fail) => {
    const begin = () => {
      signal.removeEventListener('abort', leave);
      go();
    };
    const leave = () => {
      waiting.splice(waiting.indexOf(begin), 1);
      fail(signal.reason as Error);
    };
    waiting.push(begin);
    signal.addEventListener('abort', leave, { once: true });
  });
}

/** Gives one's turn to who waits longest. */
function next(): void {
  const begin = waiting.shift();
  if (begin) begin();
  else running -= 1;
}

/** Facts that go to the thread in one message. */
const slice = 500;

/**
 * Makes a report on a thread of its own.
 * @param signal ends it, at once
 * @throws what ended the thread, or the signal's reason
 */
export async function makeReport(...asked: Parameters<typeof madeOnThread>): Promise<Report> {
  await turn(asked[2].signal);
  try {
    return await madeOnThread(...asked);
  } finally {
    next();
  }
}

async function madeOnThread(
  db: Queries,
  order: ReportOrder,
  { signal, onProgress }: { signal: AbortSignal; onProgress: (done: number, of: number) => void },
): Promise<Report> {
  // Beside the bundle that this is in.
  const worker = new Worker(new URL('./reportWorker.js', import.meta.url));
  const tell = (message: ToReport) => worker.postMessage(message);
  const stop = () => void worker.terminate();
  try {
    const made = new Promise<Report>((done, fail) => {
      worker.on('message', (message: FromReport) => {
        if (message.kind === 'made') done({ bytes: message.bytes, fingerprint: message.fingerprint });
        else onProgress(message.done, message.of);
      });
      worker.once('error', fail);
      worker.once('exit', () =>
        fail(signal.aborted ? (signal.reason as Error) : new Error('The report’s thread ended.')),
      );
    });
    // Told to whoever waits for it below.
    made.catch(() => undefined);
    signal.addEventListener('abort', stop);
    signal.throwIfAborted();
    for (let after = 0; ;) {
      const rows = await factsAfter(db, order.definition.project.id, after, slice);
      signal.throwIfAborted();
      tell({
        kind: 'facts',
        facts: rows.map(({ body, receivedAt }) => ({ fact: body, receivedAt: receivedAt.toISOString() })),
      });
      if (rows.length < slice) break;
      after = rows.at(-1)!.seq;
      await breathe();
    }
    tell({ kind: 'make', order });
    return await made;
  } finally {
    signal.removeEventListener('abort', stop);
    stop();
  }
}

import { Worker } from 'node:worker_threads';
import type { Queries } from '../database/database';
import { breathe, factsAfter } from '../factStore';
import { knownPictures, smallPictures } from '../pictures/pictureStore';
import { Turns } from '../turns';
import type { FromReport, ReportOrder, ToReport } from './messages';

/** A report as it is handed over. */
export interface Report {
  readonly bytes: Uint8Array;
  readonly fingerprint: string;
}

/** Two are made at once. */
const turns = new Turns(2);

/** Facts that go to the thread in one message. */
const slice = 500;

/**
 * Makes a report on a thread of its own.
 * @param signal ends it, at once
 * @throws what ended the thread, or the signal's reason
 */
export function makeReport(...asked: Parameters<typeof madeOnThread>): Promise<Report> {
  return turns.take(asked[2].signal, () => madeOnThread(...asked));
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
    const { definition, form, closureId } = order;
    tell({ kind: 'known-pictures', pictures: await knownPictures(db, definition.project.id) });
    if (form === 'pdf')
      for await (const pictures of smallPictures(db, definition.project.id, closureId)) {
        signal.throwIfAborted();
        tell({ kind: 'pictures', pictures });
      }
    tell({ kind: 'make', order });
    return await made;
  } finally {
    signal.removeEventListener('abort', stop);
    stop();
  }
}

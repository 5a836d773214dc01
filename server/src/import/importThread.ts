import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { FromWorker, ToWorker } from './messages';

/** The thread on which an import reads its file. Whatever ends it, what is asked of it fails then, and the server goes on. */
export class ImportThread {
  // Beside the bundle that this is in.
  private readonly worker = new Worker(new URL('./importWorker.js', import.meta.url));
  private readonly ended: Promise<never>;

  constructor() {
    this.ended = new Promise<never>((_, fail) => {
      this.worker.once('error', fail);
      this.worker.once('exit', () => fail(new Error('The import’s thread ended.')));
    });
    // Told to whoever asks.
    this.ended.catch(() => undefined);
  }

  tell(message: ToWorker): void {
    this.worker.postMessage(message);
  }

  async ask(message: ToWorker): Promise<FromWorker> {
    this.tell(message);
    const [answer] = (await Promise.race([once(this.worker, 'message'), this.ended])) as [FromWorker];
    return answer;
  }

  end(): void {
    void this.worker.terminate();
  }
}

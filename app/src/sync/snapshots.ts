import { hashKey, type QueryClient, type QueryFunctionContext, type QueryKey } from '@tanstack/react-query';
import type { Store } from './store';

/** To be raised when the server gives a document out in a shape in which this app cannot read what an older version of it kept. */
const snapshotShape = 1;

/** How long the server may take before what is on the disk is shown. ms */
const patience = 1000;

/**
 * Documents of the server as they were last seen, on the disk of this device: shown where the server does not answer, or not at once.
 */
export class Snapshots {
  /** What of each is on the disk, as far as this tab knows. */
  private readonly kept = new Map<string, unknown>();

  constructor(
    private readonly disk: Promise<{ readonly store: Store }>,
    private readonly now: () => number,
    private readonly refused: (error: unknown) => boolean,
  ) {}

  /** Keeps whatever these queries are answered with, or set to after a save. Returns what ends that. */
  follow(client: QueryClient): () => void {
    return client.getQueryCache().subscribe((event) => {
      const key = event.query.queryHash;
      if (event.type === 'removed') void this.drop(key);
      else if (event.type === 'updated' && event.action.type === 'success')
        void this.keep(key, event.query.state.data);
    });
  }

  /**
   * Answers a query whose document is not shown yet: from the server where it answers at once, else with what is on the disk, and with the server's when it comes
   * after that. What the server refuses is not answered from the disk.
   * @param ask rejects with something that `refused` knows where the server has an answer, and the answer is no
   */
  answer<T>(ask: () => Promise<T>): (context: QueryFunctionContext<QueryKey>) => Promise<T> {
    return async ({ client, queryKey }) => {
      const asked = ask();
      if (client.getQueryData(queryKey) !== undefined) return asked;
      let waits: ReturnType<typeof setTimeout> | undefined;
      const soon = await Promise.race([
        asked.then(
          (data) => ({ data }),
          (error: unknown) => (this.refused(error) ? { error } : null),
        ),
        new Promise<null>((done) => (waits = setTimeout(() => done(null), patience))),
      ]);
      clearTimeout(waits);
      if (soon && 'error' in soon) throw soon.error;
      if (soon) return soon.data;
      const snapshot = await this.read(hashKey(queryKey));
      if (snapshot === undefined) return asked;
      asked.then(
        (data) => client.setQueryData(queryKey, data),
        () => undefined,
      );
      return snapshot as T;
    };
  }

  private async read(key: string): Promise<unknown> {
    const { store } = await this.disk;
    // What the disk cannot give is asked of the server.
    const snapshot = await store.snapshot(key).catch(() => undefined);
    if (snapshot?.shape !== snapshotShape) return undefined;
    this.kept.set(key, snapshot.data);
    return snapshot.data;
  }

  private async keep(key: string, data: unknown): Promise<void> {
    if (this.kept.get(key) === data) return;
    this.kept.set(key, data);
    const { store } = await this.disk;
    // With no room for it the newest is asked of the server the next time; nothing of the person's is lost.
    await store
      .keepSnapshot({ key, data, shape: snapshotShape, at: this.now() })
      .catch(() => this.kept.delete(key));
  }

  /** Takes documents from this device, whether they were shown since the page was loaded or not. */
  async forget(queryKeys: readonly QueryKey[]): Promise<void> {
    await Promise.all(queryKeys.map((queryKey) => this.drop(hashKey(queryKey))));
  }

  private async drop(key: string): Promise<void> {
    this.kept.delete(key);
    const { store } = await this.disk;
    await store.dropSnapshot(key).catch(() => undefined);
  }
}

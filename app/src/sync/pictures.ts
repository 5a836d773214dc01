import type { PictureSize, Store, StoredPicture } from './store';
import type { Surroundings } from './surroundings';

type Waiting = Pick<StoredPicture, 'id' | 'projectId'>;

/** The pictures of photos on this device: taken here and on their way to the server, or fetched from it to be looked at. */
export class Pictures {
  private store!: Store;
  private waiting: readonly Waiting[] = [];
  /** Being kept just now. */
  private readonly coming = new Set<string>();
  private readonly begun: Promise<void>;

  constructor(private readonly around: Surroundings) {
    this.begun = this.around.disk.then(({ store }) => void (this.store = store));
  }

  /** Takes those on their way as they are on the disk now. */
  async refresh(): Promise<void> {
    await this.begun;
    this.waiting = await this.store.unsentPictures();
  }

  /** One is on its way once it is kept with its fact, which `keeping` resolves with. */
  async comes(id: string, projectId: string, keeping: Promise<boolean>): Promise<void> {
    this.coming.add(id);
    if (await keeping) this.waiting = [...this.waiting.filter((one) => one.id !== id), { id, projectId }];
    this.coming.delete(id);
  }

  readonly onTheirWay = (): readonly Waiting[] => this.waiting;

  /** Whether the picture has to go before its fact. */
  readonly waits = (id: string): boolean => this.coming.has(id) || this.waiting.some((one) => one.id === id);

  /** Brings one to the server. Rejects where it could not, with the server's refusal or because it is away. */
  async send({ id, projectId }: Waiting): Promise<void> {
    const bytes = await this.store.picture(id, 'own');
    if (bytes) await this.around.server.sendPicture(projectId, id, bytes);
    await this.settled(id);
  }

  /** Nothing more is to be sent of it. */
  async settled(id: string): Promise<void> {
    await this.store.pictureSent(id);
    this.waiting = this.waiting.filter((one) => one.id !== id);
  }

  /** The person gave these up. */
  async drop(ids: readonly string[]): Promise<void> {
    await this.begun;
    await this.store.dropPictures(ids);
    this.waiting = this.waiting.filter((one) => !ids.includes(one.id));
  }

  /**
   * A picture to be shown, JPEG: from this device where it is, else from the server, and it is kept here then. Rejects where it is on neither.
   */
  async read(projectId: string, id: string, size: Exclude<PictureSize, 'own'>): Promise<ArrayBuffer> {
    await this.begun;
    const here = (await this.store.picture(id, 'own')) ?? (await this.store.picture(id, size));
    if (here) return here;
    const bytes = await this.around.server.picture(projectId, id, size);
    // Where there is no room it is only shown.
    await this.store.keepPicture({ id, size, projectId, bytes }).catch(() => undefined);
    return bytes;
  }

  /**
   * Brings the small pictures of a project's photos to this device. Rejects where the server is away; those that it has not, since they are on the device that took them, are
   * left out.
   */
  async bring(projectId: string): Promise<void> {
    await this.begun;
    for (const raw of await this.store.allFacts(projectId)) {
      const { kind, id, body } = raw as { kind?: unknown; id: string; body?: { did?: unknown } };
      if (kind !== 'photo' || body?.did !== 'taken') continue;
      await this.read(projectId, id, 'small').catch((error: unknown) => {
        if (this.around.server.refusal(error) === null) throw error;
      });
    }
  }
}

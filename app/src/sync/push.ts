import type { Edits } from './edits';
import { Listeners } from './listeners';
import type { Log } from './log';
import { closureIn, type Entry } from './read';
import type { Pictures } from './pictures';
import type { Receipt, Surroundings } from './surroundings';

/** "away": the server could not be reached, or not store it; it is tried again by itself. */
export type Sending = 'rest' | 'sending' | 'away';

/** Facts in one request, and characters: the server takes 4 MB. */
const mostInGroup = 200;
const mostText = 1_000_000;
const firstWait = 1000;
const longestWait = 30_000;

/** Brings what waits to the server, project by project, in order, as often as it takes; only one tab of this device at a time. */
export class Push {
  private running: Promise<void> | null = null;
  private again = false;
  private wait = firstWait;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private stopped = false;
  private status: Sending = 'rest';
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.subscribe;

  /**
   * @param onSettled called with the cursor of a project after the server took facts of it
   * @param readAnew called where the numbers of a project's facts are other ones than before: reads them, and confirms what the server has
   */
  constructor(
    private readonly around: Surroundings,
    private readonly log: Log,
    private readonly edits: Edits,
    private readonly pictures: Pictures,
    private readonly onSettled: (projectId: string, cursor: number) => void,
    private readonly readAnew: (projectId: string) => Promise<void>,
  ) {}

  readonly sending = (): Sending => this.status;

  /** Sends everything that waits, as far as that goes now. Never rejects. */
  run(): Promise<void> {
    if (this.running) {
      this.again = true;
      return this.running;
    }
    clearTimeout(this.timer);
    this.timer = undefined;
    this.running = Promise.all([this.log.ready, this.edits.ready])
      .then(() =>
        this.around.alone(async () => {
          do {
            this.again = false;
            await this.sendAll();
          } while (this.again && !this.stopped);
        }),
      )
      .catch(() => this.later())
      .then(() => {
        this.running = null;
        // Something came when nothing was looked for any more.
        if (this.again && !this.stopped) return this.run();
      });
    return this.running;
  }

  /** The network may be back. */
  tryNow(): Promise<void> {
    this.wait = firstWait;
    return this.run();
  }

  soon(ms: number): void {
    if (this.running) this.again = true;
    else if (this.timer === undefined) this.in(ms);
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
  }

  private later(): void {
    clearTimeout(this.timer);
    this.in(this.wait);
    this.wait = Math.min(this.wait * 2, longestWait);
  }

  private in(ms: number): void {
    if (this.stopped) return;
    this.timer = setTimeout(() => {
      this.timer = undefined;
      void this.run();
    }, ms);
  }

  private say(status: Sending): void {
    if (this.status === status) return;
    this.status = status;
    this.listeners.tell();
  }

  /** What is waiting and can be sent: not what is recorded of something that the server cannot know yet, nor what a picture goes ahead of. */
  private sendable(): readonly Entry[] {
    return this.log
      .waiting()
      .filter((entry) => !this.pictures.waits(entry.id) && !this.isHeld(entry.projectId, entry.raw));
  }

  private isHeld(projectId: string, raw: unknown): boolean {
    return this.edits.of(projectId).length > 0 && this.edits.holds(projectId, closureIn(raw));
  }

  /**
   * Edits of documents first, since records may be about something that they make; then records, the oldest first; then pictures, one at a time and each with its
   * record, so that no reading waits behind many of them. A project that cannot be sent now holds up no other.
   */
  private async sendAll(): Promise<void> {
    // Another tab may have recorded, edited or sent some.
    await Promise.all([this.log.refresh(), this.edits.refresh(), this.pictures.refresh()]);
    const failed = new Set<string>();
    const scopes = this.edits.waitingScopes();
    if (scopes.length + this.sendable().length + this.pictures.onTheirWay().length > 0) this.say('sending');
    for (const scope of scopes) {
      if (this.stopped) break;
      await this.edits.send(scope).catch(() => failed.add(scope));
      this.around.onSent(scope);
    }
    const passed = new Set<string>();
    while (!this.stopped)
      if (!(await this.sendRecords(failed)) && !(await this.sendPicture(failed, passed))) break;
    this.say(failed.size > 0 ? 'away' : 'rest');
    if (failed.size > 0) this.later();
    else this.wait = firstWait;
  }

  /** The next group of records; false where there is none. */
  private async sendRecords(failed: Set<string>): Promise<boolean> {
    const next = this.sendable().find((entry) => !failed.has(entry.projectId));
    if (!next) return false;
    const { projectId } = next;
    const group = groupOf(this.sendable().filter((entry) => entry.projectId === projectId));
    if (!(await this.sendGroup(projectId, group))) failed.add(projectId);
    this.around.onSent(projectId);
    return true;
  }

  /**
   * The next picture; its record follows as one of the others. false where there is none.
   * @param passed those that are not to be sent in this round
   */
  private async sendPicture(failed: Set<string>, passed: Set<string>): Promise<boolean> {
    const next = this.pictures
      .onTheirWay()
      .find(({ id, projectId }) => !passed.has(id) && !failed.has(projectId));
    if (!next) return false;
    const { id, projectId } = next;
    // Without one it was handed on, and the server has it.
    const entry = this.log.entries().find((one) => one.id === id);
    if (entry && (entry.refused !== null || this.isHeld(projectId, entry.raw))) {
      passed.add(id);
      return true;
    }
    try {
      await this.pictures.send(next);
    } catch (error) {
      const message = this.around.server.refusal(error);
      if (message === null) failed.add(projectId);
      else if (entry) await this.settle(projectId, { accepted: [], refused: [{ id, message }] });
      else await this.pictures.settled(id);
    }
    return true;
  }

  /** false: try again later. */
  private async sendGroup(projectId: string, group: readonly Entry[]): Promise<boolean> {
    const { server } = this.around;
    try {
      const receipt = await server.send(
        projectId,
        group.map((entry) => entry.fact),
      );
      if (!(await this.settle(projectId, receipt))) return this.read(projectId, group);
      const told = new Set([...receipt.accepted, ...receipt.refused].map((one) => one.id));
      return group.some((entry) => told.has(entry.id));
    } catch (error) {
      const message = server.refusal(error);
      if (message === null) return false;
      // A group with one bad fact must not hold up the others: they are sent one by one, and only the bad one is set aside.
      if (group.length > 1) {
        for (const entry of group) if (!(await this.sendGroup(projectId, [entry]))) return false;
        return true;
      }
      await this.settle(projectId, { accepted: [], refused: [{ id: group[0]!.id, message }] });
      return true;
    }
  }

  /** false where the numbers of the project's facts are other ones than before. */
  private async settle(projectId: string, receipt: Receipt): Promise<boolean> {
    const cursor = await this.log.settle(projectId, receipt);
    if (typeof cursor === 'number') this.onSettled(projectId, cursor);
    return cursor !== 'renumbered';
  }

  /** Whether reading the project brought a group that was sent further. */
  private async read(projectId: string, group: readonly Entry[]): Promise<boolean> {
    await this.readAnew(projectId);
    const waiting = new Set(this.log.waiting().map((entry) => entry.id));
    return group.some((entry) => !waiting.has(entry.id));
  }
}

/** As many of the oldest as go in one request. */
function groupOf(entries: readonly Entry[]): readonly Entry[] {
  let text = 0;
  const end = entries.findIndex((entry, index) => {
    text += JSON.stringify(entry.fact).length;
    return index === mostInGroup || (index > 0 && text > mostText);
  });
  return end < 0 ? entries : entries.slice(0, end);
}

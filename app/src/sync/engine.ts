import type { Fact } from '@cordel/core';
import type { DocumentEdit } from '@cordel/core/edits';
import type { ClosureFacts } from './closureFacts';
import { Edits } from './edits';
import { Log } from './log';
import { Pictures } from './pictures';
import { Pull } from './pull';
import { Push } from './push';
import type { Surroundings, TabNews } from './surroundings';
import type { AnyFact } from './store';
import { Views } from './views';

/** A reading is on the disk already; sending it must not hold up the verdict that is being drawn. ms */
const afterEntry = 300;
/** The first screen has the device to itself. ms */
const afterStart = 1000;
/** The tab that told may be put to sleep; else it is the one that sends. ms */
const afterOthers = 1000;

/**
 * Facts on this device. Everything that is recorded goes through `append`: what is not on the disk does not count, and what is goes to the server as often as that
 * takes (`push`); what the server has comes here by its numbers (`pull`). Knows nothing of React.
 */
export class Engine {
  private readonly views = new Views();
  readonly log: Log;
  readonly edits: Edits;
  readonly pictures: Pictures;
  readonly pull: Pull;
  readonly push: Push;
  /** What this device kept is known. */
  readonly ready: Promise<void>;
  readonly disk: Surroundings['disk'];

  constructor(around: Surroundings) {
    this.disk = around.disk;
    this.pictures = new Pictures(around);
    this.log = new Log(around, this.views, this.pictures);
    this.edits = new Edits(around);
    this.pull = new Pull(around, this.log, this.edits, this.views, () => this.push.soon(0));
    this.push = new Push(
      around,
      this.log,
      this.edits,
      this.pictures,
      (projectId, cursor) => this.pull.noteCursor(projectId, cursor),
      (projectId) => this.pull.run(projectId),
    );
    this.ready = Promise.all([
      this.pull.ready,
      this.edits.ready,
      this.pictures.refresh().catch(() => undefined),
    ]).then(() => {
      const { log, edits, pictures } = this;
      if (log.waiting().length + edits.waitingScopes().length + pictures.onTheirWay().length > 0)
        this.push.soon(afterStart);
    });
  }

  /**
   * Records a fact. Resolves with whether it is kept on this device; where it is not, nothing was recorded.
   * @param shown called when it counts, in the same moment, with all facts of its closure: after it is kept
   * @param takenBack given by a screen that cannot wait for the disk: the fact counts at once, while it is written. Where the disk refuses it counts no more, and this is
   *   called in the same moment, to take back what `shown` did
   * @param picture that the fact tells of: both are kept, or neither, and it goes to the server ahead of the fact
   */
  async append(
    projectId: string,
    fact: Fact,
    shown: (facts: readonly Fact[]) => void = () => undefined,
    takenBack?: () => void,
    picture?: ArrayBuffer,
  ): Promise<boolean> {
    const keeping = this.log.append(projectId, fact, shown, takenBack, picture);
    if (picture) await this.pictures.comes(fact.id, projectId, keeping);
    const kept = await keeping;
    if (kept) this.push.soon(afterEntry);
    return kept;
  }

  /**
   * Keeps an edit of a document on this device, to be sent. Rejects with `NotKept` where it cannot, and nothing is changed.
   * @param scope the project, or "" for what all projects share
   * @param tried it was sent, and it is not known what became of it
   */
  async keepEdit(scope: string, edit: DocumentEdit, tried = false): Promise<void> {
    await this.ready;
    // What is made here has no history anywhere else: all of it is here.
    if (edit.kind === 'project') await this.pull.bear(scope);
    await this.edits.keep(scope, edit, tried);
    this.push.soon(0);
  }

  /**
   * Takes what somebody hands over of a project: records, and edits of its documents that no server has. All that is new is sent from here too. Rejects with
   * `NotKept`; what was taken until then stays, and the file can be taken again.
   */
  async take(
    projectId: string,
    facts: readonly AnyFact[],
    edits: readonly DocumentEdit[],
  ): Promise<{ readonly records: number }> {
    await this.ready;
    await this.edits.take(projectId, edits);
    const records = await this.log.take(projectId, facts);
    this.push.soon(0);
    return { records };
  }

  /** The facts of a closure, to be watched. */
  closure(projectId: string, closureId: string): ClosureFacts {
    return this.pull.closure(projectId, closureId);
  }

  /** Puts refused ones on their way again: what stood in the way was mended. */
  async sendAgain(ids: readonly string[]): Promise<void> {
    await this.log.putBack(ids);
    await this.edits.putBack(ids);
    await this.push.run();
  }

  /** What another tab of this device did. */
  async heard(news: TabNews): Promise<void> {
    await this.ready;
    if ('project' in news) return this.pull.reread(news.project);
    await Promise.all([this.log.refresh(), this.edits.refresh()]);
    if (this.log.waiting().length + this.edits.waitingScopes().length > 0) this.push.soon(afterOthers);
  }

  /** The browser threw away what it kept. What is still known here is kept again. */
  async lost(): Promise<void> {
    await this.log.keepAgain();
    await this.edits.keepAgain();
    await this.pull.readAnew();
  }

  stop(): void {
    this.push.stop();
    this.pull.stop();
  }
}

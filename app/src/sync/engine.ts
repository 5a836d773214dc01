import type { Fact } from '@cordel/core';
import type { ClosureFacts } from './closureFacts';
import { Log } from './log';
import { Pull } from './pull';
import { Push } from './push';
import type { Surroundings, TabNews } from './surroundings';
import { Views } from './views';

/** A reading is on the disk already; sending it must not hold up the verdict that is being drawn. ms */
const afterEntry = 100;
/** The tab that told may be put to sleep; else it is the one that sends. ms */
const afterOthers = 1000;

/**
 * Facts on this device. Everything that is recorded goes through `append`: it is on the disk before anybody counts it, and goes to the server as often as
 * that takes (`push`); what the server has comes here by its numbers (`pull`). Knows nothing of React.
 */
export class Engine {
  private readonly views = new Views();
  readonly log: Log;
  readonly pull: Pull;
  readonly push: Push;
  /** What this device kept is known. */
  readonly ready: Promise<void>;
  readonly disk: Surroundings['disk'];

  constructor(around: Surroundings) {
    this.disk = around.disk;
    this.log = new Log(around, this.views);
    this.pull = new Pull(around, this.log, this.views);
    this.push = new Push(around, this.log, (projectId, cursor) => this.pull.noteCursor(projectId, cursor));
    this.ready = this.pull.ready.then(() => {
      if (this.log.waiting().length > 0) this.push.soon(0);
    });
  }

  /**
   * Records a fact. Resolves with whether it is kept on this device; where it is not, nothing was recorded.
   * @param shown called when it counts, in the same moment, with all facts of its closure
   */
  async append(
    projectId: string,
    fact: Fact,
    shown: (facts: readonly Fact[]) => void = () => undefined,
  ): Promise<boolean> {
    const kept = await this.log.append(projectId, fact, shown);
    if (kept) this.push.soon(afterEntry);
    return kept;
  }

  /** The facts of a closure, to be watched. */
  closure(projectId: string, closureId: string): ClosureFacts {
    return this.pull.closure(projectId, closureId);
  }

  /** Puts refused ones on their way again: what stood in the way was mended. */
  async sendAgain(ids: readonly string[]): Promise<void> {
    await this.log.putBack(ids);
    await this.push.run();
  }

  /** What another tab of this device did. */
  async heard(news: TabNews): Promise<void> {
    await this.ready;
    if ('project' in news) return this.pull.reread(news.project);
    await this.log.refresh();
    if (this.log.waiting().length > 0) this.push.soon(afterOthers);
  }

  /** The browser threw away what it kept. What is still known here is kept again. */
  async lost(): Promise<void> {
    await this.log.keepAgain();
    await this.pull.readAnew();
  }

  stop(): void {
    this.push.stop();
    this.pull.stop();
  }
}

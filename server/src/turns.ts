/** Work that takes much memory: so many at once, the others wait their turn, so that however many are asked for there is room for all. */
export class Turns {
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(private readonly mostAtOnce: number) {}

  /** Runs `work` when it is its turn. Rejects with the signal's reason where nobody waits for it any more before that. */
  async take<T>(signal: AbortSignal, work: () => Promise<T>): Promise<T> {
    await this.turn(signal);
    try {
      return await work();
    } finally {
      this.next();
    }
  }

  private async turn(signal: AbortSignal): Promise<void> {
    signal.throwIfAborted();
    if (this.running < this.mostAtOnce) {
      this.running += 1;
      return;
    }
    await new Promise<void>((go, fail) => {
      const begin = () => {
        signal.removeEventListener('abort', leave);
        go();
      };
      const leave = () => {
        this.waiting.splice(this.waiting.indexOf(begin), 1);
        fail(signal.reason as Error);
      };
      this.waiting.push(begin);
      signal.addEventListener('abort', leave, { once: true });
    });
  }

  /** Gives one's turn to who waits longest. */
  private next(): void {
    const begin = this.waiting.shift();
    if (begin) begin();
    else this.running -= 1;
  }
}

import type { LogRow, MachineEvent, MachineLink, MachineStatus, Stop } from './link';
import type { StandInCommand } from './command';
import type { StandIn } from './standIn';

/** The time by which a stand-in runs, and what waits for it. */
export interface MachineClock {
  /** ms since 1970. */
  now(): number;
  /** Has `work` done at this time, or at once where that is over. Gives what calls it off. */
  at(time: number, work: () => void): () => void;
}

/** What of `setTimeout` is needed. */
export interface Timers {
  now(): number;
  after(ms: number, work: () => void): () => void;
}

/** A clock that runs so many times as fast as that of the timers, from the same moment on. */
export function clockAt(speed: number, timers: Timers): MachineClock {
  const began = timers.now();
  const now = () => began + (timers.now() - began) * speed;
  return { now, at: (time, work) => timers.after(Math.max(0, time - now()) / speed, work) };
}

/** A stand-in that runs by a clock and tells what happens. */
export class RunningStandIn {
  private readonly listeners = new Set<(events: readonly MachineEvent[]) => void>();
  private callOff: () => void = () => undefined;

  constructor(
    readonly machine: StandIn,
    private readonly clock: MachineClock,
  ) {}

  status(): MachineStatus {
    this.look();
    return this.machine.status();
  }

  log(after: number): readonly LogRow[] {
    this.look();
    return this.machine.log(after);
  }

  /** See `StandIn.eventsAfter`. */
  eventsAfter(after: number): readonly MachineEvent[] | null {
    this.look();
    return this.machine.eventsAfter(after);
  }

  /** @throws NotNow */
  command(command: StandInCommand): void {
    const { last } = this.machine.status();
    try {
      this.machine.command(command, this.clock.now());
    } finally {
      this.heard(this.machine.eventsAfter(last) ?? []);
    }
  }

  /** Told what happens from now on. Gives what ends it. */
  subscribe(listener: (events: readonly MachineEvent[]) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  stop(): void {
    this.callOff();
    this.listeners.clear();
  }

  private look(): void {
    this.heard(this.machine.advance(this.clock.now()));
  }

  private heard(events: readonly MachineEvent[]): void {
    this.callOff();
    const next = this.machine.next();
    this.callOff = next === Infinity ? () => undefined : this.clock.at(next, () => this.look());
    if (events.length > 0) for (const listener of [...this.listeners]) listener(events);
  }
}

/** A link to stand-ins that run here: in this page's worker, or in this server. */
export class StandInLink implements MachineLink {
  constructor(
    private readonly machines: ReadonlyMap<
      string,
      { readonly name: string; readonly running: RunningStandIn }
    >,
  ) {}

  async discover() {
    return [...this.machines].map(([id, { name }]) => ({ id, name, simulated: true }));
  }

  async status(machineId: string): Promise<MachineStatus> {
    return this.at(machineId).status();
  }

  async log(machineId: string, after: number): Promise<readonly LogRow[]> {
    return this.at(machineId).log(after);
  }

  async *events(machineId: string, after: number, signal: Stop): AsyncGenerator<MachineEvent> {
    const running = this.at(machineId);
    const waiting: MachineEvent[] = [];
    let wake: () => void = () => undefined;
    const missed = running.eventsAfter(after);
    if (!missed) throw new Error('The machine has forgotten what happened in between. Read its memory.');
    const end = running.subscribe((events) => {
      waiting.push(...events);
      wake();
    });
    signal.addEventListener('abort', () => wake());
    try {
      yield* missed;
      while (!signal.aborted) {
        const next = waiting.shift();
        if (next) yield next;
        else await new Promise<void>((go) => (wake = go));
      }
    } finally {
      end();
    }
  }

  /** @throws where there is none of that identifier */
  at(machineId: string): RunningStandIn {
    const found = this.machines.get(machineId);
    if (!found) throw new Error('There is no such machine any more. Look for machines again.');
    return found.running;
  }
}

import { z } from 'zod';
import { newGear, type Machine } from '../gear/gear';
import type { StandInCommand } from './command';
import { faultsSchema } from './faults';
import type { FoundMachine, MachineStatus } from './link';
import { clockAt, RunningStandIn, StandInLink, type Timers } from './running';
import { StandIn, type StandInOptions } from './standIn';

/** How a stand-in is set before it is practised with. */
export const standInSettingsSchema = z.strictObject({
  seed: z.int().min(0).max(Number.MAX_SAFE_INTEGER),
  faults: faultsSchema.default({}),
  /** 1: as long as a real one takes. */
  speed: z.number().min(1).max(1000).default(1),
  pausesBeforeArc: z.boolean().default(true),
});
export type StandInSettings = Readonly<z.infer<typeof standInSettingsSchema>>;

const kinds: readonly (readonly [name: string, aligns: StandInOptions['aligns']])[] = [
  ['Simulated machine, single fibers', 'cores'],
  ['Simulated machine, ribbons', 'grooves'],
];

interface Own {
  readonly name: string;
  readonly running: RunningStandIn;
}

/** The two simulated machines that a device practises with: on a server, or in a worker of its page. */
export class OwnStandIns {
  private readonly machines = new Map<string, Own>();
  readonly link = new StandInLink(this.machines);

  constructor(
    private readonly timers: Timers,
    private readonly newId: () => string,
    /** A seed for who asks for none. */
    private readonly newSeed: () => number,
  ) {
    for (const [name, aligns] of kinds)
      this.machines.set(newId(), { name, running: this.run({ aligns }, 1) });
  }

  found(): readonly FoundMachine[] {
    return [...this.machines].map(([id, { name }]) => ({ id, name, simulated: true }));
  }

  at(machineId: string): RunningStandIn | undefined {
    return this.machines.get(machineId)?.running;
  }

  /** @throws NotNow; where there is no such machine as well */
  command(machineId: string, command: StandInCommand): MachineStatus {
    const running = this.link.at(machineId);
    running.command(command);
    return running.status();
  }

  /** Puts a new one in place of another. It has a memory, numbers and an identifier of its own, which is given. */
  renew(machineId: string, { speed, ...settings }: StandInSettings): string {
    const { name } = this.machines.get(machineId)!;
    const [, aligns] = kinds.find((one) => one[0] === name)!;
    this.at(machineId)!.stop();
    const id = this.newId();
    const made = { name, running: this.run({ aligns, ...settings }, speed) };
    const others = [...this.machines].map(([one, own]) =>
      one === machineId ? ([id, made] as const) : ([one, own] as const),
    );
    this.machines.clear();
    others.forEach(([one, own]) => this.machines.set(one, own));
    return id;
  }

  stop(): void {
    this.machines.forEach(({ running }) => running.stop());
  }

  private run(
    options: Partial<StandInOptions> & Pick<StandInOptions, 'aligns'>,
    speed: number,
  ): RunningStandIn {
    const gear = newGear('machine', this.newId(), 'Simulated') as Machine;
    return new RunningStandIn(
      new StandIn({ seed: this.newSeed(), gear, ...options }),
      clockAt(speed, this.timers),
    );
  }
}

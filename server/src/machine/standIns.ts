import { newGear, type Machine } from '@cordel/core/gear';
import {
  clockAt,
  RunningStandIn,
  StandIn,
  StandInLink,
  type StandInOptions,
  type Timers,
} from '@cordel/core/machine';
import { randomUUID } from 'node:crypto';

/** Devices that have stand-ins of their own; the one that was asked for longest ago loses them first. */
const mostDevices = 100;

const timers: Timers = {
  now: Date.now,
  after(ms, work) {
    // Far off is looked at again on the way: a timer takes no more than 2³¹ ms.
    const timer = setTimeout(work, Math.min(ms, 2 ** 31 - 1));
    return () => clearTimeout(timer);
  },
};

const kinds: readonly (readonly [name: string, aligns: StandInOptions['aligns']])[] = [
  ['Simulated machine, single fibers', 'cores'],
  ['Simulated machine, ribbons', 'grooves'],
];

interface Own {
  readonly link: StandInLink;
  readonly machines: Map<string, { name: string; running: RunningStandIn }>;
}

/**
 * Simulated splicing machines, two for each device, so that nobody practises at somebody else's. They live as long as the server does, and cost nothing while nothing is
 * done at them.
 */
export class StandIns {
  private readonly devices = new Map<string, Own>();

  /** Those of a device, made where it has none yet. */
  of(device: string): Own {
    const known = this.devices.get(device);
    const own = known ?? made();
    this.devices.delete(device);
    this.devices.set(device, own);
    for (const [oldest, { machines }] of this.devices) {
      if (this.devices.size <= mostDevices) break;
      machines.forEach(({ running }) => running.stop());
      this.devices.delete(oldest);
    }
    return own;
  }

  /** Puts one in place of another: with this seed, speed, faults and weather, and nothing in its memory. Its identifier stays. */
  renew(
    device: string,
    machineId: string,
    options: Partial<StandInOptions> & { readonly speed?: number },
  ): void {
    const { machines } = this.of(device);
    const before = machines.get(machineId);
    if (!before) return;
    before.running.stop();
    const aligns = kinds.find(([name]) => name === before.name)![1];
    machines.set(machineId, { name: before.name, running: run({ aligns, ...options }, options.speed ?? 1) });
  }
}

function made(): Own {
  const machines = new Map(
    kinds.map(([name, aligns]) => [randomUUID() as string, { name, running: run({ aligns }, 1) }]),
  );
  return { machines, link: new StandInLink(machines) };
}

function run(
  options: Partial<StandInOptions> & Pick<StandInOptions, 'aligns'>,
  speed: number,
): RunningStandIn {
  const gear = newGear('machine', randomUUID(), 'Simulated') as Machine;
  const seed = Math.floor(Math.random() * 2 ** 31);
  return new RunningStandIn(new StandIn({ seed, gear, ...options }), clockAt(speed, timers));
}

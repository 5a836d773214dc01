import { OwnStandIns, type Timers } from '@cordel/core/machine';
import { randomInt, randomUUID } from 'node:crypto';

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

/**
 * Simulated splicing machines, two for each device, so that nobody practises at somebody else's. They live as long as the server does, and cost nothing while nothing is
 * done at them.
 */
export class StandIns {
  private readonly devices = new Map<string, OwnStandIns>();

  /** Those of a device, made where it has none yet. */
  of(device: string): OwnStandIns {
    const own = this.devices.get(device) ?? new OwnStandIns(timers, randomUUID, () => randomInt(2 ** 31));
    this.devices.delete(device);
    this.devices.set(device, own);
    for (const [oldest, standIns] of this.devices) {
      if (this.devices.size <= mostDevices) break;
      standIns.stop();
      this.devices.delete(oldest);
    }
    return own;
  }
}

import type {
  FoundMachine,
  MachineEvent,
  MachineLink,
  StandInCommand,
  StandInSettings,
} from '@cordel/core/machine';
import { proxy, wrap, type Endpoint } from 'comlink';
import { device } from '../device';
import type { MachineFound, MachineService } from './serveMachines';

/** Splicing machines as the page sees them: a link, and hands at those that are simulated. */
export interface Machines extends MachineLink {
  discover(): Promise<readonly MachineFound[]>;
  /** Gives why it cannot be done now, in words, or null. */
  command(machineId: string, command: StandInCommand): Promise<string | null>;
  /** Gives the identifier of the one that took its place. */
  renew(machineId: string, settings: StandInSettings): Promise<string>;
}
export type { MachineFound };

let own: Machines | null = null;

/** Machines that are heard in a worker of this page, which lives as long as the page: those that are simulated in it keep their memory from screen to screen. */
export function machinesHere(): Machines {
  own ??= machinesOver(new Worker('/machine.worker.js', { name: device, type: 'module' }));
  return own;
}

/** @param endpoint of a `MachineService` */
export function machinesOver(endpoint: Endpoint): Machines {
  const service = wrap<MachineService>(endpoint);
  let listened = 0;
  return {
    discover: async () => (await service.discover()) as readonly MachineFound[] & readonly FoundMachine[],
    status: (machineId) => service.status(machineId),
    log: (machineId, after) => service.log(machineId, after),
    command: (machineId, command) => service.command(machineId, command),
    renew: (machineId, settings) => service.renew(machineId, settings),
    async *events(machineId, after, signal) {
      listened += 1;
      const number = listened;
      const waiting: MachineEvent[] = [];
      let ended = false;
      let failed: { readonly error: unknown } | null = null;
      let wake: () => void = () => undefined;
      const told = (event: MachineEvent) => {
        waiting.push(event);
        wake();
      };
      if (signal.aborted) return;
      signal.addEventListener('abort', () => {
        void service.stop(number);
        wake();
      });
      service
        .listen(number, machineId, after, proxy(told))
        .then(
          () => (ended = true),
          (error: unknown) => (failed = { error }),
        )
        .finally(() => wake());
      try {
        while (!signal.aborted) {
          const next = waiting.shift();
          if (next) yield next;
          else if (failed) throw (failed as { error: unknown }).error;
          else if (ended) return;
          else await new Promise<void>((go) => (wake = go));
        }
      } finally {
        void service.stop(number);
      }
    },
  };
}

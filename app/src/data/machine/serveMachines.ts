import {
  NotNow,
  type OwnStandIns,
  standInCommandSchema,
  standInSettingsSchema,
  type FoundMachine,
  type MachineEvent,
  type MachineLink,
  type MachineStatus,
  type StandInCommand,
  type StandInSettings,
} from '@cordel/core/machine';

/** Where a machine is reached: one that is simulated in this page's worker, or one that the server reaches. */
export interface MachineFound extends FoundMachine {
  readonly where: 'page' | 'server';
}

/** The server as far as machines are concerned. */
export interface MachineServer {
  readonly link: MachineLink;
  command(machineId: string, command: StandInCommand): Promise<MachineStatus>;
  renew(machineId: string, settings: StandInSettings): Promise<string>;
}

/** What a page asks of the worker that hears machines for it. */
export interface MachineService {
  discover(): Promise<readonly MachineFound[]>;
  status(machineId: string): Promise<MachineStatus>;
  log(machineId: string, after: number): ReturnType<MachineLink['log']>;
  /** Tells events until `stop` is called with the same number; rejects where the machine cannot be heard any more. */
  listen(
    number: number,
    machineId: string,
    after: number,
    onEvent: (event: MachineEvent) => void,
  ): Promise<void>;
  stop(number: number): void;
  /** Hands at a simulated machine. Gives why it cannot be done now, in words, or null. */
  command(machineId: string, command: StandInCommand): Promise<string | null>;
  /** Gives the identifier of the one that took its place. */
  renew(machineId: string, settings: StandInSettings): Promise<string>;
}

/** Machines of this page and those of the server, behind one service. */
export function serveMachines(own: OwnStandIns, server: MachineServer): MachineService {
  const stops = new Map<number, AbortController>();
  const linkOf = (machineId: string) => (own.at(machineId) ? own.link : server.link);
  return {
    async discover() {
      const here = own.found().map((one) => ({ ...one, where: 'page' as const }));
      // With no network those of this page are left.
      const there = await server.link.discover().catch(() => []);
      return [...there.map((one) => ({ ...one, where: 'server' as const })), ...here];
    },
    status: (machineId) => linkOf(machineId).status(machineId),
    log: (machineId, after) => linkOf(machineId).log(machineId, after),
    async listen(number, machineId, after, onEvent) {
      const stop = new AbortController();
      stops.set(number, stop);
      try {
        for await (const event of linkOf(machineId).events(machineId, after, stop.signal)) onEvent(event);
      } finally {
        stops.delete(number);
      }
    },
    stop: (number) => stops.get(number)?.abort(),
    async command(machineId, command) {
      try {
        if (own.at(machineId)) own.command(machineId, standInCommandSchema.parse(command));
        else await server.command(machineId, command);
        return null;
      } catch (error) {
        if (error instanceof NotNow) return error.message;
        throw error;
      }
    },
    renew: async (machineId, settings) =>
      own.at(machineId)
        ? own.renew(machineId, standInSettingsSchema.parse(settings))
        : server.renew(machineId, settings),
  };
}

import type { MachineEvent, MachineLink, MachineStatus, Stop } from '@cordel/core/machine';

/** How it stands with the link to a machine. */
export type LinkState =
  | { readonly is: 'looking' }
  | { readonly is: 'listening' }
  /** It is tried again by itself; until then everything is entered by hand. */
  | { readonly is: 'dropped'; readonly why: string };

export interface ListenerWays {
  /** Number of the last event that was dealt with before; null where nothing of this machine is known. */
  readonly after: number | null;
  /** The machine answers; first, and each time after the link was down. What happened up to `status.last` was missed. */
  readonly onStatus: (status: MachineStatus, after: number) => void;
  /** Dealt with one after the other: the next one is told when this is over. */
  readonly onEvent: (event: MachineEvent) => Promise<void>;
  readonly onLink: (state: LinkState) => void;
  /** Resolves after so many ms, or earlier when it may be worth a try, or the signal is aborted. */
  readonly pause: (ms: number) => Promise<void>;
}

/** Between tries, ms: the first comes at once, the later ones more seldom. */
const pauses = [500, 1000, 2000, 5000, 10_000];

/** Listens to a machine until the signal is aborted, and goes on where it was after each drop of the link. */
export async function listenTo(
  link: MachineLink,
  machineId: string,
  signal: Stop,
  { after: from, onStatus, onEvent, onLink, pause }: ListenerWays,
): Promise<void> {
  let after = from;
  let tries = 0;
  let fruitless = 0;
  onLink({ is: 'looking' });
  while (!signal.aborted) {
    try {
      const status = await link.status(machineId);
      if (signal.aborted) return;
      const { last } = status;
      // Its numbers begin anew where its memory was cleared; and what it has forgotten it can't tell, however often it is asked.
      if (after === null || after > last || fruitless > 1) after = last;
      fruitless += 1;
      onStatus(status, after);
      onLink({ is: 'listening' });
      tries = 0;
      for await (const event of link.events(machineId, after, signal)) {
        if (signal.aborted) return;
        await onEvent(event);
        fruitless = 0;
        after = event.number;
      }
    } catch (error) {
      if (signal.aborted) return;
      onLink({ is: 'dropped', why: error instanceof Error ? error.message : String(error) });
    }
    if (signal.aborted) return;
    await pause(pauses[Math.min(tries, pauses.length - 1)]!);
    tries += 1;
  }
}

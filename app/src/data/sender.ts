import type { QueryClient } from '@tanstack/react-query';
import { answerOf, api, ProblemError } from './api';
import { leaveOut } from './facts';
import { keys } from './keys';
import { outbox, type OutboxEntry } from './outbox';

const batch = 200;
const longestWait = 30_000;
/** A reading is kept on the device already; sending it must not hold up the verdict that is being drawn. */
const afterEntry = 100;

/** Brings the outbox to the server, in order, as often as it takes. Returns a function that stops it. */
export function startSender(client: QueryClient): () => void {
  let stopped = false;
  let busy = false;
  let wait = 1000;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const run = async () => {
    if (busy || stopped) return;
    busy = true;
    clearTimeout(timer);
    let group = nextGroup();
    while (group.length > 0 && !stopped) {
      try {
        await send(client, group);
        wait = 1000;
      } catch (error) {
        // A group with one bad fact must not hold up the others: it is sent one by one, and only the bad one is set aside.
        if (error instanceof ProblemError && error.status < 500) {
          await sendOneByOne(client, group);
        } else {
          timer = setTimeout(() => void run(), wait);
          wait = Math.min(wait * 2, longestWait);
          break;
        }
      }
      void client.invalidateQueries({ queryKey: keys.progress(group[0]!.projectId) });
      void client.invalidateQueries({ queryKey: keys.shelf });
      group = nextGroup();
    }
    busy = false;
  };

  let soon: ReturnType<typeof setTimeout> | undefined;
  const unsubscribe = outbox.subscribe(() => {
    if (busy || soon !== undefined) return;
    soon = setTimeout(() => {
      soon = undefined;
      void run();
    }, afterEntry);
  });
  const online = () => {
    wait = 1000;
    void run();
  };
  window.addEventListener('online', online);
  void run();
  return () => {
    stopped = true;
    clearTimeout(timer);
    clearTimeout(soon);
    unsubscribe();
    window.removeEventListener('online', online);
  };
}

/** The oldest waiting facts of one project. */
function nextGroup(): OutboxEntry[] {
  const waiting = outbox.waiting();
  return waiting.filter((entry) => entry.projectId === waiting[0]!.projectId).slice(0, batch);
}

async function send(client: QueryClient, group: readonly OutboxEntry[]): Promise<void> {
  const { accepted, refused } = await answerOf(
    api.projects[':projectId'].facts.$post({
      param: { projectId: group[0]!.projectId },
      json: { facts: group.map((entry) => entry.fact) },
    }),
  );
  outbox.remove(new Set(accepted.map((fact) => fact.id)));
  for (const { id, message } of refused) {
    const entry = group.find((one) => one.fact.id === id);
    if (entry) refuse(client, entry, message);
  }
}

function refuse(client: QueryClient, { projectId, fact }: OutboxEntry, reason: string): void {
  outbox.refuse(fact.id, reason);
  leaveOut(client, projectId, fact);
}

async function sendOneByOne(client: QueryClient, group: readonly OutboxEntry[]): Promise<void> {
  for (const entry of group) {
    try {
      await send(client, [entry]);
    } catch (error) {
      if (!(error instanceof ProblemError) || error.status >= 500) return;
      refuse(client, entry, error.message);
    }
  }
}

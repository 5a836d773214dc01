import { tickTargets, type KitLine } from '@cordel/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { keys } from '../../data/keys';
import { outbox } from '../../data/outbox';
import { newTick } from '../../data/tickFacts';
import { useKitTicks } from './useKitTicks';

const id = (number: number) => `01900000-0000-7000-8000-${String(number).padStart(12, '0')}`;
const [projectId, u1, u2] = [id(1), id(2), id(3)];
const line = (item: string) => ({ item }) as KitLine;
const kits = [
  { closureId: u1, lines: [line('wipe'), line('mesh')] },
  { closureId: u2, lines: [line('wipe')] },
];

beforeEach(() => {
  outbox.remove(new Set(outbox.entries().map((entry) => entry.fact.id)));
  localStorage.clear();
  // The server does not answer.
  globalThis.fetch = jest.fn(() => new Promise(() => {})) as never;
});

function open(known: readonly string[], ticked: readonly [string, string][] = []) {
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } });
  for (const closureId of known)
    client.setQueryData(keys.facts(projectId, closureId), {
      facts: ticked
        .filter(([at]) => at === closureId)
        .map(([at, item]) => newTick(at, tickTargets.item(item), 'done', null)),
      unread: [],
      last: 0,
    });
  return renderHook(() => useKitTicks(projectId, kits), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    ),
  }).result;
}

test('before it is known what is packed nothing is ticked, and nothing is recorded', () => {
  const ticks = open([u1], [[u1, 'mesh']]);
  expect([ticks.current.ready, ticks.current.isTicked('mesh')]).toEqual([false, false]);
  act(() => ticks.current.set(['mesh', 'wipe'], true));
  expect(outbox.entries()).toEqual([]);
});

test('a line of the night is ticked when it is at every closure that asks for it, and one tick ticks them all', async () => {
  const ticks = open([u1, u2], [[u1, 'wipe']]);
  expect([ticks.current.ready, ticks.current.isTicked('wipe')]).toEqual([true, false]);
  act(() => ticks.current.set(['wipe'], true));
  expect(outbox.entries().map((entry) => entry.fact)).toMatchObject([
    { kind: 'tick', subject: { closureId: u2 }, body: { state: 'done' } },
  ]);
  await waitFor(() => expect(ticks.current.isTicked('wipe')).toBe(true));
});

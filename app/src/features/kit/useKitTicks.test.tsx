import { tickTargets, type KitLine } from '@cordel/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import { fromServer, testEngine } from '../../../test/engine';
import type { Engine } from '../../sync/engine';
import { newTick } from '../../data/tickFacts';
import { useFactsOf } from '../../sync/react';
import { useKitTicks } from './useKitTicks';

const id = (number: number) => `01900000-0000-7000-8000-${String(number).padStart(12, '0')}`;
const [projectId, u1, u2] = [id(1), id(2), id(3)];
const line = (item: string) => ({ item }) as KitLine;
const kits = [
  { closureId: u1, lines: [line('wipe'), line('mesh')] },
  { closureId: u2, lines: [line('wipe')] },
];

let engine: Engine;
afterEach(() => engine.stop());

async function open(known: boolean, ticked: readonly [string, string][] = []) {
  const { store, engine: own } = testEngine();
  engine = own;
  if (known)
    await fromServer(
      store,
      projectId,
      ticked.map(([at, item]) => newTick(at, tickTargets.item(item), 'done', null)),
    );
  return renderHook(() => useKitTicks(projectId, kits, useFactsOf(projectId, [u1, u2]))).result;
}

test('before it is known what is packed nothing is ticked, and nothing is recorded', async () => {
  const ticks = await open(false, [[u1, 'mesh']]);
  expect([ticks.current.ready, ticks.current.isTicked('mesh')]).toEqual([false, false]);
  await act(async () => ticks.current.set(['mesh', 'wipe'], true));
  expect(engine.log.entries()).toEqual([]);
});

test('a line of the night is ticked when it is at every closure that asks for it, and one tick ticks them all', async () => {
  const ticks = await open(true, [[u1, 'wipe']]);
  await waitFor(() => expect([ticks.current.ready, ticks.current.isTicked('wipe')]).toEqual([true, false]));
  await act(async () => ticks.current.set(['wipe'], true));
  expect(engine.log.entries().map((entry) => entry.fact)).toMatchObject([
    { kind: 'tick', subject: { closureId: u2 }, body: { state: 'done' } },
  ]);
  await waitFor(() => expect(ticks.current.isTicked('wipe')).toBe(true));
});

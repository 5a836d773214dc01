import {
  byTray,
  findSplice,
  knownFact,
  type Fact,
  type ProjectDefinition,
  type WorkOrder,
} from '@cordel/core';
import { nothingSeen } from '@cordel/core/gear';
import { act, renderHook } from '@testing-library/react';
import { useState } from 'react';
import { fromServer, testEngine } from '../../../../test/engine';
import { attemptAt, ribbonJob, smallJob } from '../../../../test/job';
import { ledgerOf } from '../../../data/ledger';
import type { Engine } from '../../../sync/engine';
import type { MemoryStore } from '../../../sync/memoryStore';
import { useClosureFacts } from '../../../sync/react';
import { NotKept } from '../../../sync/store';
import type { Bench } from './types';
import { useBench } from './useBench';

let engine: Engine;
let store: MemoryStore;
beforeEach(() => {
  localStorage.clear();
  ({ engine, store } = testEngine());
  jest.useFakeTimers({ now: Date.parse('2026-04-15T02:00:00.000Z') });
});
afterEach(() => {
  engine.stop();
  jest.useRealTimers();
});

interface Start {
  definition?: ProjectDefinition;
  facts?: readonly Fact[];
  /** Position on the cord, from 0. */
  at?: number;
  order?: WorkOrder;
  /** Positions at which somebody else stands. */
  taken?: readonly number[];
}

/** Somebody who stands at the bench. */
async function stand({
  definition = smallJob(),
  facts = [],
  at = 0,
  order = byTray,
  taken = [],
}: Start = {}) {
  const closure = definition.closures[0]!;
  const projectId = definition.project.id;
  await fromServer(store, projectId, facts);
  const view = engine.closure(projectId, closure.id);
  // Read from the disk.
  await act(async () => {
    while (!view.known) await null;
  });
  const { plan } = ledgerOf(definition, closure, facts);
  const idOf = (position: number) => plan.splices[position]!.id;
  const others = new Set(taken.map(idOf));
  const recorded = jest.fn();
  const takenBack = jest.fn();
  const { result } = renderHook(() => {
    const [hereId, setHere] = useState(idOf(at));
    const known = useClosureFacts(projectId, closure.id).data!.facts;
    const ledger = ledgerOf(definition, closure, known);
    const here = findSplice(ledger, hereId)!;
    const [go] = useState(() => (state: typeof here) => setHere(state.splice.id));
    const bench = useBench(projectId, { definition, closure, ledger, facts: known }, here, {
      go,
      order,
      taken: others,
      onRecorded: recorded,
      onTakenBack: takenBack,
    });
    return { bench, here };
  });
  return {
    now: () => result.current,
    recorded,
    takenBack,
    /** What the bench says, and where one stands after it. */
    said: () => [result.current.bench.last?.text, result.current.here.splice.slot],
    do: (work: (bench: ReturnType<typeof useBench>) => void) => act(async () => work(result.current.bench)),
    stateAt: (position: number) =>
      findSplice(ledgerOf(definition, closure, view.known!.facts), idOf(position))!,
  };
}
const kept = () => engine.log.entries().map((entry) => knownFact(entry.fact!)!);

test('a reading that holds is kept on the device, said, and moves on to the next splice', async () => {
  const at = await stand();
  await at.do((bench) => bench.record(0.03));
  expect(at.said()).toEqual(['Slot 1 holds: 0.03 of 0.10 dB.', 2]);
  expect(kept()).toMatchObject([{ kind: 'attempt', body: { source: 'hand', readings: [{ loss: 0.03 }] } }]);
});

test('a ribbon that is half read, and what was noted of it, are there after the page was loaded anew; on record they are gone', async () => {
  const definition = ribbonJob();
  const before = await stand({ definition });
  await before.do((bench) => bench.record(0.03));
  await before.do((bench) => bench.setDetails({ ...bench.details, note: 'dusty' }));
  const after = await stand({ definition });
  expect([after.now().bench.read, after.now().bench.details.note]).toEqual([[0.03], 'dusty']);
  await after.do((bench) => bench.recordSame());
  expect(kept()).toMatchObject([{ body: { note: 'dusty' } }]);
  expect((await stand({ definition })).now().bench.read).toEqual([]);
});

test('where the device has no room for it nothing is recorded, said or left, and the ribbon is still read', async () => {
  const at = await stand({ definition: ribbonJob() });
  await at.do((bench) => bench.setDetails({ ...bench.details, note: 'dusty' }));
  await at.do((bench) => bench.record(0.03));
  const before = at.said();
  store.refuses = new NotKept('full');
  await at.do((bench) => bench.recordSame());
  expect([at.said(), kept(), engine.log.notKept()]).toEqual([before, [], 'full']);
  expect([at.now().bench.read, at.now().bench.details.note]).toEqual([[0.03], 'dusty']);
  expect([at.stateAt(0).verdict.tries, at.takenBack.mock.calls.length]).toEqual([0, 1]);
  store.refuses = null;
  await at.do((bench) => bench.recordSame());
  expect([kept().length, engine.log.notKept(), at.stateAt(0).verdict.tries]).toEqual([1, null, 1]);
  expect([at.recorded.mock.calls.length, at.takenBack.mock.calls.length]).toEqual([2, 1]);
});

test('what the disk refuses after it was shown is taken back with everything that followed from it', async () => {
  const definition = smallJob();
  const at = await stand({ definition, facts: [attemptAt(definition, 0, 0.4)], at: 1 });
  await at.do((bench) => bench.record(0.03));
  const before = at.said();
  expect(before[1]).toBe(3);
  store.refuses = new NotKept('full');
  for (const work of [
    (bench: Bench) => bench.record(0.03),
    (bench: Bench) => bench.record(0.4),
    (bench: Bench) => bench.record(null),
    (bench: Bench) => bench.recordLight('dark'),
    (bench: Bench) => bench.takeBack(),
  ]) {
    await at.do(work);
    expect([at.said(), at.stateAt(2).verdict.tries, kept().length]).toEqual([before, 0, 1]);
  }
  expect(at.stateAt(1).verdict.mark).toBe('holds');
});

/** From now on nothing is on the disk before it is let through. */
function slowDisk(): (() => void)[] {
  const addNew = store.addNew.bind(store);
  const disk: (() => void)[] = [];
  store.addNew = async (entry) => {
    await new Promise<void>((done) => disk.push(done));
    return addNew(entry);
  };
  return disk;
}

test('a reading is shown while the disk writes it, and what a quick hand enters meanwhile goes to the splice that is next then', async () => {
  const at = await stand();
  const disk = slowDisk();
  await at.do((bench) => {
    bench.record(0.03);
    bench.record(0.04);
  });
  expect([at.said(), at.stateAt(0).verdict.tries]).toEqual([['Slot 1 holds: 0.03 of 0.10 dB.', 2], 1]);
  expect([kept(), disk.length]).toEqual([[], 1]);
  await act(async () => disk[0]!());
  expect(at.said()).toEqual(['Slot 2 holds: 0.04 of 0.10 dB.', 3]);
  await act(async () => disk[1]!());
  expect(kept()).toHaveLength(2);
});

test('losses from a sheet, which closes then, are on the disk before they are shown', async () => {
  const at = await stand({ definition: ribbonJob() });
  const disk = slowDisk();
  await at.do((bench) => bench.recordAll(Array<number>(12).fill(0.02)));
  expect([at.said(), at.recorded.mock.calls.length]).toEqual([[undefined, 1], 0]);
  await act(async () => disk[0]!());
  expect([at.said()[1], at.recorded.mock.calls.length]).toEqual([2, 1]);
});

test('what was entered after one that the disk did not take was meant for the next splice, and goes to none', async () => {
  const at = await stand();
  jest.spyOn(store, 'addNew').mockRejectedValueOnce(new NotKept('full'));
  await at.do((bench) => {
    bench.record(0.03);
    bench.record(0.04);
  });
  expect([kept(), at.said()]).toEqual([[], [undefined, 1]]);
});

test('one over the limit stays where it is, and its third try is the owner’s call', async () => {
  const at = await stand();
  for (const loss of [0.4, 0.3, 0.2]) await at.do((bench) => bench.record(loss));
  expect(at.said()).toEqual([expect.stringMatching(/^Slot 1 is the owner’s call\./), 1]);
  await at.do((bench) => bench.answer('allow'));
  expect(at.said()).toEqual([expect.stringMatching(/^Slot 1 is allowed\./), 1]);
  expect(kept().map((fact) => fact.kind)).toEqual(['attempt', 'attempt', 'attempt', 'owner-answer']);
});

test('the next splice is by the order of work, and never one at which somebody stands', async () => {
  expect((await stand({ taken: [1, 2] })).now().here.splice.slot).toBe(1);
  const passing = await stand({ taken: [1, 2] });
  await passing.do((bench) => bench.record(0.02));
  expect(passing.said()[1]).toBe(4);

  const definition = smallJob();
  const facts = [attemptAt(definition, 7, 0.4), attemptAt(definition, 20, 0.5)];
  const redo = await stand({ definition, facts, at: 7, order: { by: 'redo' } });
  await redo.do((bench) => bench.record(0.02));
  expect(redo.said()[1]).toBe(21);
  await redo.do((bench) => bench.record(0.02));
  await redo.do((bench) => bench.skip());
  expect(redo.said()).toEqual(['Nothing else is left in this order of work.', 21]);
});

test('what was just recorded is taken back with one tap, for ten seconds', async () => {
  const at = await stand();
  await at.do((bench) => bench.record(0.03));
  await at.do((bench) => bench.takeBack());
  expect(at.said()).toEqual(['Slot 1: the reading is taken back.', 1]);
  expect(at.stateAt(0).verdict.mark).toBe('open');
  expect(kept()[1]).toMatchObject({
    kind: 'correction',
    body: { attemptId: kept()[0]!.id, result: null, because: 'taken-back' },
  });

  await at.do((bench) => bench.record(0.04));
  act(() => jest.advanceTimersByTime(9_900));
  expect(at.now().bench.last!.takeBack).not.toBeNull();
  act(() => jest.advanceTimersByTime(200));
  expect(at.now().bench.last!.takeBack).toBeNull();
  await at.do((bench) => bench.takeBack());
  expect(kept()).toHaveLength(3);
});

test('angles, notes and a forgotten sleeve go on record with the next reading, and with no other splice', async () => {
  const at = await stand();
  await at.do((bench) =>
    bench.setDetails({
      ...bench.details,
      before: [{ ...nothingSeen, cleaveLeft: 0.6, offset: 1.5 }],
      note: '  wet trench ',
      sleeveConfirmed: true,
    }),
  );
  await at.do((bench) => bench.record(0.03));
  expect(kept()[0]!.body).toMatchObject({
    note: 'wet trench',
    sleeveConfirmed: true,
    readings: [{ loss: 0.03, cleaveLeft: 0.6, cleaveRight: null, offset: 1.5 }],
  });
  expect(at.now().bench.details).toMatchObject({ note: '', before: [] });

  await at.do((bench) => bench.setDetails({ ...bench.details, note: 'for slot 2' }));
  await at.do((bench) => bench.skip());
  await at.do((bench) => bench.record(0.03));
  expect(kept()[1]!.body).toMatchObject({ note: '' });
});

test('one that broke before it could be read is a failed proof test, a mechanical joint that glows is none', async () => {
  const broken = await stand();
  await broken.do((bench) => bench.record(null));
  expect(kept()[0]!.body).toMatchObject({ proofTestFailed: true, readings: [{ loss: null }] });
  expect(broken.said()[1]).toBe(1);
  const mechanical = await stand();
  await mechanical.do((bench) => bench.recordLight('glows'));
  expect(kept()[1]!.body).toMatchObject({ proofTestFailed: false, light: 'glows' });
});

test('a ribbon is read fiber by fiber and recorded with its last one', async () => {
  const at = await stand({ definition: ribbonJob() });
  for (let fiber = 1; fiber < 12; fiber += 1) await at.do((bench) => bench.record(fiber / 1000));
  expect(kept()).toEqual([]);
  expect(at.said()).toEqual(['Fiber 11 of 12 reads 0.011.', 1]);
  await at.do((bench) => bench.takeBack());
  expect(at.said()).toEqual(['Fiber 11 of 12: read it again.', 1]);
  await at.do((bench) => bench.record(0.05));
  await at.do((bench) => bench.record(0.06));
  expect(at.said()[1]).toBe(2);
  const [attempt] = kept();
  expect(attempt!.kind === 'attempt' && attempt!.body.readings.map(({ loss }) => loss)).toEqual([
    0.001, 0.002, 0.003, 0.004, 0.005, 0.006, 0.007, 0.008, 0.009, 0.01, 0.05, 0.06,
  ]);
});

test('the rest of a ribbon reads as its last fiber did; half of one that was left is not taken along', async () => {
  const at = await stand({ definition: ribbonJob() });
  await at.do((bench) => bench.record(0.02));
  await at.do((bench) => bench.skip());
  expect(at.now().bench.read).toEqual([]);
  await at.do((bench) => bench.record(0.01));
  await at.do((bench) => bench.record(0.03));
  await at.do((bench) => bench.recordSame());
  const [attempt] = kept();
  expect(attempt!.kind === 'attempt' && attempt!.body.readings.map(({ loss }) => loss)).toEqual([
    0.01,
    ...Array<number>(11).fill(0.03),
  ]);
});

test('a correction judges anew; a sleeve that was forgotten makes the last try one to be done again', async () => {
  const definition = smallJob();
  const at = await stand({ definition, facts: [attemptAt(definition, 0, 0.03)] });
  await at.do((bench) => bench.sleeveForgotten());
  expect(at.stateAt(0).verdict).toMatchObject({ mark: 'redo' });
  expect(at.said()[0]).toContain('The sleeve was forgotten.');
  expect(kept()[0]).toMatchObject({ kind: 'correction', body: { because: 'sleeve-forgotten' } });
});

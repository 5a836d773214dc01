import { factVersion, type Calibration, type GearEvent } from '@cordel/core';
import {
  machineStanding,
  newGear,
  type Cleaver,
  type Gear,
  type GearBook,
  type Machine,
} from '@cordel/core/gear';
import { randomUUID } from 'node:crypto';
import { Presence } from '../src/presence';
import { oneServer } from './journey';
import { makeAttempt, makeProject } from './makeProject';
import { dataFolder, request, startServer } from './process';

let api: string;

oneServer((_, address) => {
  api = address;
});

const gearNow = async () => (await request<{ gear: Gear[] }>(`${api}/gear`)).body.gear;
const bookAfter = async (after = '') =>
  (await request<{ book: GearBook; last: string }>(`${api}/gear/book?after=${after}`)).body;

async function newProject() {
  const made = makeProject();
  await request(`${api}/projects`, 'POST', made.definition);
  return { ...made, project: `${api}/projects/${made.definition.project.id}` };
}

describe('gear', () => {
  test('is put on the list, changed and taken off it', async () => {
    const item = newGear('cleaver', randomUUID(), 'Mine') as Cleaver;
    const url = `${api}/gear/${item.id}`;
    expect((await request(url, 'PUT', item)).status).toBe(200);
    expect(await gearNow()).toContainEqual(item);
    expect((await request(url, 'PUT', { ...item, cleaveLength: 16 })).status).toBe(200);
    expect(await gearNow()).toContainEqual({ ...item, cleaveLength: 16, version: 2 });
    // Somebody else still has the first version on the screen.
    const late = await request<{ current: Gear }>(url, 'PUT', { ...item, label: 'Theirs' });
    expect(late.status).toBe(409);
    expect(late.body.current).toMatchObject({ label: 'Mine', version: 2 });
    expect((await request(`${url}?version=1`, 'DELETE')).status).toBe(409);
    expect((await request(`${url}?version=2`, 'DELETE')).status).toBe(200);
    expect((await gearNow()).some((one) => one.id === item.id)).toBe(false);
    // A phone that still shows it does not bring it back.
    for (const version of [1, 2, 3]) {
      const revived = await request<{ detail: string }>(url, 'PUT', { ...item, version });
      expect([revived.status, revived.body.detail]).toEqual([
        409,
        expect.stringContaining('Somebody deleted this piece of gear'),
      ]);
    }
    expect((await request(`${url}?version=2`, 'DELETE')).status).toBe(404);
    const unknown = { ...newGear('cleaver', randomUUID(), 'Never there'), version: 4 };
    expect((await request(`${api}/gear/${unknown.id}`, 'PUT', unknown)).status).toBe(404);
    expect((await gearNow()).some((one) => one.id === item.id || one.id === unknown.id)).toBe(false);
  });

  test.each([
    [
      'a rule that is no number',
      (item: Machine) => ({ ...item, rules: { ...item.rules, splices125: 'many' } }),
      /Give a number, or switch/,
    ],
    ['a heater that takes no sleeve', (item: Machine) => ({ ...item, heaters: 0 }), /At least 1/],
    ['no label', (item: Machine) => ({ ...item, label: '' }), /label/],
    ['another address', (item: Machine) => ({ ...item, id: randomUUID() }), /names another piece/],
  ])('refuses %s and stores nothing', async (_, spoil, message) => {
    const item = newGear('machine', randomUUID(), 'Spoilt') as Machine;
    const answer = await request<{ detail: string }>(`${api}/gear/${item.id}`, 'PUT', spoil(item));
    expect(answer.status).toBe(400);
    expect(answer.body.detail).toMatch(message);
    expect((await gearNow()).some((one) => one.label === 'Spoilt')).toBe(false);
  });

  test('its book brings together what was made with it in every project, and what is due follows', async () => {
    const machine = newGear('machine', randomUUID(), 'Both') as Machine;
    const gear = { machine: { id: machine.id, label: machine.label } };
    const [first, second] = [await newProject(), await newProject()];
    const { last: before } = await bookAfter();
    const at = (minute: number) => ({ madeAt: new Date(Date.UTC(2026, 3, 15, 1, minute)).toISOString() });
    const about = (closureId: string, { madeAt }: { madeAt: string }) => ({
      v: 2,
      id: randomUUID(),
      madeAt,
      by: null,
      device: null,
      subject: { on: 'gear' as const, closureId, gearId: machine.id, label: machine.label },
    });
    const calibrated: Calibration = {
      ...about(first.closureId, at(0)),
      kind: 'calibration',
      body: { passed: true, conditions: { temperature: 20, humidity: null, pressure: null }, note: '' },
    };
    const cleaned: GearEvent = {
      ...about(second.closureId, at(20)),
      kind: 'gear-event',
      body: { event: 'electrodes-cleaned', note: '' },
    };
    const wrong = makeAttempt(first.closureId, first.splices[1]!, 0.9, { gear, ...at(2) });
    const post = (made: typeof first, facts: unknown[]) =>
      request(`${made.project}/facts`, 'POST', { facts });
    await post(first, [
      calibrated,
      makeAttempt(first.closureId, first.splices[0]!, 0.03, { gear, ...at(1) }),
      wrong,
    ]);
    await post(second, [
      makeAttempt(second.closureId, second.splices[0]!, 0.3, { gear, ...at(10) }),
      cleaned,
    ]);
    // What was made with no gear on it is not in the book.
    await post(second, [makeAttempt(second.closureId, second.splices[1]!, 0.03, at(11))]);
    const { book, last } = await bookAfter(before);
    expect(book.uses.map((use) => use.bad)).toEqual([false, true, true]);
    expect(book.facts).toEqual([calibrated, cleaned]);
    const now = at(30).madeAt;
    expect(machineStanding(machine, book, now)).toMatchObject({ splices: 3, due: [{ rule: 'electrodes' }] });

    // A try that is taken back later never happened.
    const { id } = wrong;
    await post(first, [
      {
        ...wrong,
        id: randomUUID(),
        ...at(12),
        v: factVersion('correction'),
        kind: 'correction',
        body: { attemptId: id, result: null, reason: 'mistake' },
      },
    ]);
    const more = (await bookAfter(last)).book;
    // It may repeat what was given out while other transactions ran; nothing else is in it.
    expect(more.withdrawn).toEqual([id]);
    expect(book.uses).toEqual(expect.arrayContaining([...more.uses]));
    expect(machineStanding(machine, { ...book, withdrawn: more.withdrawn }, now).splices).toBe(2);

    // One that was typed wrongly was not bad.
    await post(second, [
      {
        ...makeAttempt(second.closureId, second.splices[0]!, 0.3, at(13)),
        v: factVersion('correction'),
        kind: 'correction',
        body: {
          attemptId: book.uses[2]!.id,
          result: {
            readings: [{ loss: 0.03, cleaveLeft: null, cleaveRight: null }],
            proofTestFailed: false,
            note: '',
          },
          reason: 'typed',
        },
      },
    ]);
    expect((await bookAfter(last)).book.corrected).toMatchObject([
      { attemptId: book.uses[2]!.id, bad: false },
    ]);
  });

  test('what happened to it goes with the project file, to the last byte', async () => {
    const { project, closureId, splices, definition } = await newProject();
    const gear = { machine: { id: randomUUID(), label: 'Far' }, heater: '60 mm' };
    await request(`${project}/facts`, 'POST', {
      facts: [
        makeAttempt(closureId, splices[0]!, 0.03, {
          gear,
          sleeveConfirmed: true,
          readings: [{ loss: 0.03, cleaveLeft: 0.5, cleaveRight: null, offset: 0.4, gap: 12 }],
        }),
        {
          v: 2,
          id: randomUUID(),
          kind: 'went-on',
          madeAt: new Date().toISOString(),
          by: 'Iara',
          device: null,
          subject: { on: 'gear', closureId, gearId: gear.machine.id, label: 'Far' },
          body: { about: 'calibration', rules: ['session'], note: '' },
        },
      ],
    });
    const text = JSON.stringify((await request(`${project}/project.json`)).body);
    const other = await startServer(dataFolder('empty'));
    expect((await request(`${other.url}/api/import`, 'POST', JSON.parse(text))).status).toBe(201);
    expect(
      JSON.stringify((await request(`${other.url}/api/projects/${definition.project.id}/project.json`)).body),
    ).toBe(text);
    await other.stop();
  });
});

/** No other server. */
const alone = { publish: () => Promise.resolve(), subscribe: () => undefined };

describe('who stands where', () => {
  test('two devices at one closure see each other, and what is new', async () => {
    const { project, closureId, splices } = await newProject();
    const here = (device: string, spliceId: string | null, by: string | null = null) =>
      request<{ others: { by: string | null; spliceId: string }[]; last: number; detail: string }>(
        `${project}/closures/${closureId}/here`,
        'POST',
        { device, by, spliceId },
      );
    const [one, two] = [randomUUID(), randomUUID()];
    expect((await here(one, splices[0]!.id, 'Iara')).body).toEqual({ others: [], last: 0 });
    const seen = (await here(two, splices[0]!.id, 'Davi')).body;
    expect(seen.others).toMatchObject([{ device: one, by: 'Iara', spliceId: splices[0]!.id }]);
    await request(`${project}/facts`, 'POST', { facts: [makeAttempt(closureId, splices[0]!, 0.03)] });
    expect((await here(one, splices[1]!.id)).body.last).toBeGreaterThan(0);
    await here(two, null);
    expect((await here(one, splices[1]!.id)).body.others).toEqual([]);
    expect((await here('nobody', splices[1]!.id)).status).toBe(400);
    const made = `${project}/closures/${randomUUID()}/here`;
    expect((await request(made, 'POST', { device: one, by: null, spliceId: 'a~b' })).status).toBe(404);
  });

  test('a device that is not heard of for fifteen seconds is gone, and the time at a splice is kept', async () => {
    let now = 0;
    const presence = new Presence(() => new Date(now), alone);
    const at = (device: string, spliceId: string) => presence.at('c', { device, by: null, spliceId });
    await at('a', 's1');
    now = 10_000;
    await at('a', 's1');
    expect(await at('b', 's2')).toEqual([
      { device: 'a', by: null, spliceId: 's1', since: new Date(0).toISOString() },
    ]);
    now = 25_000;
    expect(await at('b', 's2')).toHaveLength(1);
    now = 25_001;
    expect(await at('b', 's2')).toEqual([]);
  });

  test('no more devices are remembered than a crew can have, and nobody who is gone', async () => {
    let now = 0;
    const presence = new Presence(() => new Date(now), alone);
    for (let number = 0; number < 60; number += 1)
      await presence.at('c', { device: String(number), by: null, spliceId: 's' });
    expect(await presence.at('c', { device: 'x', by: null, spliceId: 's' })).toHaveLength(50);
    for (let number = 0; number < 4000; number += 1)
      await presence.at(`c${number}`, { device: 'y', by: null, spliceId: 's' });
    expect(presence.size).toBeLessThanOrEqual(2000 + 50);
    // Nobody asks about those closures again.
    now = 60_000;
    await presence.at('other', { device: 'z', by: null, spliceId: 's' });
    expect(presence.size).toBe(1);
  });
});

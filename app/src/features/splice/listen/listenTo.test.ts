import type { MachineEvent, MachineLink, MachineStatus } from '@cordel/core/machine';
import { listenTo, type LinkState } from './listenTo';

const state = (number: number): MachineEvent => ({
  number,
  at: '2026-04-14T22:31:05.120Z',
  kind: 'state',
  state: 'ready',
});

/** A machine with so many events at each connection, after which the link drops; with none left it ends. */
function machine(connections: readonly (readonly [last: number, told: readonly number[]] | Error)[]) {
  const left = [...connections];
  const stop = new AbortController();
  const asked: number[] = [];
  let told: readonly number[] = [];
  const link: MachineLink = {
    discover: async () => [],
    log: async () => [],
    status: async () => {
      const next = left.shift();
      if (!next) {
        stop.abort();
        throw new Error('Nobody is there.');
      }
      if (next instanceof Error) throw next;
      told = next[1];
      return { last: next[0] } as MachineStatus;
    },
    async *events(_, after) {
      asked.push(after);
      for (const number of told) if (number > after) yield state(number);
      throw new Error('The link to the machine dropped.');
    },
  };
  return { link, asked, signal: stop.signal };
}

async function listened(after: number | null, ...connections: Parameters<typeof machine>[0]) {
  const { link, asked, signal } = machine(connections);
  const heard: number[] = [];
  const links: LinkState['is'][] = [];
  const pauses: number[] = [];
  await listenTo(link, 'm', signal, {
    after,
    onStatus: () => undefined,
    onEvent: async ({ number }) => void heard.push(number),
    onLink: ({ is }) => void links.push(is),
    pause: async (ms) => void pauses.push(ms),
  });
  return { heard, asked, links, pauses };
}

test('it begins with what happens from now on, and goes on where it was after a drop', async () => {
  const { heard, asked, links } = await listened(null, [5, [4, 5, 6, 7]], [8, [6, 7, 8, 9]]);
  expect(asked).toEqual([5, 7]);
  expect(heard).toEqual([6, 7, 8, 9]);
  expect(links).toEqual(['looking', 'listening', 'dropped', 'listening', 'dropped']);
});

test('what happened since this device listened the last time is heard first', async () => {
  expect(await listened(3, [5, [4, 5, 6]])).toMatchObject({ heard: [4, 5, 6], asked: [3] });
});

test('a machine whose numbers began anew is heard from now on', async () => {
  expect(await listened(50, [2, [1, 2, 3]])).toMatchObject({ heard: [3], asked: [2] });
});

test('it is tried again ever more seldom, and at once after it answered', async () => {
  const away = new Error('away');
  const { pauses, links } = await listened(0, away, away, away, away, away, away, [1, [1]], away);
  expect(pauses).toEqual([500, 1000, 2000, 5000, 10_000, 10_000, 500, 1000]);
  expect(links.filter((is) => is === 'dropped')).toHaveLength(8);
});

test('what the machine has forgotten is passed over after it said so twice', async () => {
  expect((await listened(3, [9, []], [9, []], [9, []])).asked).toEqual([3, 3, 9]);
});

import { act, renderHook } from '@testing-library/react';
import { testEngine } from '../../test/engine';
import { useOthers, type Other } from './presence';

const id = (number: number) => `01900000-0000-7000-8000-${String(number).padStart(12, '0')}`;
const [projectId, closureId] = [id(1), id(2)];
const bia: Other = { device: id(9), by: 'Bia', spliceId: 'b', since: '2026-04-15T02:00:00.000Z' };

/** What the server is told, and what it answers: null when it is away. */
let told: { spliceId: string | null }[] = [];
let answer: { others: Other[]; last: number } | null = { others: [], last: 0 };

beforeEach(() => {
  told = [];
  answer = { others: [], last: 0 };
  jest.useFakeTimers();
  globalThis.fetch = jest.fn(async (_: unknown, init?: RequestInit) => {
    told.push(JSON.parse(String(init!.body)) as (typeof told)[0]);
    if (!answer) throw new TypeError('Failed to fetch');
    const body = answer;
    return { ok: true, status: 200, headers: new Headers(), json: async () => body } as Response;
  }) as never;
});
afterEach(() => jest.useRealTimers());

const never = () => new Promise<never>(() => {});

async function stand() {
  const page = jest.fn(async () => ({ facts: [], last: 4, more: false }));
  const { engine } = testEngine({
    server: { page, send: never, sendPicture: never, picture: never, refusal: () => null },
  });
  await engine.pull.run(projectId);
  page.mockClear();
  const rendered = renderHook(({ spliceId }) => useOthers(projectId, closureId, spliceId), {
    initialProps: { spliceId: 'a' },
  });
  return { ...rendered, page };
}
const after = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));
const places = () => told.map((one) => one.spliceId);

test('it is told where one stands once one stands still, and again every four seconds', async () => {
  const { rerender } = await stand();
  await after(200);
  rerender({ spliceId: 'b' });
  await after(200);
  expect(places()).toEqual([]);
  await after(100);
  expect(places()).toEqual(['b']);
  await after(4000);
  expect(places()).toEqual(['b', 'b']);
});

test('others are shown as they come and go; where nobody changed the list is the same object', async () => {
  const { result } = await stand();
  answer = { others: [bia], last: 4 };
  await after(300);
  expect(result.current).toEqual([bia]);
  const before = result.current;
  answer = { others: [{ ...bia }], last: 4 };
  await after(4000);
  expect(result.current).toBe(before);
  answer = { others: [], last: 4 };
  await after(4000);
  expect(result.current).toEqual([]);
});

test('without network nobody is known of, and it goes on asking', async () => {
  const { result } = await stand();
  answer = { others: [bia], last: 4 };
  await after(300);
  answer = null;
  await after(4000);
  expect(result.current).toEqual([]);
  answer = { others: [bia], last: 4 };
  await after(4000);
  expect(result.current).toEqual([bia]);
});

test('what somebody else recorded is fetched at once, and nothing where it is known', async () => {
  const { page } = await stand();
  await after(300);
  expect(page).not.toHaveBeenCalled();
  answer = { others: [bia], last: 5 };
  await after(4000);
  expect(page).toHaveBeenCalledWith(projectId, 4);
});

test('who leaves the bench frees the splice, and asks no more', async () => {
  const { unmount } = await stand();
  await after(300);
  unmount();
  await after(20_000);
  expect(places()).toEqual(['a', null]);
});

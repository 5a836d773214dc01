import { act, renderHook } from '@testing-library/react';
import { useNewerVersion, watchForNewer } from './newerVersion';

/** A registration and its container, as far as they are asked. */
function browser() {
  const container = Object.assign(new EventTarget(), { controller: {} });
  Object.defineProperty(navigator, 'serviceWorker', { configurable: true, value: container });
  const told: unknown[] = [];
  const registration = Object.assign(new EventTarget(), {
    waiting: null as { postMessage: (message: unknown) => void } | null,
    installing: null as EventTarget | null,
    update: jest.fn(() => Promise.resolve()),
  });
  const fetched = () => {
    const worker = new EventTarget();
    registration.installing = worker;
    registration.dispatchEvent(new Event('updatefound'));
    registration.waiting = { postMessage: (message) => told.push(message) };
    act(() => void worker.dispatchEvent(new Event('statechange')));
  };
  return { registration, told, fetched, container };
}
const pass = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));
const shown = (element: HTMLElement) => {
  element.getClientRects = () => [{}] as never;
  document.body.append(element);
};

beforeEach(() => {
  jest.useFakeTimers();
  document.body.replaceChildren();
});
afterEach(() => jest.useRealTimers());

test.each(['input', 'textarea'])('it is not taken while somebody is at a form with an %s', async (field) => {
  const { registration, told, fetched } = browser();
  const { result } = renderHook(() => useNewerVersion());
  const end = watchForNewer(registration as never);
  const form = document.createElement(field);
  shown(form);
  fetched();
  await pass(60_000);
  expect([told, result.current]).toEqual([[], 'ready']);
  form.remove();
  await pass(3000);
  expect(told[0]).toEqual({ type: 'SKIP_WAITING' });
  end();
});

test('it is not taken while a sheet is open, nor right after a touch', async () => {
  const { registration, told, fetched } = browser();
  const end = watchForNewer(registration as never);
  const sheet = document.createElement('div');
  sheet.setAttribute('role', 'dialog');
  shown(sheet);
  fetched();
  await pass(20_000);
  window.dispatchEvent(new Event('pointerdown'));
  sheet.remove();
  await pass(8000);
  expect(told).toEqual([]);
  await pass(5000);
  expect(told[0]).toEqual({ type: 'SKIP_WAITING' });
  end();
});

test('the first of all is not a newer one', async () => {
  const { registration, told, fetched, container } = browser();
  container.controller = null as never;
  const end = watchForNewer(registration as never);
  fetched();
  await pass(60_000);
  expect(told).toEqual([]);
  end();
});

test('the server is asked for a newer one now and then, and when the network is back', async () => {
  const { registration } = browser();
  const end = watchForNewer(registration as never);
  window.dispatchEvent(new Event('online'));
  expect(registration.update).not.toHaveBeenCalled();
  await pass(61_000);
  window.dispatchEvent(new Event('online'));
  expect(registration.update).toHaveBeenCalledTimes(1);
  await pass(17 * 60_000);
  expect(registration.update).toHaveBeenCalledTimes(2);
  end();
});

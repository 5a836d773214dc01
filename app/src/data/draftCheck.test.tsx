import type { Closure } from '@cordel/core';
import type { DraftTray, PlanDraft } from '@cordel/core/order';
import { act, renderHook } from '@testing-library/react';
import { useDraftCheck } from './draftCheck';
import type { PlanAnswer, PlanRequest } from './plan.worker';

/** A worker whose answers the test gives. */
class Thread {
  static all: Thread[] = [];
  onmessage: ((event: { data: PlanAnswer }) => void) | null = null;
  onerror: (() => void) | null = null;
  readonly asked: PlanRequest[] = [];
  ended = false;
  constructor() {
    Thread.all.push(this);
  }
  postMessage(request: PlanRequest) {
    this.asked.push(request);
  }
  terminate() {
    this.ended = true;
  }
}

const saved = { id: 'c', entries: [], trays: [], order: [] } as unknown as Closure;
const draftOf = (text: string): PlanDraft => ({ closure: saved, text });
const none: never[] = [];
const tray = (number: number): DraftTray => ({
  tray: number,
  kind: 'single',
  slots: 12,
  used: 0,
  units: [],
  reasons: [],
});
const checkOf = (splices: number, trays: readonly (DraftTray | null)[] = []): PlanAnswer['check'] =>
  ({ splices, trays }) as PlanAnswer['check'];

beforeEach(() => {
  Thread.all = [];
  globalThis.Worker = Thread as never;
});

function open(text = 'first') {
  const rendered = renderHook(({ draft, touched }) => useDraftCheck(draft, saved, none, touched), {
    initialProps: { draft: draftOf(text), touched: none as readonly string[] },
  });
  const thread = () => Thread.all.at(-1)!;
  return {
    ...rendered,
    thread,
    type: (typed: string) => {
      const draft = draftOf(typed);
      rendered.rerender({ draft, touched: none });
      return draft;
    },
    asked: () => thread().asked.map(({ draft }) => draft.text),
    answer: (check: PlanAnswer['check'], id = thread().asked.length) =>
      act(() => thread().onmessage!({ data: { id, check } })),
  };
}

test('the draft is checked with what it is checked against, which is sent once', () => {
  const at = open();
  expect(at.thread().asked).toMatchObject([{ id: 1, about: { saved, cables: [], touched: [] } }]);
  expect(at.result.current).toEqual({ check: null, current: false, failed: false });
  at.answer(checkOf(24));
  expect(at.result.current).toMatchObject({ check: { splices: 24 }, current: true });
  at.type('second');
  expect(at.thread().asked[1]!.about).toBeUndefined();
});

test('while one is checked only the newest draft waits behind it', () => {
  const at = open();
  for (const text of ['a', 'ab', 'abc']) at.type(text);
  expect(at.asked()).toEqual(['first']);
  at.answer(checkOf(1));
  // What is shown is of an older draft, and says so.
  expect(at.result.current).toMatchObject({ check: { splices: 1 }, current: false });
  expect(at.asked()).toEqual(['first', 'abc']);
  at.answer(checkOf(3));
  expect(at.result.current).toMatchObject({ check: { splices: 3 }, current: true });
});

test('an answer to a draft that was overtaken is not shown', () => {
  const at = open();
  at.answer(checkOf(1));
  at.type('second');
  at.answer(checkOf(99), 1);
  expect(at.result.current.check!.splices).toBe(1);
});

test('a tray that is as before stays the same object', () => {
  const at = open();
  at.answer(checkOf(1, [tray(1), tray(2)]));
  const [first] = at.result.current.check!.trays;
  at.type('second');
  at.answer(checkOf(1, [null, { ...tray(2), used: 3 }]));
  const { trays } = at.result.current.check!;
  expect(trays[0]).toBe(first);
  expect(trays[1]!.used).toBe(3);
});

test('where what it is checked against changes it begins anew, with the draft of now', () => {
  const at = open();
  const [before] = Thread.all;
  const draft = at.type('second');
  at.rerender({ draft, touched: ['x'] });
  expect(before!.ended).toBe(true);
  expect(at.thread().asked).toMatchObject([{ draft: { text: 'second' }, about: { touched: ['x'] } }]);
  at.unmount();
  expect(at.thread().ended).toBe(true);
});

test('a worker that does not start is told', () => {
  const at = open();
  act(() => at.thread().onerror!());
  expect(at.result.current).toMatchObject({ check: null, failed: true });
});

import type { Closure } from '@cordel/core';
import { act, renderHook } from '@testing-library/react';
import { usePlanDraft } from './usePlanDraft';

const id = (number: number) => `01900000-0000-7000-8000-${String(number).padStart(12, '0')}`;
const saved: Closure = {
  id: id(1),
  siteId: id(2),
  kind: 'dome',
  entries: [
    { cableId: id(3), manner: 'cut' },
    { cableId: id(4), manner: 'cut' },
  ],
  trays: [{ singleSlots: 24 }],
  order: [
    {
      id: id(5),
      left: { cableId: id(3), side: 'end', from: 1, to: 12 },
      right: { cableId: id(4), side: 'end', from: 1, to: 12 },
      mode: 'single',
      circuit: null,
    },
  ],
  version: 3,
};
const open = (closure = saved) => renderHook(() => usePlanDraft(closure)).result;

beforeEach(() => localStorage.clear());

test('starts with the stored order as text, unchanged', () => {
  const draft = open();
  expect(draft.current.draft.text).toBe('A 1-12 > B 1-12');
  expect(draft.current.dirty).toBe(false);
});

test('letters typed one after the other are undone together, other steps one by one', () => {
  const draft = open();
  for (const text of ['A', 'A ', 'A 1']) act(() => draft.current.change({ text }, true));
  act(() => draft.current.change({ closure: { ...saved, spareSlots: 2 } }));
  act(() => draft.current.undo());
  expect(draft.current.draft).toMatchObject({ text: 'A 1' });
  expect(draft.current.draft.closure.spareSlots).toBeUndefined();
  act(() => draft.current.undo());
  expect(draft.current.draft.text).toBe('A 1-12 > B 1-12');
  act(() => draft.current.undo());
  expect(draft.current.dirty).toBe(false);
});

test('what is not saved is there again after a reload, and gone once it is saved or discarded', () => {
  const first = open();
  act(() => first.current.change({ text: 'A 1-6 > B 1-6' }, true));
  const again = open();
  expect(again.current.draft.text).toBe('A 1-6 > B 1-6');
  expect(again.current.dirty).toBe(true);
  act(() => again.current.discard());
  expect(open().current.draft.text).toBe('A 1-12 > B 1-12');
  const third = open();
  act(() => third.current.change({ text: 'A 1 > B 1' }));
  act(() => third.current.settle());
  expect(localStorage.length).toBe(0);
});

test('words typed before somebody else saved stand on top of the newer plan', () => {
  const mine = open();
  act(() => mine.current.change({ text: 'A 2 > B 2' }, true));
  const newer = { ...saved, version: 4, trays: [{ singleSlots: 12 }] };
  const after = open(newer);
  expect(after.current.draft).toEqual({ closure: newer, text: 'A 2 > B 2' });
  act(() => after.current.undo());
  expect(after.current.draft.text).toBe('A 1-12 > B 1-12');
});

test('what is kept and cannot be read is passed over', () => {
  localStorage.setItem(`cordel.plan-draft.${saved.id}`, '{"text": 7}');
  expect(open().current.draft.text).toBe('A 1-12 > B 1-12');
});

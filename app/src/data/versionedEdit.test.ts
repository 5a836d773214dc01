import { act, renderHook } from '@testing-library/react';
import { useVersionedEdit } from './versionedEdit';

interface Thing {
  version: number;
  name: string;
}
const first: Thing = { version: 1, name: 'mine' };
const second: Thing = { version: 2, name: 'theirs' };

function edit(newest: Thing | undefined) {
  let fetched = newest;
  const refetch = jest.fn(() => Promise.resolve({ data: fetched }));
  const hook = renderHook(({ thing }) => useVersionedEdit(thing, refetch), {
    initialProps: { thing: newest },
  });
  const come = (thing: Thing | undefined) => {
    fetched = thing;
    hook.rerender({ thing });
  };
  return { result: hook.result, come, refetch };
}

test('it begins from the first copy that comes, and stays with it when somebody else saves', () => {
  const { result, come } = edit(undefined);
  expect(result.current).toMatchObject({ base: undefined, newer: false });
  come(first);
  expect(result.current).toMatchObject({ base: first, newer: false, round: 0 });
  come(second);
  expect(result.current).toMatchObject({ base: first, newer: true, round: 0 });
});

test('the same version fetched again changes nothing', () => {
  const { result, come } = edit(first);
  come({ ...first });
  expect(result.current).toMatchObject({ base: first, newer: false, round: 0 });
});

test('the newer one is shown when the person wants it, and the form begins anew', async () => {
  const { result, come, refetch } = edit(first);
  come(second);
  await act(async () => result.current.showNewer());
  expect(refetch).toHaveBeenCalled();
  expect(result.current).toMatchObject({ base: second, newer: false, round: 1 });
});

test('what was saved here is gone on from, and is nobody else’s', () => {
  const { result, come } = edit(first);
  act(() => result.current.settle(second));
  expect(result.current).toMatchObject({ base: second, newer: false, round: 1 });
  come(second);
  expect(result.current.newer).toBe(false);
});

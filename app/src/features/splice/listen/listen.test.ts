import { findSplice, jointOf, type Fact, type SpliceState } from '@cordel/core';
import { adviseBeforeArc, arcLimits, nothingSeen, type BeforeArc } from '@cordel/core/gear';
import { beginHearing, type Hearing } from '@cordel/core/listen';
import { attemptAt, smallJob } from '../../../../test/job';
import { cablesOf, ledgerOf } from '../../../data/ledger';
import { boardOf } from './boardOf';
import { nextCommand } from './useSimulatedHands';

const definition = smallJob();
const closure = definition.closures[0]!;
const cables = cablesOf(definition);
const linked = { where: 'page', id: closure.id, name: 'Simulated', simulated: true, gearId: null } as const;
const link = { is: 'listening' } as const;
const begun = beginHearing(0, 0, 'ready');

const at = (
  facts: readonly Fact[],
  slot = 0,
): { state: SpliceState; limits: ReturnType<typeof arcLimits> } => {
  const ledger = ledgerOf(definition, closure, facts);
  const { splices } = ledger.plan;
  return { state: findSplice(ledger, splices[slot]!.id)!, limits: arcLimits(ledger.limits, null) };
};
const adviceOf = (seen: Partial<BeforeArc>) => adviseBeforeArc([{ ...nothingSeen, ...seen }], at([]).limits);
const board = (
  hearing: Hearing | null,
  state: SpliceState,
  more: { last?: SpliceState; seen?: Partial<BeforeArc>; inside?: boolean } = {},
) =>
  boardOf(
    linked,
    { link, hearing, inside: more.inside ?? true },
    adviceOf(more.seen ?? {}),
    state,
    more.last ?? null,
    true,
  );

test('the board says what to do, and the verdict with its reading and place', () => {
  const { state } = at([]);
  expect(board(begun, state)).toMatchObject({ far: 'Lay in', halt: false });
  const paused = { ...begun, state: 'pause' as const };
  expect(board(paused, state, { seen: { cleaveLeft: 0.4, cleaveRight: 0.5 } })).toMatchObject({
    far: 'Fuse',
    halt: false,
  });
  expect(board(paused, state, { seen: { cleaveLeft: 2.4 } })).toMatchObject({
    far: 'Recleave left',
    halt: true,
    words: 'Recleave left: 2.4°, over the project’s 1.0°.',
  });
  expect(board(paused, state, { inside: false })).toMatchObject({ far: 'Which pair?', halt: true });
  const held = at([attemptAt(definition, 0, 0.03)]).state;
  expect(board(begun, at([], 1).state, { last: held })).toMatchObject({
    far: 'Holds',
    reading: '0.03',
    mark: 'holds',
    words: 'Tray 1, slot 1.',
  });
  const redo = at([attemptAt(definition, 0, 0.3)]).state;
  expect(board(begun, redo)).toMatchObject({ far: 'Redo', reading: '0.30', halt: true });
  expect(board(begun, redo).words).toContain('0.30 dB is over 0.10 dB. New ends, and lay them in again.');
});

test('a link that is lost, looked for or missing is said', () => {
  const { state } = at([]);
  const dropped = { is: 'dropped', why: 'The link to the machine dropped.' } as const;
  const say = (of: typeof dropped | null, to: typeof linked | null) =>
    boardOf(to, { link: of, hearing: begun, inside: false }, adviceOf({}), state, null, true).far;
  expect([say(dropped, linked), say(null, linked), say(null, null)]).toEqual([
    'Link lost',
    'Looks for it',
    'No machine',
  ]);
});

describe('simulated hands', () => {
  const { state } = at([]);
  const joint = jointOf(closure, state.splice, cables);
  const next = (hearing: Partial<Hearing>, { seen = {}, again = 0, inside = true, entering = true } = {}) =>
    nextCommand(
      { hearing: { ...begun, ...hearing }, question: null, inside },
      { entering, joint, advice: adviceOf(seen), question: null },
      state,
      cables,
      again,
    );

  test('do what the bench says', () => {
    expect(next({ state: 'ready' })).toMatchObject({
      do: 'load',
      splice: state.splice.id,
      fibers: [{ left: { modeField: 9.2 } }],
    });
    expect(next({ state: 'ready' }, { entering: false })).toBeNull();
    expect(next({ state: 'pause' })).toEqual({ do: 'fuse' });
    expect(next({ state: 'pause' }, { seen: { cleaveLeft: 2 } })).toEqual({ do: 'recleave', side: 'left' });
    expect(next({ state: 'pause' }, { seen: { cleaveLeft: 2 }, again: 4 })).toEqual({ do: 'fuse' });
    expect(next({ state: 'pause' }, { inside: false })).toEqual({ do: 'take-out' });
    expect(next({ state: 'done' })).toEqual({ do: 'take-out' });
    expect(next({ state: 'arc' })).toBeNull();
  });

  test('wait where somebody has to say something first', () => {
    const question = { result: {} as never, why: 'missed', spliceId: null } as const;
    expect(
      nextCommand(
        { hearing: { ...begun, state: 'done' }, question, inside: false },
        { entering: true, joint, advice: adviceOf({}), question: null },
        state,
        cables,
        0,
      ),
    ).toBeNull();
  });
});

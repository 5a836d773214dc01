import { attempt, factAfter, isFact, limits } from '../../../test/example';
import { cableOf, joint } from '../../../test/joint';
import { kitList } from '../../kit/kitList';
import { planClosure } from '../../plan/trays/closurePlan';
import { equalTubes } from '../../line/cable';
import type { Entry } from '../../plan/closure';
import { spliceHistory } from '../record/history';
import { jointOf } from './joint';
import { judgeSplice } from '../record/verdict';

const feeder = cableOf(1, equalTubes(1, 12));
const pigtails = cableOf(2, { kind: 'pigtails', fibers: 4, bufferMicrometers: 900 });

function at(ending?: Entry['ending'], sleeveLength?: 40) {
  const made = joint(
    'Express terminal 24',
    [
      [feeder, 'cut'],
      [pigtails, 'drop'],
    ],
    'A 1-4 > B 1-4',
  );
  const closure = {
    ...made.closure,
    entries: made.closure.entries.map((entry) =>
      ending && entry.cableId === pigtails.id ? { ...entry, ending } : entry,
    ),
    sleeveLength: sleeveLength ?? 60,
  } as typeof made.closure;
  return {
    closure,
    cables: made.cables,
    plan: planClosure(closure, made.cables),
    splice: [...made.plan.splices, ...made.plan.unplaced][0]!,
  };
}

test.each([
  [undefined, undefined, 'fusion', 'single-60'],
  [undefined, 40, 'fusion', 'single-40'],
  ['fusion-connector', undefined, 'fusion-connector', 'connector'],
  ['mechanical', undefined, 'mechanical', null],
] as const)('ends in %s, sleeves of %s mm: %s with %s', (ending, length, kind, sleeve) => {
  const { closure, splice, cables } = at(ending, length);
  expect(jointOf(closure, splice, cables)).toEqual({ kind, sleeve, small: pigtails });
});

test('two ordinary cables are fused, and a ribbon has its own sleeve', () => {
  const other = cableOf(3, equalTubes(1, 12));
  const { closure, plan, cables } = joint(
    'Dome 96',
    [
      [feeder, 'cut'],
      [other, 'cut'],
    ],
    'A 1-12 > B 1-12',
  );
  expect(jointOf(closure, plan.splices[0]!, cables)).toEqual({
    kind: 'fusion',
    sleeve: 'single-60',
    small: null,
  });
  expect(jointOf(closure, { ...plan.splices[0]!, kind: 'ribbon' }, cables).sleeve).toBe('ribbon');
});

test('the kit counts connectors instead of sleeves', () => {
  const { closure, plan, cables } = at('mechanical');
  const kit = kitList(closure, plan, cables, { sparePercent: 0 });
  // No loss is read of such a joint, and the plan says so.
  expect(plan.splices.map(({ unread }) => unread ?? false)).toEqual(
    plan.splices.map((splice) => jointOf(closure, splice, cables).kind === 'mechanical'),
  );
  expect(kit.find(({ item }) => item === 'mechanical-connector')).toMatchObject({ count: 4 });
  expect(kit.some(({ item }) => item.startsWith('single-sleeve'))).toBe(false);
  const fused = at('fusion-connector');
  expect(
    kitList(fused.closure, fused.plan, fused.cables, { sparePercent: 0 }).find(
      ({ item }) => item === 'fusion-connector',
    ),
  ).toMatchObject({ count: 4 });
});

describe('a mechanical connector is judged by the light, not by a loss', () => {
  const made = (light: 'dark' | 'glows') => attempt(0, null, { proofTestFailed: false, light });
  const judged = (...facts: Parameters<typeof spliceHistory>[0]) =>
    judgeSplice(spliceHistory(facts), 'single', limits);
  test('dark holds without a reading', () => {
    expect(isFact(made('dark'))).toBe(true);
    expect(judged(made('dark')).mark).toBe('holds');
  });
  test('a glow is a redo however often it was tried, with its reason', () => {
    const verdict = judged(made('glows'), made('glows'), made('glows'), made('glows'));
    expect(verdict).toMatchObject({ mark: 'redo', tries: 4, reasons: [{ code: 'light' }] });
  });
  test('a correction may say that it was dark after all', () => {
    const first = made('glows');
    const { readings, proofTestFailed, note } = first.body;
    const right = {
      ...factAfter(first),
      kind: 'correction' as const,
      body: {
        attemptId: first.id,
        result: { readings, proofTestFailed, note, light: 'dark' as const },
        reason: 'the wrong port was lit',
      },
    };
    expect(judged(first, right).mark).toBe('holds');
  });
  test('without the light a loss is still asked for', () => {
    expect(isFact(attempt(0, null, { proofTestFailed: false }))).toBe(false);
  });
});

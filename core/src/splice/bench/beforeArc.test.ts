import fc from 'fast-check';
import { limits } from '../../../test/example';
import { machine } from '../../../test/gear';
import { adviseBeforeArc, arcLimits, nothingSeen, type BeforeArc } from './beforeArc';
import { adviceWords } from '../words';

const project = arcLimits(limits, null);
const both = arcLimits({ ...limits, offsetMax: 3, gapMax: 20 }, machine.limits);
const seen = (more: Partial<BeforeArc>): BeforeArc => ({ ...nothingSeen, ...more });

test('the tighter limit binds, and says whose it is', () => {
  expect(project).toEqual({ cleaveAngle: { value: 1, of: 'project' }, offset: null, gap: null });
  expect(both).toEqual({
    cleaveAngle: { value: 1, of: 'project' },
    offset: { value: 2, of: 'machine' },
    gap: { value: 20, of: 'project' },
  });
  expect(arcLimits({ cleaveAngleMax: 5 }, machine.limits).cleaveAngle).toEqual({ value: 3, of: 'machine' });
});

test.each([
  [[seen({})], 'look', 'Cleaves, offset and gap were not looked at yet.'],
  [[seen({ cleaveLeft: 0.6, cleaveRight: 1 })], 'fuse', 'Fuse: what was looked at is within the limits.'],
  [
    [seen({ cleaveLeft: 1.4, cleaveRight: 0.5 })],
    'recleave-left',
    'Recleave left: 1.4°, over the project’s 1.0°.',
  ],
  [[seen({ cleaveRight: 1.1 })], 'recleave-right', 'Recleave right: 1.1°, over the project’s 1.0°.'],
  [
    [seen({ cleaveLeft: 1.2, cleaveRight: 2 })],
    'recleave-both',
    'Recleave both sides: left 1.2°; right 2.0°, over the project’s 1.0°.',
  ],
  [
    [seen({ offset: 2.5 })],
    'reseat',
    'Reseat the fiber: offset 2.5 μm, over the machine’s 2 μm. Clean the groove with its brush first.',
  ],
  // A bad cleave comes first: the new end is seated anew anyway.
  [[seen({ cleaveLeft: 1.2, offset: 9 })], 'recleave-left', 'Recleave left: 1.2°, over the project’s 1.0°.'],
])('a single splice with %j: %s', (fibers, action, message) => {
  const advice = adviseBeforeArc(fibers, both);
  expect([advice.action, adviceWords(advice)]).toEqual([action, message]);
});

test('of a ribbon it names the fibers', () => {
  const ribbon = Array.from({ length: 12 }, () => seen({ cleaveLeft: 0.5, cleaveRight: 0.5, offset: 0.4 }));
  expect(adviseBeforeArc(ribbon, both).action).toBe('fuse');
  const offset = adviseBeforeArc(ribbon.with(6, seen({ offset: 4 })), both);
  expect(offset).toMatchObject({ action: 'reseat', fibers: [7] });
  expect(adviceWords(offset)).toBe(
    'Reseat fiber 7: offset 4 μm, over the machine’s 2 μm. Clean the groove with its brush first.',
  );
  const cleaves = adviseBeforeArc(
    ribbon.with(2, seen({ cleaveLeft: 1.6 })).with(8, seen({ cleaveLeft: 2 })),
    both,
  );
  expect(cleaves).toMatchObject({ action: 'recleave-left', fibers: [3, 9] });
  expect(adviceWords(cleaves)).toBe('Recleave left: fiber 3 1.6°, fiber 9 2.0°, over the project’s 1.0°.');
  const most = ribbon.map((fiber, index) => (index < 8 ? fiber : nothingSeen));
  expect(adviceWords(adviseBeforeArc(most, both))).toBe(
    'Fuse: the 8 of 12 fibers that were looked at are within the limits.',
  );
});

test('it says fuse only when nothing that was seen is over a limit, and names just those that are', () => {
  const value = (most: number) =>
    fc.option(fc.integer({ min: 0, max: most * 10 }).map((tenths) => tenths / 10));
  const fiber = fc.record({ cleaveLeft: value(3), cleaveRight: value(3), offset: value(5), gap: value(40) });
  fc.assert(
    fc.property(fc.array(fiber, { minLength: 1, maxLength: 24 }), (fibers) => {
      const { action, fibers: named } = adviseBeforeArc(fibers, both);
      const cleave = fibers.flatMap((one, index) =>
        Math.max(one.cleaveLeft ?? 0, one.cleaveRight ?? 0) > 1 ? [index + 1] : [],
      );
      const seat = fibers.flatMap((one, index) =>
        (one.offset ?? 0) > 2 || (one.gap ?? 0) > 20 ? [index + 1] : [],
      );
      expect(named).toEqual(cleave.length > 0 ? cleave : seat);
      expect(['look', 'fuse'].includes(action)).toBe(cleave.length + seat.length === 0);
      expect(action.startsWith('recleave')).toBe(cleave.length > 0);
    }),
  );
});

import fc from 'fast-check';
import { attemptReasons, limitsPresets, reasonWords } from '../index';
import { adviceWords } from '../splice/words';
import { adviseBeforeArc, nothingSeen } from '../splice/bench/beforeArc';
import { toldApart } from './toldApart';

const written = (value: number) => value.toFixed(2);

test('numbers are written as usual where that tells them apart, and longer where it does not', () => {
  expect(toldApart(0.14, 0.1, written)).toEqual(['0.14', '0.10']);
  expect(toldApart(0.1004, 0.1, written)).toEqual(['0.1004', '0.1000']);
  expect(toldApart(0.1, 0.1, written)).toEqual(['0.10', '0.10']);
});

test('whatever is over its limit does not read like it', () => {
  const limits = { ...limitsPresets[0]!.limits, singleMax: 0.1, cleaveAngleMax: 1 };
  fc.assert(
    fc.property(fc.double({ min: 1e-7, max: 0.4, noNaN: true }), (more) => {
      const reading = { loss: 0.1 + more, cleaveLeft: 1 + more, cleaveRight: null };
      const reasons = attemptReasons({ readings: [reading], proofTestFailed: false }, 'single', limits);
      for (const reason of reasons) {
        const [, value, limit] = /([\d.]+)(?: dB|°) is over ([\d.]+)/.exec(reasonWords(reason))!;
        expect(Number(value)).toBeGreaterThan(Number(limit));
      }
      expect(reasons).toHaveLength(2);
    }),
  );
});

test('advice before the arc tells what is over from the limit, in the last digit too', () => {
  const limits = {
    cleaveAngle: { value: 1, of: 'project' as const },
    offset: { value: 0.6, of: 'machine' as const },
    gap: null,
  };
  const said = (seen: Partial<typeof nothingSeen>) =>
    adviceWords(adviseBeforeArc([{ ...nothingSeen, ...seen }], limits));
  expect(said({ cleaveLeft: 1.004 })).toBe('Recleave left: 1.004°, over the project’s 1.0°.');
  expect(said({ offset: 0.62 })).toContain('offset 0.62 μm, over the machine’s 0.6 μm.');
  expect(said({ offset: 0.7 })).toContain('offset 0.7 μm, over the machine’s 0.6 μm.');
});

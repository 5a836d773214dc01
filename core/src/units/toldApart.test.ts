import fc from 'fast-check';
import { attemptReasons, limitsPresets, reasonWords } from '../index';
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

import { cleaveAngleRefusal, formatLoss, formatMean, lossRefusal } from './reading';

test.each([0, 0.03, 0.145, 10])('takes %p dB', (loss) => expect(lossRefusal(loss)).toBeNull());

test.each([
  [-0.01, /below 0/],
  [10.01, /over 10 dB/],
  [Number.NaN, /not a finite number/],
  [Number.POSITIVE_INFINITY, /not a finite number/],
  [Number.NEGATIVE_INFINITY, /not a finite number/],
])('refuses %p dB with a reason', (loss, reason) => expect(lossRefusal(loss)).toMatch(reason));

test('takes and refuses cleave angles', () => {
  expect(cleaveAngleRefusal(0.6)).toBeNull();
  expect(cleaveAngleRefusal(-0.1)).toMatch(/below 0/);
  expect(cleaveAngleRefusal(60)).toMatch(/decimal point/);
});

test('readings show at least two decimals, means three', () => {
  expect([0, 0.1, 0.03, 0.145, 1].map(formatLoss)).toEqual(['0.00', '0.10', '0.03', '0.145', '1.00']);
  expect(formatMean(0.0345)).toBe('0.035');
});

import { oneWayStep } from './otdrStep';

// One-way step 10·log10(w far / w near): from 9.2 to 8.6 μm it reads 0.293 dB too low, from the other side as much too high.
test('a smaller mode field beyond the splice reads as a gainer, and both ways average out', () => {
  expect(oneWayStep(9.2, 8.6)).toBeCloseTo(-0.293, 3);
  expect(oneWayStep(9.2, 8.6) + oneWayStep(8.6, 9.2)).toBeCloseTo(0, 12);
});

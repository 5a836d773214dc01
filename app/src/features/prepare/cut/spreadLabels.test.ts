import { spreadLabels, tapeStep } from './spreadLabels';

test('labels with room stand where they want to', () => {
  expect(spreadLabels([50, 150, 250], [40, 40, 40], 300).tops).toEqual([30, 130, 230]);
});

test('labels that want the same place stand under each other, around it', () => {
  expect(spreadLabels([100, 100], [40, 40], 300).tops).toEqual([60, 100]);
});

test('none covers another, none leaves the column, and the order stays, whatever they want', () => {
  for (let seed = 1; seed < 200; seed += 1) {
    const random = (index: number) => ((seed * 9301 + index * 49297) % 233280) / 233280;
    const count = 1 + (seed % 15);
    const wanted = Array.from({ length: count }, (_, index) => random(index) * 600).sort((a, b) => a - b);
    const heights = wanted.map((_, index) => 20 + random(index + 50) * 60);
    const { tops, height } = spreadLabels(wanted, heights, 600);
    tops.forEach((top, index) => {
      expect(top).toBeGreaterThanOrEqual(-1e-9);
      expect(top + heights[index]!).toBeLessThanOrEqual(height + 1e-9);
      if (index > 0) expect(top).toBeGreaterThanOrEqual(tops[index - 1]! + heights[index - 1]! - 1e-9);
    });
  }
});

test('a column grows when the labels need more than it has', () => {
  expect(spreadLabels([10, 10, 10], [100, 100, 100], 200)).toEqual({ tops: [0, 100, 200], height: 300 });
});

test('a tape has whole hundreds or whole inches', () => {
  expect(tapeStep(1800, 10, 'mm')).toBe(200);
  expect(tapeStep(1800, 10, 'in')).toBeCloseTo(12 * 25.4, 9);
  expect(tapeStep(40_000, 10, 'mm')).toBe(1000);
});

import { exceeds, limitsSchema } from './limits';
import { limitsPresets } from './presets';

test('a limit is the largest value that still holds', () => {
  expect(exceeds(0.1, 0.1)).toBe(false);
  expect(exceeds(0.11, 0.1)).toBe(true);
});

test('adding up decimal fractions does not decide', () => {
  const sum = Array.from({ length: 24 }, () => 0.05).reduce((total, loss) => total + loss, 0);
  expect(exceeds(sum / 24, 0.05)).toBe(false);
});

test('every preset is valid and says what it is', () => {
  for (const preset of limitsPresets) {
    expect(limitsSchema.parse(preset.limits)).toEqual(preset.limits);
    expect(preset.about.length).toBeGreaterThan(40);
  }
});

// ANSI/TIA-568.3: at most 0.3 dB a splice.
test('the TIA-568 preset allows 0.3 dB', () => {
  expect(limitsPresets.find((preset) => preset.id === 'tia-568')!.limits.singleMax).toBe(0.3);
});

test.each([
  ['singleMax', 0],
  ['trayMean', -0.1],
  ['closureMean', Number.NaN],
  ['cleaveAngleMax', 11],
  ['tries', 0],
  ['tries', 2.5],
])('refuses %s of %p', (field, value) => {
  expect(limitsSchema.safeParse({ ...limitsPresets[0]!.limits, [field]: value }).success).toBe(false);
});

import fc from 'fast-check';
import { atTemperature, celsiusAtGauge, holdingResult, type HoldingInput } from './holding';

const input = (more: Partial<HoldingInput> = {}): HoldingInput => ({
  began: { gauge: 30, air: 101.325, celsius: 20 },
  read: { gauge: 25.5, air: 101.325, celsius: 10 },
  hours: 12,
  gaugeError: 0.3,
  celsiusError: 0.5,
  allowed: { kPa: 4, hours: 24 },
  liters: 8,
  ...more,
});

test('a spray can of 360 kPa at 24 °C reaches 390 kPa at 50 °C (OpenStax, Chemistry 2e, example 9.5, from memory: to two digits)', () => {
  expect(Number(atTemperature(360, 24, 50).toPrecision(2))).toBe(390);
});

test('a tire: 24 psi gauge at 0 °C read 25.3 psi at 10 °C with 14.7 psi outside (Gay-Lussac by hand: 38.7 × 283.15 / 273.15 − 14.7 = 25.42)', () => {
  expect(atTemperature(24 + 14.7, 0, 10) - 14.7).toBeCloseTo(25.4168, 3);
});

test('30 kPa at 20 °C and 101.325 kPa of air read 25.5 kPa at 10 °C in a tight closure (truth.md, by hand: 131.325 × 283.15/293.15 − 101.325)', () => {
  expect(holdingResult(input()).expected).toBeCloseTo(25.5202, 4);
});

test('what is lost is reckoned to the first temperature, and its leak rate in Pa·m³/s (Q = V·Δp/Δt)', () => {
  // 1 kPa from 10 l within 1 h: 0.01 m³ × 1000 Pa / 3600 s.
  const same = { air: 100, celsius: 15 };
  const result = holdingResult(
    input({ began: { gauge: 30, ...same }, read: { gauge: 29, ...same }, hours: 1, liters: 10 }),
  );
  expect(result.lost).toBeCloseTo(1, 12);
  expect(result.leakRate).toBeCloseTo(0.01 / 3.6, 12);
});

test('the uncertainty is what a simulation of the errors gives', () => {
  // Two error sources a reading, each with the given error as one standard deviation: the spread of `lost` over 40 000 draws.
  let seed = 7;
  const uniform = () => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return (seed + 0.5) / 2147483648;
  };
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  const base = input();
  const draws = Array.from({ length: 40_000 }, () => {
    const off = (reading: HoldingInput['began']) => ({
      ...reading,
      gauge: reading.gauge + base.gaugeError * normal(),
      celsius: reading.celsius + base.celsiusError * normal(),
    });
    return holdingResult({ ...base, began: off(base.began), read: off(base.read) }).lost;
  });
  const mean = draws.reduce((sum, one) => sum + one, 0) / draws.length;
  const spread = Math.sqrt(draws.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (draws.length - 1));
  expect(holdingResult(base).uncertainty / spread).toBeGreaterThan(0.97);
  expect(holdingResult(base).uncertainty / spread).toBeLessThan(1.03);
});

describe('the verdict', () => {
  test('tight by hand: nothing lost, and the errors are smaller than what may be lost', () => {
    expect(holdingResult(input({ hours: 24 }))).toMatchObject({ verdict: 'tight', waitHours: null });
  });
  test('too early: the errors are larger than what may be lost by now, and until when to wait', () => {
    const result = holdingResult(input({ hours: 1 }));
    expect(result).toMatchObject({ verdict: 'cannot-tell', because: 'too-early' });
    // As long as the same errors stand, it can be told then.
    expect(holdingResult(input({ hours: result.waitHours! + 0.2 })).verdict).toBe('tight');
  });
  test('leaking', () => {
    expect(holdingResult(input({ read: { gauge: 18, air: 101.325, celsius: 10 }, hours: 12 })).verdict).toBe(
      'leaking',
    );
  });
  test('a little more than may be lost, within the errors, is not called a leak', () => {
    // 23.15 kPa at 10 °C are 2.45 ± 0.53 kPa less than at the start; 2 may be lost by then.
    const result = holdingResult(input({ read: { gauge: 23.15, air: 101.325, celsius: 10 } }));
    expect(result.lost).toBeCloseTo(131.325 - (124.475 * 293.15) / 283.15, 9);
    expect(result.lost).toBeGreaterThan(result.mayLose);
    expect(result.verdict).toBe('cannot-tell');
  });
  test('without the temperature a tight closure would be called leaking', () => {
    const cold = input({ hours: 24, celsiusError: 0.3, read: { gauge: 25.5, air: 101.325, celsius: 10 } });
    expect(holdingResult(cold).verdict).toBe('tight');
    expect(holdingResult({ ...cold, read: { ...cold.read, celsius: 20 } }).verdict).toBe('leaking');
  });
  test('more in it than there can be', () => {
    expect(holdingResult(input({ read: { gauge: 33, air: 101.325, celsius: 10 } }))).toMatchObject({
      verdict: 'cannot-tell',
      because: 'gained',
      waitHours: null,
    });
  });
  test('errors so large that no wait helps', () => {
    expect(
      holdingResult(input({ gaugeError: 10, allowed: { kPa: 0.1, hours: 24 }, hours: 1 })).waitHours,
    ).toBeNull();
  });

  test('a tight closure is never called leaking, a leak well above the limit never tight, whatever the weather', () => {
    const weather = fc.record({
      gauge: fc.double({ min: 5, max: 34.5, noNaN: true }),
      air1: fc.double({ min: 70, max: 104, noNaN: true }),
      air2: fc.double({ min: 70, max: 104, noNaN: true }),
      t1: fc.double({ min: -30, max: 45, noNaN: true }),
      t2: fc.double({ min: -30, max: 45, noNaN: true }),
      hours: fc.double({ min: 0.1, max: 100, noNaN: true }),
      share: fc.double({ min: 0, max: 4, noNaN: true }),
    });
    fc.assert(
      fc.property(weather, ({ gauge, air1, air2, t1, t2, hours, share }) => {
        const allowed = { kPa: 2, hours: 24 };
        const lost = Math.min(gauge, share * (allowed.kPa / allowed.hours) * hours);
        const celsius = (absolute: number) => (absolute * (t2 + 273.15)) / (t1 + 273.15) - air2;
        const result = holdingResult({
          began: { gauge, air: air1, celsius: t1 },
          read: { gauge: celsius(gauge + air1 - lost), air: air2, celsius: t2 },
          hours,
          gaugeError: 0.2,
          celsiusError: 0.3,
          allowed,
          liters: null,
        });
        expect(result.lost).toBeCloseTo(lost, 6);
        const truly = lost / ((allowed.kPa / allowed.hours) * hours);
        if (truly < 0.999) expect(result.verdict).not.toBe('leaking');
        if (truly > 1.001) expect(result.verdict).not.toBe('tight');
      }),
    );
  });
});

test('sun on a closure: 34.5 kPa are reached at this temperature, and not before', () => {
  const began = { gauge: 30, air: 101.325, celsius: 10 };
  const at = celsiusAtGauge(began, 34.5);
  expect(atTemperature(131.325, 10, at) - 101.325).toBeCloseTo(34.5, 9);
  expect(at).toBeCloseTo(19.7, 1);
});

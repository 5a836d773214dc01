import { offsetLoss } from '../splice/record/spliceLoss';
import type { Faults } from './faults';
import { usualFaults } from './faults';
import { cleave, fuse, seat, type Bench, type FiberPair, type FusedFiber } from './joints';
import { mildWeather, newWear, type Wear, type Weather } from './wear';

const bench = (aligns: Bench['aligns'], faults: Faults = {}, seed = 11): Bench => ({ seed, aligns, faults });
const pairOf = (fiber: number, right = 9.2): FiberPair => ({
  left: { key: `a ${fiber}`, modeField: 9.2 },
  right: { key: `b ${fiber}`, modeField: right },
});

interface Settings {
  readonly wear?: Wear;
  readonly weather?: Weather;
  readonly right?: number;
  readonly nth?: number;
}

/** A splice of the fibers `first` … of one try. */
function splice(
  at: Bench,
  first: number,
  count: number,
  { wear = newWear, weather = mildWeather, right = 9.2, nth = 1 }: Settings = {},
): readonly FusedFiber[] {
  const laid = Array.from({ length: count }, (_, index) => {
    const pair = pairOf(first + index, right);
    const side = (name: 'left' | 'right') => cleave(at, wear, name, pair[name], nth);
    return {
      pair,
      cleaves: { left: side('left'), right: side('right') },
      seat: seat(at, `s ${first}`, index + 1, pair, nth),
    };
  });
  return fuse(at, wear, weather, `s ${first}`, laid, nth);
}

const many = 10_000;
const singles = (at: Bench, settings: Settings = {}, count = many) =>
  Array.from({ length: count }, (_, index) => splice(at, index, 1, settings)[0]!);
const mean = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0) / list.length;
const deviation = (list: readonly number[]) => {
  const middle = mean(list);
  return Math.sqrt(mean(list.map((one) => (one - middle) ** 2)));
};
const truths = (list: readonly FusedFiber[]) => list.map(({ truth }) => truth);
const offsets = (list: readonly FusedFiber[]) =>
  list.map(({ joint }) => offsetLoss(9.2, 9.2, Math.hypot(joint.offsetX, joint.offsetY)));

/** dB for each μm², of equal fibers of 9.2 μm: 0.2052 (truth.md). */
const perSquare = 0.2052;
const clean = singles(bench('cores'));

describe('offsets alone (truth.md: normal in x and y, so the loss is exponential with mean 2Kσ²)', () => {
  test.each<[Bench['aligns'], number]>([
    ['cores', 0.22 ** 2],
    // Fixed grooves: the cores of both fibers lie off the middle, too (0.1 μm each way).
    ['grooves', 0.17 ** 2 + 2 * 0.1 ** 2],
  ])('%s', (aligns, variance) => {
    const losses = offsets(aligns === 'cores' ? clean : singles(bench(aligns))).sort((a, b) => a - b);
    const expected = 2 * perSquare * variance;
    // The standard error of an exponential’s mean is the mean over the root of the count.
    expect(Math.abs(mean(losses) / expected - 1)).toBeLessThan(3 / Math.sqrt(many));
    // The standard error of a quantile q is √(q / (1 − q) / n) of an exponential’s mean.
    expect(Math.abs(losses[many / 2]! / expected - Math.LN2)).toBeLessThan(3 / Math.sqrt(many));
    expect(Math.abs(losses[0.95 * many]! / expected - 3.0)).toBeLessThan(3 * Math.sqrt(19 / many));
    // Kolmogorov and Smirnov, 1 % point.
    const distance = Math.max(
      ...losses.map((loss, index) => Math.abs(1 - Math.exp(-loss / expected) - index / many)),
    );
    expect(distance).toBeLessThan(1.63 / Math.sqrt(many));
  });
});

/** Mean and variance of |N(μ, σ)|, by the folded normal distribution (Leone, Nelson and Nottingham 1961). */
function folded(mu: number, sigma: number) {
  // erf by its series: exact enough for μ/σ below 3.
  const x = mu / sigma / Math.SQRT2;
  let [term, erf] = [x, x];
  for (let n = 1; n < 60; n += 1) {
    term *= -(x * x) / n;
    erf += term / (2 * n + 1);
  }
  erf *= 2 / Math.sqrt(Math.PI);
  const middle = sigma * Math.sqrt(2 / Math.PI) * Math.exp(-(mu ** 2) / (2 * sigma ** 2)) + mu * erf;
  return { mean: middle, variance: mu ** 2 + sigma ** 2 - middle ** 2 };
}

test('the true loss of a machine in good order has the mean of its parts in closed form', () => {
  const angle = folded(0.4, 0.25);
  expect(mean(clean.map(({ joint }) => joint.angleLeft))).toBeCloseTo(angle.mean, 2);
  // A tenth of the difference is left as a tilt; a degree of tilt costs 0.3468 dB (truth.md).
  const tilt = 0.3468 * 0.1 ** 2 * 2 * angle.variance;
  // 10 % of the arc cost 0.02 dB; it strays by 1 % (as ln p).
  const arc = 0.02 * (0.01 / Math.log(1.1)) ** 2;
  const expected = 2 * perSquare * 0.22 ** 2 + tilt + arc;
  const losses = truths(clean);
  expect(Math.abs(mean(losses) - expected)).toBeLessThan((3 * deviation(losses)) / Math.sqrt(many));
});

describe('the estimate', () => {
  test('of equal fibers is too high by what the camera’s noise adds: 2K · 0.08²', () => {
    const differences = clean.map(({ truth, estimate }) => estimate - truth);
    const arcUnseen = (0.02 * (0.01 / Math.log(1.1)) ** 2) / 2;
    const bias = 2 * perSquare * 0.08 ** 2 - arcUnseen;
    expect(Math.abs(mean(differences) - bias)).toBeLessThan((3 * deviation(differences)) / Math.sqrt(many));
    expect(new Set(clean.map(({ estimate }) => Math.round(estimate * 1e6) % 10_000))).toEqual(new Set([0]));
  });

  test('misses half of what different mode fields cost (9.2 to 8.6 μm: 0.0197 dB, truth.md)', () => {
    const mixed = singles(bench('cores'), { right: 8.6 });
    const differences = mixed.map(({ truth, estimate }) => estimate - truth);
    // The camera's noise counts a little more where the fields are smaller: K is 0.2188.
    const bias = 2 * 0.2188 * 0.08 ** 2 - 0.0197 / 2;
    expect(mean(differences)).toBeCloseTo(bias, 3);
  });

  test('misses half of what an arc costs that is off', () => {
    const cold: Weather = { ...mildWeather, temperature: 10 };
    const off = singles(bench('cores'), { weather: cold }, 4000);
    const before = clean.slice(0, 4000);
    // ln p = −0.1: 0.022 dB.
    const costs = 0.02 * (0.1 / Math.log(1.1)) ** 2;
    expect(mean(truths(off)) - mean(truths(before))).toBeCloseTo(costs, 3);
    const seen = mean(off.map(({ estimate }) => estimate)) - mean(before.map(({ estimate }) => estimate));
    expect(seen).toBeCloseTo(costs / 2, 3);
  });
});

describe('draws', () => {
  test('of one splice do not depend on which others were made, and a redo draws anew', () => {
    const at = bench('grooves');
    const alone = splice(at, 36, 12);
    splice(at, 0, 12);
    splice(at, 36, 12, { nth: 2 });
    expect(splice(at, 36, 12)).toEqual(alone);
    expect(splice(at, 36, 12, { nth: 2 })[0]!.truth).not.toBe(alone[0]!.truth);
  });

  test('a fault changes what it is about, and every other number stays to the last digit', () => {
    const at = (faults: Faults) => splice(bench('grooves', faults), 24, 12);
    const good = at({});
    const dirty = at({ dirtyGroove: usualFaults.dirtyGroove });
    dirty.forEach((fiber, index) =>
      index === 6 ? expect(fiber.truth).not.toBe(good[6]!.truth) : expect(fiber).toEqual(good[index]),
    );
    const bent = at({ badHolder: usualFaults.badHolder });
    bent.forEach(({ joint }, index) => {
      expect(joint.angleRight).toBe(good[index]!.joint.angleRight);
      expect(joint.offsetX).toBe(good[index]!.joint.offsetX);
    });
  });
});

describe('faults', () => {
  const ribbonMeans = (faults: Faults, position: number) =>
    mean(
      Array.from(
        { length: 1500 },
        (_, index) => splice(bench('grooves', faults), index * 12, 12)[position - 1]!.truth,
      ),
    );

  test('dirt in a groove adds K·d² to its position, and to no other (1.2 μm: 0.295 dB)', () => {
    const { dirtyGroove } = usualFaults;
    expect(ribbonMeans({ dirtyGroove }, 7) - ribbonMeans({}, 7)).toBeCloseTo(perSquare * 1.2 ** 2, 1.5);
    expect(ribbonMeans({ dirtyGroove }, 8)).toBe(ribbonMeans({}, 8));
  });

  test('a worn blade adds to both sides, a bent holder to its own', () => {
    const angles = (faults: Faults, side: 'angleLeft' | 'angleRight') =>
      mean(singles(bench('cores', faults), {}, 4000).map(({ joint }) => joint[side]));
    // 2 500 more cleaves than it lasts, 0.0004° each.
    const { wornBlade, badHolder } = usualFaults;
    expect(angles({ wornBlade }, 'angleLeft')).toBeCloseTo(folded(1.4, 0.25).mean, 1);
    expect(angles({ wornBlade }, 'angleRight')).toBeCloseTo(folded(1.4, 0.25).mean, 1);
    expect(angles({ badHolder }, 'angleLeft')).toBeCloseTo(folded(1.3, 0.25).mean, 1);
    expect(angles({ badHolder }, 'angleRight')).toBeCloseTo(folded(0.4, 0.25).mean, 1);
  });

  test('nicks break in the proof test: of two ends with 6 % each about 5.8 % and what breaks anyway', () => {
    const broken = singles(bench('cores', { coldStripper: 0.06 })).filter(({ broke }) => broke).length / many;
    const nicked = 1 - 0.94 ** 2;
    const expected = nicked * 0.502 + (1 - nicked) * 0.002;
    expect(Math.abs(broken - expected)).toBeLessThan(3 * Math.sqrt((expected * (1 - expected)) / many));
    const good = clean.filter(({ broke }) => broke).length / many;
    expect(Math.abs(good - 0.002)).toBeLessThan(3 * Math.sqrt(0.002 / many));
  });

  test('another program, old electrodes, dust and another fiber each cost more than a machine in good order', () => {
    const good = mean(truths(clean));
    for (const name of ['wrongProgram', 'dust', 'mixedFiber', 'oldElectrodes'] as const)
      expect([
        name,
        mean(truths(singles(bench('cores', { [name]: usualFaults[name] }), {}, 4000))) > good + 0.0005,
      ]).toEqual([name, true]);
  });
});

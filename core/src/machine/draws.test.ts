import { draws } from './draws';

const many = 40_000;
const uniforms = Array.from({ length: many }, (_, index) => draws(7, 'u', index).uniform());
const stream = draws(7, 'normals');
const normals = Array.from({ length: many }, () => stream.normal());

const mean = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0) / list.length;

test('the first draws of many keys fill the unit interval evenly: chi-square over 100 cells (0.1 % point for 99 degrees of freedom: 148.2)', () => {
  const cells = new Array<number>(100).fill(0);
  for (const one of uniforms) cells[Math.floor(one * 100)]! += 1;
  const expected = many / 100;
  expect(cells.reduce((sum, count) => sum + (count - expected) ** 2 / expected, 0)).toBeLessThan(148.2);
});

test('normals have mean 0, variance 1, no skew and a kurtosis of 3, each within three standard errors', () => {
  expect(Math.abs(mean(normals))).toBeLessThan(3 / Math.sqrt(many));
  expect(Math.abs(mean(normals.map((one) => one ** 2)) - 1)).toBeLessThan(3 * Math.sqrt(2 / many));
  expect(Math.abs(mean(normals.map((one) => one ** 3)))).toBeLessThan(3 * Math.sqrt(15 / many));
  expect(Math.abs(mean(normals.map((one) => one ** 4)) - 3)).toBeLessThan(3 * Math.sqrt(96 / many));
});

test('neighbors are not alike: the correlation of the draws of keys n and n + 1 is within three standard errors of 0', () => {
  const centered = uniforms.map((one) => one - 0.5);
  const product = mean(centered.slice(1).map((one, index) => one * centered[index]!));
  expect(Math.abs(product * 12)).toBeLessThan(3 / Math.sqrt(many));
});

test('the same seed and key give the same, any other something else', () => {
  const first = (seed: number, ...key: (string | number)[]) => draws(seed, ...key).uniform();
  expect(first(3, 'a', 1)).toBe(first(3, 'a', 1));
  const others = [
    first(3, 'a', 1),
    first(4, 'a', 1),
    first(3 + 2 ** 32, 'a', 1),
    first(3, 'a', 2),
    first(3, 'a', '1'),
    first(3, 'a1'),
    first(3, 'a', 1, 0),
    first(3, 1, 'a'),
    first(3, 'b', 1),
    first(3, 'a', -1),
    first(3, 'a', 1 + 2 ** 32),
  ];
  expect(new Set(others).size).toBe(others.length);
});

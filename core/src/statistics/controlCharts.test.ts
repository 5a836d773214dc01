import { draws } from '../machine/draws';
import { cusumStep, ewmaStep, westernElectric } from './controlCharts';

/** Mean number of values until a chart trips, over so many runs, with its standard error. */
function averageRun(runs: number, chart: () => (value: number) => boolean, shift = 0) {
  const own = draws(1956, 'run', shift);
  let [sum, square] = [0, 0];
  for (let run = 0; run < runs; run += 1) {
    const trips = chart();
    let length = 1;
    while (!trips(own.normal() + shift)) length += 1;
    sum += length;
    square += length * length;
  }
  const mean = sum / runs;
  return { mean, error: Math.sqrt((square / runs - mean * mean) / runs) };
}

const cusum = (limit: number) => () => {
  let [up, down] = [0, 0];
  return (value: number) => {
    up = cusumStep(up, value, 0.5);
    down = cusumStep(down, -value, 0.5);
    return up > limit || down > limit;
  };
};
const ewma = () => {
  let average = 0;
  let [left, steps] = [1, 0];
  return (value: number) => {
    average = ewmaStep(average, value, 0.2);
    steps += 1;
    left *= 0.8;
    // Limits from the spread that it has by then; they settle at L √(λ / (2 − λ)).
    return Math.abs(average) > 2.962 * Math.sqrt((0.2 / 1.8) * (steps > 60 ? 1 : 1 - left * left));
  };
};
const shewhart = () => (value: number) => Math.abs(value) > 3;
const allRules = () => {
  const last: number[] = [];
  return (value: number) => {
    last.push(value);
    if (last.length > 8) last.shift();
    return westernElectric(last).length > 0;
  };
};

describe('average run lengths', () => {
  test.each<[string, () => (value: number) => boolean, number, number, number]>([
    ['three sigma alone: 370.4', shewhart, 0, 370.4, 2000],
    // Champ and Woodall, "Exact results for Shewhart control charts with supplementary runs rules", Technometrics 29, 1987
    ['all four rules: 91.75', allRules, 0, 91.75, 4000],
    // Montgomery, "Introduction to Statistical Quality Control"
    ['CUSUM, h = 4: 168', cusum(4), 0, 168, 2000],
    ['CUSUM, h = 5: 465', cusum(5), 0, 465, 2000],
    ['CUSUM, h = 5, shifted by 1: 10.4', cusum(5), 1, 10.4, 4000],
    // Lucas and Saccucci, Technometrics 32, 1990: about 500 with limits that are settled from the start
    ['EWMA, λ = 0.2, L = 2.962: about 500', ewma, 0, 500, 2000],
  ])('%s', (_, chart, shift, published, runs) => {
    const { mean, error } = averageRun(runs, chart, shift);
    expect(Math.abs(mean - published)).toBeLessThan(3.5 * error + 0.01 * published);
  });
});

test('each rule by itself, on both sides', () => {
  expect(westernElectric([3.1])).toEqual(['beyond-3']);
  expect(westernElectric([2.1, 0, 2.1])).toEqual(['two-of-three']);
  expect(westernElectric([-1.1, -1.1, 0, -1.1, -1.1])).toEqual(['four-of-five']);
  expect(westernElectric([0.1, 0.2, 0.1, 0.3, 0.1, 0.1, 0.2, 0.1])).toEqual(['eight']);
  expect(westernElectric([0.1, 0.2, 0.1, 0.3, 0.1, 0.1, 0.2])).toEqual([]);
  // Looked back at a good value, nothing is new.
  expect(westernElectric([2.1, 2.1, 0])).toEqual([]);
});

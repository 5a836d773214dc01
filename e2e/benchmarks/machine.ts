import { cleave, draws, fuse, mildWeather, newWear, seat, type Bench } from '@cordel/core/machine';
import { report } from './figures';

const count = 1_000_000;

/** So many single splices, each with its two cleaves, its seat, its arc and its proof test; beside as many normal draws of streams of their own. */
export function benchMachine(): void {
  const bench: Bench = { seed: 7, aligns: 'cores', faults: {} };
  let began = performance.now();
  let sum = 0;
  for (let index = 0; index < count; index += 1) sum += draws(7, 'plain', index).normal();
  const plain = performance.now() - began;
  began = performance.now();
  let loss = 0;
  for (let index = 0; index < count; index += 1) {
    const pair = {
      left: { key: `a ${index}`, modeField: 9.2 },
      right: { key: `b ${index}`, modeField: 9.2 },
    };
    const splice = `s ${index}`;
    const cleaves = {
      left: cleave(bench, newWear, 'left', pair.left, 1),
      right: cleave(bench, newWear, 'right', pair.right, 1),
    };
    const laid = [{ pair, cleaves, seat: seat(bench, splice, 1, pair, 1) }];
    loss += fuse(bench, newWear, mildWeather, splice, laid, 1)[0]!.truth;
  }
  const took = performance.now() - began;
  report(
    `1 000 000 simulated splices, mean ${(loss / count).toFixed(4)} dB (as many bare draws, mean ${(sum / count).toFixed(3)}: ${(plain / 1000).toFixed(1)} s)`,
    `${(took / 1000).toFixed(1)} s, ${(took / plain).toFixed(1)} ×`,
    'under 30 s',
  );
}

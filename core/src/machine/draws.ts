import { exactLog } from '../exactLog';

/**
 * Random numbers by a seed and a key. Each key has a stream of its own, so that what one fiber draws does not depend on how many others were drawn before: a night can
 * be played again with other decisions. Only +, ×, integer arithmetic, `Math.sqrt` and a logarithm of our own are used, which give the same to the last digit everywhere.
 */
export interface Draws {
  /** In [0, 1). */
  uniform(): number;
  /** Mean 0, standard deviation 1. */
  normal(): number;
  /** true with this probability. */
  chance(probability: number): boolean;
}

// Held here, since a look at a global takes long where tests run.
const { floor, imul, sqrt } = Math;

/** sfc32 by C. Doty-Humphrey (public domain; passes PractRand), started from a hash of seed and key. */
export function draws(seed: number, ...key: readonly (string | number)[]): Draws {
  let [a, b, c, d] = start(seed, key);
  const next = () => {
    const sum = (((a + b) | 0) + d) | 0;
    d = (d + 1) | 0;
    a = b ^ (b >>> 9);
    b = (c + (c << 3)) | 0;
    c = ((c << 21) | (c >>> 11)) + sum;
    c |= 0;
    return sum >>> 0;
  };
  for (let round = 0; round < 12; round += 1) next();
  const uniform = () => (next() * 0x200000 + (next() >>> 11)) / 0x20000000000000;
  let spare: number | null = null;
  return {
    uniform,
    chance: (probability) => uniform() < probability,
    // The polar method (Marsaglia and Bray 1964).
    normal() {
      if (spare !== null) {
        const kept = spare;
        spare = null;
        return kept;
      }
      for (;;) {
        const x = 2 * uniform() - 1;
        const y = 2 * uniform() - 1;
        const square = x * x + y * y;
        if (square >= 1 || square === 0) continue;
        const scale = sqrt((-2 * exactLog(square)) / square);
        spare = y * scale;
        return x * scale;
      }
    },
  };
}

/** Four words from seed and key; a text and the number that it spells are different keys. */
function start(seed: number, key: readonly (string | number)[]): [number, number, number, number] {
  let one = 0x9e3779b9 ^ seed;
  let two = 0x243f6a88 ^ floor(seed / 2 ** 32);
  const take = (value: number) => {
    one = imul(one ^ value, 0x85ebca6b);
    one = (one << 13) | (one >>> 19);
    two = imul(two ^ value, 0xc2b2ae35) ^ one;
    two = (two << 17) | (two >>> 15);
  };
  for (const part of key) {
    if (typeof part === 'number') {
      take(1);
      take(part | 0);
      take(floor(part / 2 ** 32));
    } else {
      take(2);
      for (let at = 0; at < part.length; at += 1) take(part.charCodeAt(at));
    }
    take(0x5bd1e995);
  }
  return [one | 0, two | 0, imul(one ^ (two >>> 7), 0x27d4eb2f), 1];
}

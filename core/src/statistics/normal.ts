import { exactLog } from '../exactLog';
import { regularizedGammaAbove } from './gammaFunctions';

/** The chance that a standard normal variable is at most z. Error about 1e-14. */
export function normalCdf(z: number): number {
  const tail = regularizedGammaAbove(0.5, (z * z) / 2) / 2;
  return z > 0 ? 1 - tail : tail;
}

/**
 * The z below which a standard normal variable lies with this chance. M. J. Wichura, "Algorithm AS 241: the percentage points of the normal distribution", Applied
 * Statistics 37, 1988 (PPND16: relative error about 1e-16).
 * @param p between 0 and 1
 */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) return p === 0 ? -Infinity : p === 1 ? Infinity : NaN;
  const q = p - 0.5;
  if (Math.abs(q) <= 0.425) {
    const r = 0.180625 - q * q;
    return (q * polynomial(a, r)) / polynomial(b, r);
  }
  let r = Math.sqrt(-exactLog(q < 0 ? p : 1 - p));
  let z: number;
  if (r <= 5) {
    r -= 1.6;
    z = polynomial(c, r) / polynomial(d, r);
  } else {
    r -= 5;
    z = polynomial(e, r) / polynomial(f, r);
  }
  return q < 0 ? -z : z;
}

/** Coefficients from the highest power down. */
function polynomial(coefficients: readonly number[], x: number): number {
  let sum = 0;
  for (const one of coefficients) sum = sum * x + one;
  return sum;
}

const a = [
  2509.0809287301227, 33430.57558358813, 67265.7709270087, 45921.95393154987, 13731.69376550946,
  1971.5909503065513, 133.14166789178438, 3.3871328727963665,
];
const b = [
  5226.495278852546, 28729.085735721943, 39307.89580009271, 21213.794301586597, 5394.196021424751,
  687.1870074920579, 42.31333070160091, 1,
];
const c = [
  0.0007745450142783414, 0.022723844989269184, 0.2417807251774506, 1.2704582524523684, 3.6478483247632045,
  5.769497221460691, 4.630337846156546, 1.4234371107496835,
];
const d = [
  1.0507500716444169e-9, 0.0005475938084995345, 0.015198666563616457, 0.14810397642748008, 0.6897673349851,
  1.6763848301838038, 2.053191626637759, 1,
];
const e = [
  2.0103343992922881e-7, 2.7115555687434876e-5, 0.0012426609473880784, 0.026532189526576124,
  0.29656057182850487, 1.7848265399172913, 5.463784911164114, 6.657904643501103,
];
const f = [
  2.0442631033899397e-15, 1.421511758316446e-7, 1.8463183175100548e-5, 0.0007868691311456133,
  0.014875361290850615, 0.1369298809227358, 0.599832206555888, 1,
];

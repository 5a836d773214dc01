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
  2509.0809287301226727, 33430.575583588128105, 67265.770927008700853, 45921.953931549871457,
  13731.693765509461125, 1971.5909503065514427, 133.14166789178437745, 3.387132872796366608,
];
const b = [
  5226.495278852545925, 28729.085735721942674, 39307.89580009271061, 21213.794301586595867,
  5394.1960214247511077, 687.1870074920579083, 42.313330701600911252, 1,
];
const c = [
  7.7454501427834140764e-4, 0.0227238449892691845833, 0.24178072517745061177, 1.27045825245236838258,
  3.64784832476320460504, 5.7694972214606914055, 4.6303378461565452959, 1.42343711074968357734,
];
const d = [
  1.05075007164441684324e-9, 5.475938084995344946e-4, 0.0151986665636164571966, 0.14810397642748007459,
  0.68976733498510000455, 1.6763848301838038494, 2.05319162663775882187, 1,
];
const e = [
  2.01033439929228813265e-7, 2.71155556874348757815e-5, 0.0012426609473880784386, 0.026532189526576123093,
  0.29656057182850489123, 1.7848265399172913358, 5.4637849111641143699, 6.6579046435011037772,
];
const f = [
  2.04426310338993978564e-15, 1.4215117583164458887e-7, 1.8463183175100546818e-5, 7.868691311456132591e-4,
  0.0148753612908506148525, 0.13692988092273580531, 0.59983220655588793769, 1,
];

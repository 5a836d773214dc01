import { exactExp } from '../exactExp';
import { exactLog } from '../exactLog';

/** Functions of the gamma family; only `exactLog` and `exactExp` are used, so that the digits are the same everywhere. */

/**
 * ln Γ(x) for x > 0, after C. Lanczos, "A precision approximation of the gamma function", SIAM Journal on Numerical Analysis B 1, 1964, with g = 7 and the nine
 * coefficients of P. Godfrey (2001). Relative error about 1e-14.
 */
export function lnGamma(x: number): number {
  if (!(x > 0)) return NaN;
  // The series is good from ½ upward; below, Γ(x) = Γ(x + 1) / x.
  if (x < 0.5) return lnGamma(x + 1) - exactLog(x);
  const z = x - 1;
  let sum = lanczos[0]!;
  for (let i = 1; i < lanczos.length; i += 1) sum += lanczos[i]! / (z + i);
  const t = z + 7.5;
  return halfLn2Pi + (z + 0.5) * exactLog(t) - t + exactLog(sum);
}

const halfLn2Pi = 0.9189385332046727;
const lanczos = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

// Held here, since a look at a global takes long where tests run.
const { abs } = Math;
const smallest = 1e-300;
const enough = 1e-15;

/**
 * I_x(a, b), the regularized incomplete beta function: the chance that a beta variable is at most x. By its continued fraction (Abramowitz and Stegun 26.5.8) with the
 * method of Lentz as improved by Thompson and Barnett (1986). Error about 1e-13.
 * @param a above 0, and b
 */
export function regularizedBeta(x: number, a: number, b: number): number {
  if (!(a > 0 && b > 0)) return NaN;
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = exactExp(lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * exactLog(x) + b * exactLog(1 - x));
  return x < (a + 1) / (a + b + 2)
    ? (front * fraction(x, a, b)) / a
    : 1 - (front * fraction(1 - x, b, a)) / b;
}

function fraction(x: number, a: number, b: number): number {
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  if (abs(d) < smallest) d = smallest;
  d = 1 / d;
  let h = d;
  for (let m = 1; m <= 500; m += 1) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    for (const step of [even, odd]) {
      d = 1 + step * d;
      if (abs(d) < smallest) d = smallest;
      c = 1 + step / c;
      if (abs(c) < smallest) c = smallest;
      d = 1 / d;
      h *= d * c;
    }
    if (abs(d * c - 1) < enough) break;
  }
  return h;
}

/**
 * P(a, x), the regularized lower incomplete gamma function: the chance that a gamma variable of shape a and rate 1 is at most x. Error about 1e-14.
 * @param a above 0
 */
export function regularizedGamma(a: number, x: number): number {
  if (!(a > 0)) return NaN;
  if (x <= 0) return 0;
  return x < a + 1 ? series(a, x) : 1 - gammaFraction(a, x);
}

/** Q(a, x) = 1 − P(a, x), with all its digits where it is small. */
export function regularizedGammaAbove(a: number, x: number): number {
  if (!(a > 0)) return NaN;
  if (x <= 0) return 1;
  return x < a + 1 ? 1 - series(a, x) : gammaFraction(a, x);
}

const gammaFront = (a: number, x: number) => exactExp(a * exactLog(x) - x - lnGamma(a));

/** P by its series (Abramowitz and Stegun 6.5.29). */
function series(a: number, x: number): number {
  let term = 1 / a;
  let sum = term;
  for (let n = a + 1; abs(term) > abs(sum) * enough; n += 1) {
    term *= x / n;
    sum += term;
  }
  return gammaFront(a, x) * sum;
}

/** Q by its continued fraction (Abramowitz and Stegun 6.5.31). */
function gammaFraction(a: number, x: number): number {
  let b = x + 1 - a;
  let c = 1 / smallest;
  let d = 1 / b;
  let h = d;
  for (let i = 1; i <= 500; i += 1) {
    const step = -i * (i - a);
    b += 2;
    d = step * d + b;
    if (abs(d) < smallest) d = smallest;
    c = b + step / c;
    if (abs(c) < smallest) c = smallest;
    d = 1 / d;
    h *= d * c;
    if (abs(d * c - 1) < enough) break;
  }
  return gammaFront(a, x) * h;
}

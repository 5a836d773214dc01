/**
 * The exponential function, the same to the last digit wherever it runs; see `exactLog`. After e_exp.c of fdlibm (Sun Microsystems, 1993, freely distributable). Error
 * below one unit in the last place.
 */
export function exactExp(x: number): number {
  if (!(x < overflow)) return x > overflow ? Infinity : x === overflow ? Number.MAX_VALUE : NaN;
  if (x < underflow) return 0;
  const size = Math.abs(x);
  let high = 0;
  let low = 0;
  let k = 0;
  let rest = x;
  if (size > halfLn2) {
    k = size < 3 * halfLn2 ? (x < 0 ? -1 : 1) : Math.trunc(x / ln2 + (x < 0 ? -0.5 : 0.5));
    high = x - k * ln2High;
    low = k * ln2Low;
    rest = high - low;
  } else if (size < 2 ** -28) return 1 + x;
  const t = rest * rest;
  const c = rest - t * (p1 + t * (p2 + t * (p3 + t * (p4 + t * p5))));
  if (k === 0) return 1 - ((rest * c) / (c - 2) - rest);
  const y = 1 - (low - (rest * c) / (2 - c) - high);
  // Scaled in two steps, so that neither power of two leaves the range.
  const half = k >> 1;
  return y * powerOfTwo(half) * powerOfTwo(k - half);
}

/** 2^k for k from −1022 to 1023. */
function powerOfTwo(k: number): number {
  bits.setInt32(0, (k + 1023) << 20);
  bits.setInt32(4, 0);
  return bits.getFloat64(0);
}

const bits = new DataView(new ArrayBuffer(8));
const overflow = 7.09782712893383973096e2;
const underflow = -7.4513321910194110842e2;
const ln2 = 6.931471805599453094e-1;
const halfLn2 = ln2 / 2;
/** ln 2 in two parts, as in `exactLog`. */
const ln2High = 6.9314718036912381649e-1;
const ln2Low = 1.90821492927058770002e-10;
const p1 = 1.66666666666666019037e-1;
const p2 = -2.77777777770155933842e-3;
const p3 = 6.61375632143793436117e-5;
const p4 = -1.6533902205465251539e-6;
const p5 = 4.13813679705723846039e-8;

/**
 * The exponential function, the same to the last digit wherever it runs; see `exactLog`. After e_exp.c of fdlibm (Sun Microsystems, 1993, freely distributable). Error
 * below one unit in the last place.
 */
export function exactExp(x: number): number {
  if (!(x < overflow)) return x > overflow ? infinite : x === overflow ? MAX_VALUE : NaN;
  if (x < underflow) return 0;
  const size = abs(x);
  let high = 0;
  let low = 0;
  let k = 0;
  let rest = x;
  if (size > halfLn2) {
    k = size < 3 * halfLn2 ? (x < 0 ? -1 : 1) : trunc(x / ln2 + (x < 0 ? -0.5 : 0.5));
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

// Held here, since a look at a global takes long where tests run.
const { abs, trunc } = Math;
const { MAX_VALUE } = Number;
const infinite = Infinity;
const bits = new DataView(new ArrayBuffer(8));
const overflow = 709.782712893384;
const underflow = -745.1332191019411;
const ln2 = 0.6931471805599453;
const halfLn2 = ln2 / 2;
/** ln 2 in two parts, as in `exactLog`. */
const ln2High = 0.6931471803691238;
const ln2Low = 1.9082149292705877e-10;
const p1 = 0.16666666666666602;
const p2 = -0.0027777777777015593;
const p3 = 6.613756321437934e-5;
const p4 = -1.6533902205465252e-6;
const p5 = 4.1381367970572385e-8;

/**
 * Natural logarithm that is the same to the last digit wherever it runs: `Math.log` is not (Node.js 20 and Chromium 156 differ in one value of fourteen). After e_log.c of
 * fdlibm (Sun Microsystems, 1993, freely distributable), of which + − × ÷ and bits are all that is used. Error below one unit in the last place.
 * @param x above 0; 0 gives −∞, below NaN
 */
export function exactLog(x: number): number {
  if (!(x > 0 && x <= largest)) return x === 0 ? -Infinity : x > 0 ? x : NaN;
  bits.setFloat64(0, x);
  let high = bits.getInt32(0);
  let k = 0;
  // A number without its leading bit.
  if (high < 0x00100000) {
    k -= 54;
    bits.setFloat64(0, x * 18014398509481984);
    high = bits.getInt32(0);
  }
  k += (high >> 20) - 1023;
  high &= 0x000fffff;
  const i = (high + 0x95f64) & 0x100000;
  // x = 2^k (1 + f), with 1 + f from √½ to √2.
  bits.setInt32(0, high | (i ^ 0x3ff00000));
  k += i >> 20;
  const f = bits.getFloat64(0) - 1;
  const s = f / (2 + f);
  const z = s * s;
  const w = z * z;
  const t1 = w * (3.999999999940941908e-1 + w * (2.222219843214978396e-1 + w * 1.531383769920937332e-1));
  const t2 =
    z *
    (6.66666666666673513e-1 +
      w * (2.857142874366239149e-1 + w * (1.818357216161805012e-1 + w * 1.479819860511658591e-1)));
  const r = t1 + t2;
  const half = 0.5 * f * f;
  return k * ln2High - (half - (s * (half + r) + k * ln2Low) - f);
}

const largest = Number.MAX_VALUE;
const bits = new DataView(new ArrayBuffer(8));
/** ln 2 in two parts, of which the first has zeros enough at its end to be multiplied by any exponent exactly. */
const ln2High = 6.9314718036912381649e-1;
const ln2Low = 1.90821492927058770002e-10;

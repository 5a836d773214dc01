/** Mean and standard deviation (n − 1) of values, in two passes, so that large values with small differences keep their digits; null for fewer than one and two. */
export function moments(values: ArrayLike<number>): {
  readonly mean: number | null;
  readonly deviation: number | null;
} {
  const n = values.length;
  if (n === 0) return { mean: null, deviation: null };
  let sum = 0;
  for (let at = 0; at < n; at += 1) sum += values[at]!;
  let mean = sum / n;
  let rest = 0;
  for (let at = 0; at < n; at += 1) rest += values[at]! - mean;
  mean += rest / n;
  if (n === 1) return { mean, deviation: null };
  let [square, left] = [0, 0];
  for (let at = 0; at < n; at += 1) {
    const difference = values[at]! - mean;
    square += difference * difference;
    left += difference;
  }
  return { mean, deviation: Math.sqrt((square - (left * left) / n) / (n - 1)) };
}

/** The line of least squares through points; null where they don't make one. */
export function regressionLine(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
): { readonly slope: number; readonly intercept: number } | null {
  const [meanX, meanY] = [moments(x).mean, moments(y).mean];
  if (meanX === null || meanY === null || x.length !== y.length) return null;
  let [xx, xy] = [0, 0];
  for (let at = 0; at < x.length; at += 1) {
    const dx = x[at]! - meanX;
    xx += dx * dx;
    xy += dx * (y[at]! - meanY);
  }
  if (xx === 0) return null;
  const slope = xy / xx;
  return { slope, intercept: meanY - slope * meanX };
}

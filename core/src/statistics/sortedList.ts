/** How many of these numbers, sorted upward, are below a value, or at most it. */
export function countBelow(sorted: ArrayLike<number>, value: number, orEqual = false): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (orEqual ? sorted[middle]! <= value : sorted[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

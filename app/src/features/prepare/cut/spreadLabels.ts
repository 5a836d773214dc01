/**
 * Where labels of these heights go so that none covers another and each is as near to its place as the others allow. In one column, in the
 * order given (`wanted` upward). Returns the top of each, and how high the column has to be.
 * @param wanted middle of each label, where it would stand alone
 * @param height of the column; it grows when the labels need more
 */
export function spreadLabels(
  wanted: readonly number[],
  heights: readonly number[],
  height: number,
): { readonly tops: number[]; readonly height: number } {
  const needed = heights.reduce((sum, one) => sum + one, 0);
  const column = Math.max(height, needed);
  // Labels that push each other become one block, which stands where its labels on average want to be.
  const blocks: { first: number; height: number; count: number; sum: number; top: number }[] = [];
  wanted.forEach((middle, index) => {
    const own = heights[index]!;
    let block = { first: index, height: own, count: 1, sum: middle - own / 2, top: 0 };
    block.top = clamp(block.sum, 0, column - block.height);
    for (let last = blocks.at(-1); last && last.top + last.height > block.top; last = blocks.at(-1)) {
      blocks.pop();
      block = {
        first: last.first,
        height: last.height + block.height,
        count: last.count + block.count,
        sum: last.sum + block.sum - block.count * last.height,
        top: 0,
      };
      block.top = clamp(block.sum / block.count, 0, column - block.height);
    }
    blocks.push(block);
  });
  const tops: number[] = [];
  for (const { first, count, top } of blocks) {
    let at = top;
    for (let index = first; index < first + count; index += 1) {
      tops[index] = at;
      at += heights[index]!;
    }
  }
  return { tops, height: column };
}

function clamp(value: number, low: number, high: number): number {
  return Math.max(low, Math.min(high, value));
}

/** A step for the figures beside a tape, mm, so that about `figures` of them stand along `length`: whole hundreds, or whole inches. */
export function tapeStep(length: number, figures: number, units: 'mm' | 'in'): number {
  const steps =
    units === 'mm'
      ? [10, 20, 50, 100, 200, 250, 500, 1000]
      : [1, 2, 4, 6, 12, 24, 48].map((inches) => inches * 25.4);
  return steps.find((step) => length / step <= figures) ?? steps.at(-1)!;
}

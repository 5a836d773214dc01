/** Ranks from 1, upward; those that are equal share the middle of theirs. `ties` is Σ(t³ − t) over the groups of equal ones. */
export function midranks(values: ArrayLike<number>): { readonly ranks: Float64Array; readonly ties: number } {
  const order = Array.from({ length: values.length }, (_, index) => index).sort(
    (a, b) => values[a]! - values[b]!,
  );
  const ranks = new Float64Array(values.length);
  let ties = 0;
  for (let first = 0; first < order.length;) {
    let last = first;
    while (last + 1 < order.length && values[order[last + 1]!] === values[order[first]!]) last += 1;
    const count = last - first + 1;
    ties += count * count * count - count;
    for (let at = first; at <= last; at += 1) ranks[order[at]!] = (first + last) / 2 + 1;
    first = last + 1;
  }
  return { ranks, ties };
}

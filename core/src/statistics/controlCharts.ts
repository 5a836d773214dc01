/** Charts that watch a value in time. They take what is already standardized: mean 0 and standard deviation 1 while nothing is wrong. */

/**
 * One side of the tabular CUSUM of E. S. Page, "Continuous inspection schemes", Biometrika 41, 1954: what the values are above `slack` is added up, never below 0.
 * @param before the sum up to here
 * @param slack half of the shift that is looked for
 */
export function cusumStep(before: number, value: number, slack: number): number {
  return Math.max(0, before + value - slack);
}

/** The moving average of S. W. Roberts, "Control chart tests based on geometric moving averages", Technometrics 1, 1959. */
export function ewmaStep(before: number, value: number, weight: number): number {
  return weight * value + (1 - weight) * before;
}

/** Rules of the Western Electric "Statistical Quality Control Handbook", 1956. */
export type WesternElectricRule = 'beyond-3' | 'two-of-three' | 'four-of-five' | 'eight';

/**
 * The rules that trip at the last of these values, on either side: one beyond 3; two of three beyond 2; four of five beyond 1; eight in a row, on one side of the middle.
 * @param values standardized, in order of time; the last eight are looked at
 */
export function westernElectric(values: ArrayLike<number>): readonly WesternElectricRule[] {
  const tripped = new Set<WesternElectricRule>();
  for (const side of [1, -1]) {
    const beyond = (last: number, limit: number) => {
      let count = 0;
      for (let at = Math.max(0, values.length - last); at < values.length; at += 1)
        if (side * values[at]! > limit) count += 1;
      return count;
    };
    // A rule trips at a value that is itself beyond.
    const now = (limit: number) => beyond(1, limit) === 1;
    if (now(3)) tripped.add('beyond-3');
    if (now(2) && beyond(3, 2) >= 2) tripped.add('two-of-three');
    if (now(1) && beyond(5, 1) >= 4) tripped.add('four-of-five');
    if (beyond(8, 0) === 8) tripped.add('eight');
  }
  return [...tripped];
}

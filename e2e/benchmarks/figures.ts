/** Quantile by rank of some durations. */
export function at(share: number, values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}

/** Durations of `runs` runs in ms, after a few that warm the machine up. */
export function timed(runs: number, work: () => unknown): number[] {
  for (let index = 0; index < Math.min(runs, 20); index += 1) work();
  return Array.from({ length: runs }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
}

/** One line of the report: what, how much, and what it should be. */
export function report(what: string, figure: string, target: string): void {
  console.log(`${what.padEnd(64)} ${figure.padStart(34)}   target ${target}`);
}

import { midranks } from '../../statistics/ranks';
import { normalQuantile } from '../../statistics/normal';
import type { Happened, Tried } from '../series/tried';
import type { Strength, Watcher } from './rule';

/**
 * One position of the ribbons reads higher than the others: the ranks within each ribbon, added up over first tries since the sum last stood at nothing (M. Friedman, "The use of ranks to avoid the assumption of
 * normality", JASA 32, 1937), each position against the rest, corrected for as many positions as there are (S. Holm, Scandinavian Journal of Statistics 6, 1979).
 */
export class Position implements Watcher {
  private sums: number[] = [];
  private variances: number[] = [];
  private counts: number[] = [];

  /** @param chance of a false alarm at one look */
  constructor(
    private readonly chance: number,
    private readonly least: number,
  ) {}

  add(tried: Tried): void {
    if (tried.kind !== 'ribbon' || tried.nth !== 1) return;
    const read = tried.losses.flatMap((loss, at) => (loss === null ? [] : [at]));
    if (read.length < 2) return;
    const { ranks } = midranks(read.map((at) => tried.losses[at]!));
    const middle = (read.length + 1) / 2;
    let square = 0;
    for (const rank of ranks) square += (rank - middle) * (rank - middle);
    read.forEach((at, index) => {
      this.sums[at] = (this.sums[at] ?? 0) + ranks[index]! - middle;
      this.variances[at] = (this.variances[at] ?? 0) + square / read.length;
      this.counts[at] = (this.counts[at] ?? 0) + 1;
      // Dirt comes at some moment: what was in order before is no longer counted.
      if (this.sums[at]! <= 0) this.begin(at);
    });
  }

  happened(event: Happened): void {
    if (event.what !== 'answered' || event.rule !== 'position') return;
    // With no position said it was put right for all of them.
    if (event.about === '') this.sums.forEach((_, at) => this.begin(at));
    else this.begin(Number(event.about) - 1);
  }

  private begin(at: number): void {
    this.sums[at] = this.variances[at] = this.counts[at] = 0;
  }

  strengths(): readonly Strength[] {
    const found: { at: number; z: number }[] = [];
    this.sums.forEach((sum, at) => {
      if (this.variances[at]! > 0) found.push({ at, z: sum / Math.sqrt(this.variances[at]!) });
    });
    found.sort((a, b) => b.z - a.z);
    // Step by step: the highest among all, the next one among those that are left.
    return found.map(({ at, z }, passed) => ({
      rule: 'position',
      about: String(at + 1),
      statistic: z,
      threshold: normalQuantile(1 - this.chance / Math.max(1, found.length - passed)),
      count: this.counts[at]!,
      enough: this.counts[at]! >= this.least,
    }));
  }
}

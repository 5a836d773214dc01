import { levelOf, meanOf, type Happened, type Tried } from '../series/tried';
import { isAnswer, type RuleName, type Strength } from './rule';
import { addToSums, meanVariance, type Sums } from './sums';

/** A variance of fewer is not worth the name. */
const fewest = 4;
/** A difference that nobody cares about, however sure it is: about 0.0025 dB at 0.02 dB. */
const nothingMuch = 0.008;
/** A cleave beyond this is not a good one. Degrees. */
const goodCleave = 1;

/**
 * One pair of cables, person or machine reads higher than the others, where everything else is the same: differences of the mean level of first tries with good cleaves,
 * added up over strata by how much each says (as the tests of P. van Elteren, 1960, do), with variances of their own (B. L. Welch, Biometrika 34, 1947).
 */
export class Groups {
  private readonly strata = new Map<string, Map<string, Sums>>();
  /** What the mode fields cost, by group: a difference that is known is no alarm. */
  private readonly terms = new Map<string, number | null>();

  constructor(
    private readonly rule: Extract<RuleName, 'pair' | 'person' | 'machine'>,
    private readonly threshold: number,
    private readonly least: number,
  ) {}

  add(tried: Tried): void {
    const group = tried[this.rule];
    if (group === null || tried.nth !== 1 || tried.broke) return;
    for (const angles of [tried.left, tried.right]) {
      const angle = meanOf(angles);
      if (angle !== null && angle > goodCleave) return;
    }
    const level = levelOf(tried);
    if (level === null) return;
    const others = (['pair', 'machine', 'person'] as const).filter(
      (one) => one !== this.rule && !(this.rule !== 'person' && one === 'person'),
    );
    const key = [tried.kind, ...others.map((one) => tried[one] ?? '')].join('\n');
    let stratum = this.strata.get(key);
    if (!stratum) this.strata.set(key, (stratum = new Map()));
    let sums = stratum.get(group);
    if (!sums) stratum.set(group, (sums = { count: 0, mean: 0, squares: 0 }));
    addToSums(sums, level);
    if (this.rule === 'pair') this.terms.set(group, tried.pairTerm);
  }

  happened(event: Happened): void {
    if (!isAnswer(event, this.rule)) return;
    this.strata.clear();
    this.terms.clear();
  }

  strengths(): readonly Strength[] {
    const names = new Set<string>();
    for (const stratum of this.strata.values()) for (const name of stratum.keys()) names.add(name);
    const found: Strength[] = [];
    for (const name of names) {
      if (this.explained(name)) continue;
      let [difference, variance, count, weights] = [0, 0, 0, 0];
      let enough = false;
      for (const stratum of this.strata.values()) {
        const own = stratum.get(name);
        const rest = others(stratum, name);
        if (!own || own.count < fewest || rest.count < fewest) continue;
        if (rest.count >= this.least && own.count >= this.least) enough = true;
        const weight = 1 / (1 / own.count + 1 / rest.count);
        weights += weight;
        difference += weight * (own.mean - rest.mean);
        variance += weight * weight * (meanVariance(own) + meanVariance(rest));
        count += own.count;
      }
      if (variance <= 0) continue;
      const statistic = (difference - weights * nothingMuch) / Math.sqrt(variance);
      found.push({ rule: this.rule, about: name, statistic, threshold: this.threshold, count, enough });
    }
    return found.sort((a, b) => b.statistic - a.statistic);
  }

  /** Whether the mode fields of a pair cost more than those of the others: then it reads higher, and nothing is wrong. */
  private explained(name: string): boolean {
    const own = this.terms.get(name);
    if (!own) return false;
    for (const [other, term] of this.terms) if (other !== name && term !== null && term >= own) return false;
    return own > 0.004;
  }
}

function others(stratum: ReadonlyMap<string, Sums>, name: string): Sums {
  const all = { count: 0, mean: 0, squares: 0 };
  for (const [other, { count, mean, squares }] of stratum) {
    if (other === name) continue;
    const total = all.count + count;
    const apart = mean - all.mean;
    all.squares += squares + (apart * apart * all.count * count) / total;
    all.mean += (apart * count) / total;
    all.count = total;
  }
  return all;
}

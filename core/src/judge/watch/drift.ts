import { levelOf, type Happened, type Tried } from '../series/tried';
import { isAnswer, type Strength, type Watcher } from './rule';

/**
 * Losses creep up: the trend test of Mann and Kendall on the level of first tries since the last calibration, added up over pairs of cables, each of which has its own level
 * (R. Hirsch and J. Slack, "A nonparametric trend test for seasonal data with serial dependence", Water Resources Research 20, 1984: the sum over seasons).
 */
export class Drift implements Watcher {
  private strata = new Map<
    string,
    { values: number[]; counts: Map<number, number>; ties: number; s: number }
  >();
  private count = 0;

  constructor(
    private readonly threshold: number,
    private readonly least: number,
  ) {}

  add(tried: Tried): void {
    const level = tried.nth === 1 ? levelOf(tried) : null;
    if (level === null) return;
    const key = `${tried.kind} ${tried.pair}`;
    let stratum = this.strata.get(key);
    if (!stratum) this.strata.set(key, (stratum = { values: [], counts: new Map(), ties: 0, s: 0 }));
    for (const earlier of stratum.values) stratum.s += level > earlier ? 1 : level < earlier ? -1 : 0;
    const t = stratum.counts.get(level) ?? 0;
    stratum.ties += tieTerm(t + 1) - tieTerm(t);
    stratum.counts.set(level, t + 1);
    stratum.values.push(level);
    this.count += 1;
  }

  happened(event: Happened): void {
    if (event.what !== 'calibrated' && !isAnswer(event, 'drift')) return;
    this.strata = new Map();
    this.count = 0;
  }

  strengths(): readonly Strength[] {
    let [s, variance] = [0, 0];
    for (const { values, ties, s: own } of this.strata.values()) {
      s += own;
      variance += (tieTerm(values.length) - ties) / 18;
    }
    const statistic = s > 1 && variance > 0 ? (s - 1) / Math.sqrt(variance) : 0;
    const { count, threshold } = this;
    return [{ rule: 'drift', about: '', statistic, threshold, count, enough: count >= this.least }];
  }
}

const tieTerm = (t: number) => t * (t - 1) * (2 * t + 5);

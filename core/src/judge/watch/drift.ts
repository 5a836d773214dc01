import { countBelow } from '../../statistics/sortedList';
import { levelOf, type Happened, type Tried } from '../series/tried';
import { isAnswer, type Strength, type Watcher } from './rule';

interface Stratum {
  /** Levels so far, upward. */
  readonly sorted: number[];
  ties: number;
  s: number;
}

/**
 * Losses creep up: the trend test of Mann and Kendall on the level of first tries since the last calibration, added up over pairs of cables, each of which has its own level
 * (R. Hirsch and J. Slack, "A nonparametric trend test for seasonal data with serial dependence", Water Resources Research 20, 1984: the sum over seasons).
 */
export class Drift implements Watcher {
  private strata = new Map<string, Stratum>();
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
    if (!stratum) this.strata.set(key, (stratum = { sorted: [], ties: 0, s: 0 }));
    // Pairs with all earlier ones, counted in the sorted list of them.
    const { sorted } = stratum;
    const below = countBelow(sorted, level);
    const equal = countBelow(sorted, level, true) - below;
    stratum.s += 2 * below + equal - sorted.length;
    stratum.ties += tieTerm(equal + 1) - tieTerm(equal);
    sorted.splice(below, 0, level);
    this.count += 1;
  }

  happened(event: Happened): void {
    if (event.what !== 'calibrated' && !isAnswer(event, 'drift')) return;
    this.strata = new Map();
    this.count = 0;
  }

  strengths(): readonly Strength[] {
    let [s, variance] = [0, 0];
    for (const { sorted, ties, s: own } of this.strata.values()) {
      s += own;
      variance += (tieTerm(sorted.length) - ties) / 18;
    }
    const statistic = s > 1 && variance > 0 ? (s - 1) / Math.sqrt(variance) : 0;
    const { count, threshold } = this;
    return [{ rule: 'drift', about: '', statistic, threshold, count, enough: count >= this.least }];
  }
}

const tieTerm = (t: number) => t * (t - 1) * (2 * t + 5);

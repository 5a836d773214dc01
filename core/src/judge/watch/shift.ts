import { cusumStep } from '../../statistics/controlCharts';
import { normalQuantile } from '../../statistics/normal';
import { countBelow } from '../../statistics/sortedList';
import { levelOf, type Happened, type Tried } from '../series/tried';
import { isAnswer, type Strength, type Watcher } from './rule';

/** Earlier ones that a value is ranked among at least. */
const fewest = 6;
const slack = 0.35;

/**
 * Losses went up at some moment: a one-sided CUSUM of sequential ranks, turned into normal scores. Each first try since the last calibration is ranked among those before it
 * between the same two cables; while nothing changes every rank is as likely as any other, whatever the losses are distributed like (D. McDonald, "A cusum procedure based on
 * sequential ranks", Naval Research Logistics 37, 1990).
 */
export class Shift implements Watcher {
  private strata = new Map<string, number[]>();
  private sum = 0;
  /** Values that are added up, and since when. */
  private run = 0;

  constructor(
    private readonly threshold: number,
    private readonly least: number,
  ) {}

  add(tried: Tried): void {
    const level = tried.nth === 1 ? levelOf(tried) : null;
    if (level === null) return;
    const score = scoreAmong(this.strata, `${tried.kind} ${tried.pair}`, level);
    if (score === null) return;
    this.sum = cusumStep(this.sum, score, slack);
    this.run = this.sum > 0 ? this.run + 1 : 0;
  }

  happened(event: Happened): void {
    if (event.what !== 'calibrated' && !isAnswer(event, 'shift')) return;
    this.strata = new Map();
    this.sum = 0;
    this.run = 0;
  }

  strengths(): readonly Strength[] {
    const { sum: statistic, threshold, run: count } = this;
    return [{ rule: 'shift', about: '', statistic, threshold, count, enough: count >= this.least }];
  }
}

/** The normal score of a value among the earlier ones of its stratum, to which it is added; null while they are few. */
function scoreAmong(strata: Map<string, number[]>, key: string, value: number): number | null {
  let sorted = strata.get(key);
  if (!sorted) strata.set(key, (sorted = []));
  const below = countBelow(sorted, value);
  const equal = countBelow(sorted, value, true) - below;
  sorted.splice(below, 0, value);
  if (sorted.length <= fewest) return null;
  return normalQuantile((below + equal / 2 + 0.5) / sorted.length);
}

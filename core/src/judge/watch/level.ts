import { cusumStep } from '../../statistics/controlCharts';
import { levelOf, type Happened, type Tried } from '../series/tried';
import type { Reference } from './reference';
import { isAnswer, type Strength, type Watcher } from './rule';

const slack = 0.5;

/** Losses are higher than usual, perhaps from the first one on: a CUSUM of first tries against the reference. */
export class Level implements Watcher {
  private sum = 0;
  private run = 0;

  constructor(
    private readonly reference: Reference['level'],
    private readonly threshold: number,
    private readonly least: number,
  ) {}

  add(tried: Tried): void {
    const level = tried.nth === 1 ? levelOf(tried) : null;
    if (level === null) return;
    const { mean, deviation } = this.reference[tried.kind];
    // One wild reading is an outlier; it takes several to make a level.
    this.sum = cusumStep(this.sum, Math.min(2.5, (level - mean) / deviation), slack);
    this.run = this.sum > 0 ? this.run + 1 : 0;
  }

  happened(event: Happened): void {
    if (event.what === 'calibrated' || isAnswer(event, 'level')) this.sum = this.run = 0;
  }

  strengths(): readonly Strength[] {
    const { sum: statistic, threshold, run: count } = this;
    return [{ rule: 'level', about: '', statistic, threshold, count, enough: count >= this.least }];
  }
}

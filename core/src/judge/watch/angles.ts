import { cusumStep } from '../../statistics/controlCharts';
import { meanOf, type Happened, type Tried } from '../series/tried';
import type { Usual } from './reference';
import { isAnswer, type Strength, type Watcher } from './rule';
import { addToSums, meanVariance, type Sums } from './sums';

/** One wild cleave does not make a side. Degrees. */
const most = 1.5;

/** Cleaves of one side are worse than those of the other: the paired t test (Student, Biometrika 6, 1908) on left less right of each try. */
export class Side implements Watcher, Sums {
  count = 0;
  mean = 0;
  squares = 0;

  constructor(
    private readonly threshold: number,
    private readonly least: number,
  ) {}

  add(tried: Tried): void {
    const [left, right] = [meanOf(tried.left), meanOf(tried.right)];
    if (left === null || right === null) return;
    const difference = Math.max(-most, Math.min(most, left - right));
    addToSums(this, difference);
  }

  happened(event: Happened): void {
    if (event.what === 'blade-turned' || isAnswer(event, 'side')) this.count = this.mean = this.squares = 0;
  }

  strengths(): readonly Strength[] {
    if (this.count < 2) return [];
    // Angles are read in steps of 0.1°: a spread below that is no spread.
    const variance = Math.max(this.squares / (this.count - 1), 0.1 * 0.1);
    return [
      {
        rule: 'side',
        about: this.mean > 0 ? 'left' : 'right',
        // A difference below a step of the reading is none.
        statistic: Math.max(0, Math.abs(this.mean) - 0.1) / Math.sqrt(variance / this.count),
        threshold: this.threshold,
        count: this.count,
        enough: this.count >= this.least,
      },
    ];
  }
}

const slack = 0.5;

/** Cleaves of both sides are worse than usual: a CUSUM of the mean angle of a try against the reference. */
export class Blade implements Watcher {
  private sum = 0;
  private run = 0;

  constructor(
    private readonly reference: Usual,
    private readonly threshold: number,
    private readonly least: number,
  ) {}

  add(tried: Tried): void {
    const [left, right] = [meanOf(tried.left), meanOf(tried.right)];
    if (left === null || right === null) return;
    const { mean, deviation } = this.reference;
    // The better side has to be bad as well.
    this.sum = cusumStep(this.sum, Math.min(2.5, (Math.min(left, right) + 0.12 - mean) / deviation), slack);
    this.run = this.sum > 0 ? this.run + 1 : 0;
  }

  happened(event: Happened): void {
    if (event.what === 'blade-turned' || isAnswer(event, 'blade')) this.sum = this.run = 0;
  }

  strengths(): readonly Strength[] {
    const { sum: statistic, threshold, run: count } = this;
    return [{ rule: 'blade', about: '', statistic, threshold, count, enough: count >= this.least }];
  }
}

/** This position of a blade cleaves worse than the one before it (Welch's test on the mean angle of both sides). */
export class PositionOfBlade {
  private readonly cleavers = new Map<string, { before: Sums | null; now: Sums }>();

  constructor(
    private readonly threshold: number,
    private readonly least: number,
  ) {}

  add({ cleaver, left, right }: Tried): void {
    const angle = meanOf([...left, ...right]);
    if (cleaver === null || angle === null) return;
    let own = this.cleavers.get(cleaver);
    if (!own) this.cleavers.set(cleaver, (own = { before: null, now: nothing() }));
    addToSums(own.now, angle);
  }

  happened(event: Happened): void {
    if (isAnswer(event, 'position-of-blade')) this.cleavers.clear();
    if (event.what !== 'blade-turned') return;
    const own = this.cleavers.get(event.cleaver);
    if (own && own.now.count >= this.least)
      this.cleavers.set(event.cleaver, { before: own.now, now: nothing() });
  }

  strengths(): readonly Strength[] {
    return [...this.cleavers].flatMap(([cleaver, { before, now }]): Strength[] => {
      if (!before || now.count < 4) return [];
      const variance = meanVariance(before) + meanVariance(now);
      return [
        {
          rule: 'position-of-blade',
          about: cleaver,
          statistic: variance > 0 ? (now.mean - before.mean) / Math.sqrt(variance) : 0,
          threshold: this.threshold,
          count: now.count,
          enough: now.count >= this.least,
        },
      ];
    });
  }
}

const nothing = (): Sums => ({ count: 0, mean: 0, squares: 0 });

import type { CalibrationRules } from '../../gear/rules';
import type { Happened, Tried } from '../series/tried';
import { isAnswer, type Strength, type Watcher } from './rule';

const values = ['temperature', 'humidity', 'pressure'] as const;

/** The weather is no longer what it was at the last calibration: by the machine's own rules. `statistic` is the share of the limit that is reached. */
export class Conditions implements Watcher {
  private then: Partial<Record<(typeof values)[number], number>> | null = null;
  private now: Partial<Record<(typeof values)[number], number>> = {};
  private count = 0;

  constructor(private readonly rules: Pick<CalibrationRules, (typeof values)[number]>) {}

  add(_: Tried): void {
    this.count += 1;
  }

  happened(event: Happened): void {
    // It was said that it does not matter: from here on.
    if (isAnswer(event, 'conditions')) this.then = { ...this.now };
    if (event.what !== 'calibrated' && event.what !== 'weather') return;
    for (const value of values) if (event[value] !== null) this.now = { ...this.now, [value]: event[value] };
    if (event.what === 'weather') return;
    this.then = { ...this.now };
    this.count = 0;
  }

  strengths(): readonly Strength[] {
    const { then, now } = this;
    if (!then || this.count === 0) return [];
    return values.flatMap((value): Strength[] => {
      const [before, after, limit] = [then[value], now[value], this.rules[value]];
      if (before === undefined || after === undefined || limit === null) return [];
      // Decimal fractions of a degree must not decide.
      const statistic = (Math.abs(after - before) + 1e-9) / limit;
      return [{ rule: 'conditions', about: value, statistic, threshold: 1, count: this.count, enough: true }];
    });
  }
}

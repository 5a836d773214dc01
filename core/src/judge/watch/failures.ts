import { exactLog } from '../../exactLog';
import type { Happened, Tried } from '../series/tried';
import type { Reference } from './reference';
import { isAnswer, type RuleName, type Strength, type Watcher } from './rule';

/**
 * More tries fail than usual: the Bernoulli CUSUM of M. Reynolds and Z. Stoumbos, "A CUSUM chart for monitoring a proportion when inspecting continuously", Journal of Quality
 * Technology 31, 1999: each failure adds what it speaks for a share four times as high, each success takes off.
 */
class Failures implements Watcher {
  private sum = 0;
  private run = 0;
  private failed = 0;
  private temperature: number | null = null;

  constructor(
    private readonly rule: Extract<RuleName, 'over' | 'breaks' | 'cold'>,
    private readonly share: (tried: Tried) => number,
    private readonly threshold: number,
  ) {}

  add(tried: Tried): void {
    if (this.rule === 'cold' && (this.temperature === null || this.temperature > cold)) return;
    // A redo follows a bad reading: only what comes of itself counts as over. Glass breaks at any try.
    if (this.rule === 'over' && (tried.nth !== 1 || tried.losses.every((loss) => loss === null))) return;
    const failed = this.rule === 'over' ? tried.over : tried.broke;
    const usually = this.share(tried);
    const bad = Math.min(0.6, 4 * usually);
    this.sum = Math.max(
      0,
      this.sum + (failed ? exactLog(bad / usually) : exactLog((1 - bad) / (1 - usually))),
    );
    this.run = this.sum > 0 ? this.run + 1 : 0;
    this.failed = this.sum > 0 ? this.failed + (failed ? 1 : 0) : 0;
  }

  happened(event: Happened): void {
    if (event.what === 'calibrated' || event.what === 'weather')
      this.temperature = event.temperature ?? this.temperature;
    if ((event.what === 'calibrated' && this.rule === 'over') || isAnswer(event, this.rule))
      this.sum = this.run = this.failed = 0;
  }

  strengths(): readonly Strength[] {
    const { rule, sum: statistic, threshold, run: count } = this;
    // Two can happen to anybody.
    return [{ rule, about: '', statistic, threshold, count, enough: this.failed >= 3 }];
  }
}

/** Share of fibers that break in the proof test, usually; so small that a ribbon's is as many times as large. From memory. */
const usualBreaks = 0.004;

export const overRule = (reference: Reference['over'], threshold: number) =>
  new Failures('over', ({ kind }) => reference[kind], threshold);
const shareOfBreaks = ({ losses }: Tried) => usualBreaks * losses.length;

export const breaksRule = (threshold: number) => new Failures('breaks', shareOfBreaks, threshold);
/** The same, of what was made while it was cold. */
export const coldRule = (threshold: number) => new Failures('cold', shareOfBreaks, threshold);

/** At and below this temperature hands and jaws are cold. °C, from memory. */
const cold = 10;

import { usualRules, type CalibrationRules } from '../../gear/rules';
import type { Happened, Tried } from '../series/tried';
import { Blade, PositionOfBlade, Side } from './angles';
import { Drift } from './drift';
import { breaksRule, coldRule, overRule } from './failures';
import { Groups } from './groups';
import { Level } from './level';
import { Position } from './position';
import { usual, type Reference } from './reference';
import type { RuleName, Strength, Watcher } from './rule';
import { Shift } from './shift';
import { Conditions } from './weather';

/**
 * When each rule trips. Set together by `npm run rates`: over clean simulated nights, looked at after every reading, at most one in twenty shows any alarm of any rule
 * (docs/error-rates.md).
 */
export const thresholds: Readonly<Record<Exclude<RuleName, 'conditions'>, { at: number; least: number }>> = {
  drift: { at: 3.5, least: 20 },
  shift: { at: 10, least: 5 },
  level: { at: 6.5, least: 5 },
  /** `at` is the chance of one look. */
  position: { at: 0.0003, least: 4 },
  side: { at: 3.6, least: 8 },
  blade: { at: 5, least: 6 },
  over: { at: 4.1, least: 3 },
  breaks: { at: 3.8, least: 3 },
  cold: { at: 3, least: 3 },
  'position-of-blade': { at: 4, least: 24 },
  pair: { at: 3.4, least: 12 },
  person: { at: 3.5, least: 24 },
  machine: { at: 3.5, least: 24 },
};

/** All rules of one machine's night. */
export class NightWatch {
  private readonly watchers: readonly Watcher[];

  constructor(
    reference: Reference = usual,
    rules: Pick<CalibrationRules, 'temperature' | 'humidity' | 'pressure'> = usualRules,
  ) {
    const t = thresholds;
    this.watchers = [
      new Position(t.position.at, t.position.least),
      new Side(t.side.at, t.side.least),
      new Blade(reference.angle, t.blade.at, t.blade.least),
      breaksRule(t.breaks.at),
      coldRule(t.cold.at),
      overRule(reference.over, t.over.at),
      new Level(reference.level, t.level.at, t.level.least),
      new Shift(t.shift.at, t.shift.least),
      new Drift(t.drift.at, t.drift.least),
      new Conditions(rules),
    ];
  }

  add(tried: Tried): void {
    for (const watcher of this.watchers) watcher.add(tried);
  }

  happened(event: Happened): void {
    for (const watcher of this.watchers) watcher.happened(event);
  }

  strengths(): readonly Strength[] {
    return this.watchers.flatMap((watcher) => watcher.strengths());
  }
}

/** The rules that compare over the whole job. */
export class JobWatch {
  private readonly groups = (['pair', 'person', 'machine'] as const).map(
    (rule) => new Groups(rule, thresholds[rule].at, thresholds[rule].least),
  );
  private readonly blade = new PositionOfBlade(
    thresholds['position-of-blade'].at,
    thresholds['position-of-blade'].least,
  );

  add(tried: Tried): void {
    for (const group of this.groups) group.add(tried);
    this.blade.add(tried);
  }

  happened(event: Happened): void {
    for (const group of this.groups) group.happened(event);
    this.blade.happened(event);
  }

  strengths(): readonly Strength[] {
    return [...this.groups.flatMap((group) => group.strengths()), ...this.blade.strengths()];
  }
}

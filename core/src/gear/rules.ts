import { z } from 'zod';

const threshold = (least: number, most: number) =>
  z
    .number('Give a number, or switch the rule off.')
    .min(least, `At least ${least}.`)
    .max(most, `At most ${most}.`)
    .nullable();

/**
 * When an arc calibration and new electrodes fall due; null switches a rule off.
 */
export const calibrationRulesSchema = z.strictObject({
  /** h without a splice after which a new session begins. */
  session: threshold(1, 72),
  /** °C, % points and kPa from what it was at the last calibration. */
  temperature: threshold(0.5, 60),
  humidity: threshold(1, 100),
  pressure: threshold(0.2, 60),
  /** days without a splice. */
  disuse: threshold(1, 1000),
  /** times that electrodes were cleaned or replaced. */
  electrodes: threshold(1, 10),
  /** splices in a row that are over their limit or broke. */
  badRun: threshold(1, 50),
  /** splices of 125 μm fiber, and of 400 μm fiber. */
  splices125: threshold(1, 100_000),
  splices400: threshold(1, 100_000),
  /** arcs that a pair of electrodes makes. */
  electrodeLife: threshold(1, 1_000_000),
});
export type CalibrationRules = z.infer<typeof calibrationRulesSchema>;
export type RuleCode = keyof CalibrationRules;

/**
 * 300 and 50 splices, start of a session, electrodes, weather, disuse and a run of failures are common practice; the other numbers are from
 * memory, for a user to set.
 */
export const usualRules: CalibrationRules = {
  session: 8,
  temperature: 10,
  humidity: 25,
  pressure: 5,
  disuse: 30,
  electrodes: 1,
  badRun: 3,
  splices125: 300,
  splices400: 50,
  electrodeLife: 4000,
};

interface RuleWords {
  readonly what: string;
  readonly unit: string;
  /** Where the usual number is from. */
  readonly from: 'common practice' | 'from memory';
}

/** How a rule reads as a row: what is counted, in which unit. */
export const ruleWords: Readonly<Record<RuleCode, RuleWords>> = {
  session: { what: 'New session: time without a splice', unit: 'h', from: 'from memory' },
  temperature: { what: 'Temperature changed by', unit: '°C', from: 'from memory' },
  humidity: { what: 'Humidity changed by', unit: '% points', from: 'from memory' },
  pressure: {
    what: 'Air pressure changed by',
    unit: 'kPa',
    from: 'from memory',
  },
  disuse: { what: 'Long disuse', unit: 'days', from: 'from memory' },
  electrodes: { what: 'Electrodes cleaned or replaced', unit: 'times', from: 'common practice' },
  badRun: { what: 'Failed or over the limit, in a row', unit: 'splices', from: 'from memory' },
  splices125: { what: 'Splices since the last, 125 μm fiber', unit: 'splices', from: 'common practice' },
  splices400: { what: 'Splices since the last, 400 μm fiber', unit: 'splices', from: 'common practice' },
  electrodeLife: { what: 'Life of the electrodes', unit: 'arcs', from: 'from memory' },
};

import type { TickAnswer } from '../../facts';
import type { ColorMark } from '../../line/colorCode';

/** A question whose answer can be wrong, asked before the step counts as done. */
export interface StepCheck {
  readonly ask: string;
  /** A number, a color, or a color on the left and one on the right. */
  readonly expects: 'count' | 'color' | 'colors';
  /** The right answer: a number, a color code, or two of them, "BL AQ". */
  readonly answer: string;
  /** For a color: what to pick from. */
  readonly choices?: readonly ColorMark[];
  /** For two colors: what to pick from, left and right. */
  readonly pairs?: readonly (readonly [ColorMark, ColorMark])[];
  /** For a number: what it is, where it is not a count. */
  readonly field?: string;
  /** What a wrong answer means, and what to do before going on. */
  readonly wrong: string;
}

export interface StepTimer {
  readonly label: string;
  readonly seconds: number;
}

/** One guided step: what, with which measure for this job, what good looks like, the usual mistake, the caution where the risk is. */
export interface Step {
  readonly id: string;
  readonly title: string;
  readonly what: string;
  readonly good: string;
  readonly mistake: string;
  readonly caution?: string;
  readonly check?: StepCheck;
  readonly timer?: StepTimer;
  /** Another step that has to be done before: nothing here is ticked or answered until then. */
  readonly after?: string;
  /** The marks of the cut sheet that it makes. */
  readonly marks?: readonly string[];
}

/** What somebody typed or picked, as it is recorded: "12" is a count, "bl" is BL; null when it is neither of what is asked. */
export function readAnswer(check: StepCheck, text: string): TickAnswer | null {
  const given = text.trim().toUpperCase();
  if (check.expects !== 'count') return given === '' ? null : { colors: given.split(/\s+/) };
  return /^\d{1,5}$/.test(given) ? { count: Number(given) } : null;
}

/** Whether an answer is what the check expects. */
export function isRightAnswer(check: StepCheck, answer: TickAnswer): boolean {
  if (check.expects !== 'count') return answer.colors?.join(' ') === check.answer;
  return answer.count === Number(check.answer);
}

/** An answer in words: "8", "BL", "12, BL, RD". */
export function answerWords({ count, colors = [], words }: TickAnswer): string {
  return [count, ...colors, words].filter((part) => part !== undefined).join(', ');
}

export interface Chapter {
  readonly id: string;
  readonly title: string;
  readonly steps: readonly Step[];
}

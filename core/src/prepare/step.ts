/** A question whose answer can be wrong, asked before the step counts as done. */
export interface StepCheck {
  readonly ask: string;
  readonly expects: 'count' | 'color';
  /** The right answer: a number, or a two-letter color code. */
  readonly answer: string;
  /** For a color: the codes to pick from. */
  readonly choices?: readonly string[];
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
  /** The marks of the cut sheet that it makes. */
  readonly marks?: readonly string[];
}

/** Whether what somebody answered is what the check expects: "12", " twelve" is not a number, "bl" is BL. */
export function isRightAnswer(check: StepCheck, answer: string): boolean {
  const given = answer.trim().toUpperCase();
  if (check.expects === 'color') return given === check.answer;
  return /^\d+$/.test(given) && Number(given) === Number(check.answer);
}

export interface Chapter {
  readonly id: string;
  readonly title: string;
  readonly steps: readonly Step[];
}

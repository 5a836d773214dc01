import type { PatternAnswer } from '@cordel/core';
import type { RuleName, Said } from '@cordel/core/advice';
import { factStart } from '../../../data/factStart';

/**
 * Answers what was said of a series. What was put right was put right for every rule that showed it; what is set aside is set aside for the one that was asked about.
 * @param note the reason, where it is set aside
 */
export function newAnswers(
  closureId: string,
  { strength, machine, also }: Said,
  answer: PatternAnswer['body']['answer'],
  note: string,
): PatternAnswer[] {
  const rules: (readonly [RuleName, string])[] = [
    [strength.rule, strength.about],
    ...(answer === 'done' ? also.map((rule) => [rule, ''] as const) : []),
  ];
  return rules.map(([rule, about]) => ({
    ...factStart('pattern-answer', []),
    kind: 'pattern-answer',
    subject: { on: 'closure', closureId },
    body: { rule, about, machine, answer, note },
  }));
}

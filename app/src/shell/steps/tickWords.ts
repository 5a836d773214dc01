import type { Fact, Tick, TickAnswer } from '@cordel/core';
import { answerWords, isRightAnswer, type StepCheck } from '@cordel/core/prepare';
import { clockTime, type ShownZone } from '../../ui/times';

/** "Davi, 02:11": who did it and when. */
export function whoAndWhen({ by, madeAt }: Pick<Fact, 'by' | 'madeAt'>, zone: ShownZone): string {
  const time = clockTime(madeAt, zone);
  return by ? `${by}, ${time}` : time;
}

/** What was answered where a tick asked for something. */
function answerOf({ body }: Tick): TickAnswer | null {
  return 'answer' in body ? body.answer : null;
}

/** Whether a tick's answer is another than its step expects, by the plan of today. */
export function isWrong(tick: Tick, check: StepCheck | undefined): boolean {
  const answer = answerOf(tick);
  return answer !== null && check !== undefined && !isRightAnswer(check, answer);
}

/** The same with what was answered, and why somebody went on. */
export function tickWords(tick: Tick, check: StepCheck | undefined, zone: ShownZone): string {
  const answer = answerOf(tick);
  const given = answer && `answered ${answerWords(answer)}`;
  return [
    whoAndWhen(tick, zone),
    given && (isWrong(tick, check) ? `${given}, which is wrong` : given),
    tick.body.note || null,
  ]
    .filter(Boolean)
    .join(' · ');
}

import type { Tick } from '@cordel/core';

/** "Davi, 02:11": who ticked it and when. */
export function whoAndWhen({ by, madeAt }: Tick): string {
  const time = new Date(madeAt).toLocaleTimeString([], {
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  });
  return by ? `${by}, ${time}` : time;
}

/** The same with what was answered, and why somebody went on. */
export function tickWords(tick: Tick): string {
  const { answer, note } = tick;
  return [
    whoAndWhen(tick),
    answer ? (answer.right ? `answered ${answer.text}` : `answered ${answer.text}, which is wrong`) : null,
    note || null,
  ]
    .filter(Boolean)
    .join(' · ');
}

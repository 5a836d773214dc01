import { answerOf } from '../../data/api';
import { device } from '../../data/device';

/**
 * Has the server write a backup, and fetches it.
 * @param onProgress how much of it is here, from 0 to 1
 * @throws an Error with words for the person
 */
export async function writtenBackup(
  onProgress: (share: number) => void,
): Promise<{ readonly blob: Blob; readonly name: string }> {
  let answer: Response;
  try {
    answer = await fetch('/api/backup', { method: 'POST', headers: { 'Cordel-Device': device } });
  } catch (error) {
    throw new Error('A backup is written by the server, and it does not answer. Try again with a network.', {
      cause: error,
    });
  }
  if (!answer.ok || !answer.body) await answerOf(Promise.resolve(answer));
  const size = Number(answer.headers.get('Content-Length'));
  const name = /filename\*=UTF-8''([^;]+)/.exec(answer.headers.get('Content-Disposition') ?? '')?.[1];
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  let got = 0;
  const reader = answer.body!.getReader();
  for (;;) {
    const { done, value } = await reader.read().catch((error: unknown) => {
      throw new Error('The backup was cut short. Try again.', { cause: error });
    });
    if (done) break;
    pieces.push(value);
    got += value.length;
    if (size > 0) onProgress(got / size);
  }
  // A part of a backup is none.
  if (size > 0 && got !== size) throw new Error('The backup was cut short. Try again.');
  return {
    blob: new Blob(pieces, { type: 'application/gzip' }),
    name: name ? decodeURIComponent(name) : 'Cordel.cordel-backup',
  };
}

import { device } from '../../data/device';

export interface MadeDocument {
  readonly blob: Blob;
  readonly name: string;
  readonly fingerprint: string;
}

interface Line {
  readonly progress?: { readonly done: number; readonly of: number };
  readonly piece?: string;
  readonly made?: { readonly name: string; readonly type: string; readonly fingerprint: string };
  readonly problem?: string;
}

/**
 * Asks the server for a document and reads it as it comes: how far it is, then its pieces.
 * @param signal ends it, on the server too
 * @throws an Error with words for the person; the signal's reason where it was ended
 */
export async function makeDocument(
  address: string,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<MadeDocument> {
  let response: Response;
  try {
    response = await fetch(address, {
      signal,
      headers: { Accept: 'application/x-ndjson', 'Cordel-Device': device },
    });
  } catch (error) {
    if (signal.aborted) throw error;
    throw new Error('Documents are made by the server, and it does not answer. Try again with a network.', {
      cause: error,
    });
  }
  if (!response.ok || !response.body) {
    const { detail } = (await response.json().catch(() => ({}))) as { detail?: string };
    throw new Error(detail ?? `The server answered ${response.status}.`);
  }
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    rest += value ?? '';
    const lines = rest.split('\n');
    rest = lines.pop()!;
    for (const text of lines.filter(Boolean)) {
      const line = JSON.parse(text) as Line;
      if (line.problem) throw new Error(line.problem);
      if (line.progress) onProgress(line.progress.done / Math.max(1, line.progress.of));
      if (line.piece) pieces.push(Uint8Array.from(atob(line.piece), (one) => one.charCodeAt(0)));
      if (line.made) {
        const { name, type, fingerprint } = line.made;
        return { blob: new Blob(pieces, { type }), name, fingerprint };
      }
    }
    if (done) throw new Error('The server stopped in the middle of the document. Try again.');
  }
}

import { engine } from '../sync/here';
import type { MadeHere } from './madeHere';

/** What there is to be said of a document that was asked for. */
export interface Told {
  readonly words: string;
  /** It could not be had. */
  readonly failed: boolean;
}

/**
 * Fetches a document and hands it to the browser to save. Returns why it could not be had, or what it was made from; null where nothing is to be said. Asked for first
 * and saved after, so that a server's refusal is shown here and not as a page of its own.
 * @param projectId whose readings are in it; null: it has none
 * @param here makes it on this device, where the server does not answer or lacks what was recorded here; null: that cannot be
 */
export async function download(
  address: string,
  projectId: string | null,
  here: () => Promise<MadeHere | null> = () => Promise.resolve(null),
): Promise<Told | null> {
  await engine().ready;
  const { log, edits } = engine();
  const records = log.waiting().filter((entry) => entry.projectId === projectId).length;
  const waiting = records + edits.of(projectId ?? '').length;
  if (waiting > 0)
    return (
      (await saveHere(here, `with ${waiting} that the server does not have yet`)) ??
      failed(
        'Something of this is not on the server yet, so the document would lack it. Try again when it is sent.',
      )
    );
  let response: Response;
  try {
    response = await fetch(address);
  } catch {
    return (
      (await saveHere(here, 'since the server does not answer')) ??
      failed('The server does not answer. Try again when it can be reached.')
    );
  }
  if (!response.ok) {
    const problem = (await response.json().catch(() => ({}))) as { detail?: string };
    return failed(problem.detail ?? `The server answered ${response.status}.`);
  }
  const name = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('Content-Disposition') ?? '')?.[1];
  save(await response.blob(), name ? decodeURIComponent(name) : '');
  return null;
}

const failed = (words: string): Told => ({ words, failed: true });

/**
 * Hands a project to another device as a file that is made here, with a network or without: by what the device shares with, where it has that; else saved. null where
 * nothing is to be said.
 */
export async function handOn(here: () => Promise<MadeHere | null>): Promise<Told | null> {
  await engine().ready;
  const made = await here();
  if (!made)
    return failed('This project is not on this device as a whole. Take it along from the shelf first.');
  const file = new File([made.text], made.name, { type: made.type });
  if (!navigator.canShare?.({ files: [file] })) {
    saveText(made.text, made.name, made.type);
    return {
      words: 'Saved. Send the file to the other device, and import it there on the shelf.',
      failed: false,
    };
  }
  try {
    await navigator.share({ files: [file], title: made.name });
  } catch (error) {
    // The person thought better of it.
    if ((error as Error).name === 'AbortError') return null;
    saveText(made.text, made.name, made.type);
  }
  return { words: 'Import the file on the other device, on the shelf.', failed: false };
}

async function saveHere(here: () => Promise<MadeHere | null>, why: string): Promise<Told | null> {
  const made = await here();
  if (!made) return null;
  saveText(made.text, made.name, made.type);
  return { words: `Made from the records on this device, ${why}.`, failed: false };
}

/** Hands a text made here to the browser to save. */
export function saveText(text: string, name: string, type: string): void {
  save(new Blob([text], { type }), name);
}

/** Hands a document to the browser to save. */
export function saveBlob(blob: Blob, name: string): void {
  save(blob, name);
}

function save(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  // The browser reads the blob a moment after the click.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

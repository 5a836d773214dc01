import { outbox } from '../data/outbox';

/**
 * Fetches a document and hands it to the browser to save. Returns null, or why it could not be had. Asked for first and saved
 * after, so that a server's refusal is shown here and not as a page of its own.
 * @param projectId whose readings are in it; null: it has none
 */
export async function download(address: string, projectId: string | null): Promise<string | null> {
  if (outbox.waiting().some((entry) => entry.projectId === projectId))
    return 'Some readings are not on the server yet, so the document would lack them. Try again when they are sent.';
  let response: Response;
  try {
    response = await fetch(address);
  } catch {
    return 'The server does not answer. Try again when it can be reached.';
  }
  if (!response.ok) {
    const problem = (await response.json().catch(() => ({}))) as { detail?: string };
    return problem.detail ?? `The server answered ${response.status}.`;
  }
  const name = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('Content-Disposition') ?? '')?.[1];
  save(await response.blob(), name ? decodeURIComponent(name) : '');
  return null;
}

/** Hands a text made here to the browser to save. */
export function saveText(text: string, name: string, type: string): void {
  save(new Blob([text], { type }), name);
}

function save(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  // The browser reads the blob a moment after the click.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

/**
 * Small things kept on this device, across reloads. Writing is synchronous: what `keep` returned from is kept even if the page
 * dies right after.
 */
const prefix = 'cordel.';

export function keep(key: string, value: unknown): void {
  localStorage.setItem(prefix + key, JSON.stringify(value));
}

export function forget(key: string): void {
  localStorage.removeItem(prefix + key);
}

/** What was kept, or undefined when there is nothing readable. */
export function recall(key: string): unknown {
  const text = localStorage.getItem(prefix + key);
  if (text === null) return undefined;
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Keys that begin so, without the common prefix. */
export function keptKeys(start: string): string[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(prefix + start))
    .map((key) => key.slice(prefix.length));
}

import './withoutEval';
import { useSyncExternalStore } from 'react';
import type { z } from 'zod';

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

/** What was kept, as it stands there; null where nothing is. */
export function recallText(key: string): string | null {
  return localStorage.getItem(prefix + key);
}

/** What was kept, or undefined when there is nothing readable. */
export function recall(key: string): unknown {
  const text = recallText(key);
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

/** One preference or value of this device. */
export interface StoredValue<T> {
  readonly get: () => T;
  /** Kept, and told to every screen that shows it. */
  readonly set: (next: T) => void;
  /** For a screen that shows it. */
  readonly use: () => T;
}

/**
 * A preference or value of this device, kept under a key.
 * @param schema what can be read of what was kept, by this version or an older one
 * @param nothing where nothing was kept, or nothing of it can be read
 */
export function storedValue<T>(key: string, schema: z.ZodType<T>, nothing: T): StoredValue<T> {
  const read = () => {
    const kept = recall(key);
    return kept === undefined ? nothing : schema.catch(nothing).parse(kept);
  };
  let current = read();
  const listeners = new Set<() => void>();
  const tell = (next: T) => {
    current = next;
    listeners.forEach((listener) => listener());
  };
  // Somebody changed it in another tab.
  window.addEventListener('storage', (event) => {
    if (event.key === prefix + key) tell(read());
  });
  const get = () => current;
  return {
    get,
    set: (next) => {
      keep(key, next);
      tell(next);
    },
    use: () =>
      useSyncExternalStore((listener) => {
        listeners.add(listener);
        return () => listeners.delete(listener);
      }, get),
  };
}

/** The same for many things of a kind: one value for each id. */
export function storedValues<T>(
  start: string,
  schema: z.ZodType<T>,
  nothing: T,
): (id: string) => StoredValue<T> {
  const known = new Map<string, StoredValue<T>>();
  return (id) => {
    let value = known.get(id);
    if (!value) known.set(id, (value = storedValue(`${start}.${id}`, schema, nothing)));
    return value;
  };
}

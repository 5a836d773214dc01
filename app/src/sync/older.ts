import { forget, keptKeys, recallText } from '../data/stored';
import type { StoredEntry } from './store';

const start = 'outbox.';

/**
 * What versions before the database of this device kept in `localStorage`: a record under each key. Also what cannot be read of it is moved over, as text, so that the
 * person sees that it is there.
 */
export const olderStorage = {
  keys: [] as string[],
  entries(): readonly StoredEntry[] {
    this.keys = keptKeys(start).sort();
    return this.keys.map((key) => olderEntry(key, recallText(key) ?? ''));
  },
  moved(): void {
    this.keys.forEach(forget);
  },
};

function olderEntry(key: string, text: string): StoredEntry {
  const nameless = { id: key, projectId: '', raw: text, refused: null };
  try {
    const { projectId, fact, refused } = JSON.parse(text) as Record<string, unknown>;
    const { id } = (fact ?? {}) as { id?: unknown };
    if (typeof projectId !== 'string' || typeof id !== 'string') return nameless;
    return { id, projectId, raw: fact, refused: typeof refused === 'string' ? refused : null };
  } catch {
    return nameless;
  }
}

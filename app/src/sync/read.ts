import { closureOf, knownFact, readFact } from '@cordel/core';
import type { AnyFact, StoredEntry } from './store';

/** A record of this device as the screens see it. */
export interface Entry extends StoredEntry {
  /** Brought up where an older version wrote it; null where it cannot be read at all. */
  readonly fact: AnyFact | null;
}

const unreadable =
  'This version of Cordel cannot read this record, so it was not sent. Export it before it is dropped.';

/** What was kept by this version or an older one. What cannot be read is not lost and not sent: it waits for the person. */
export function readEntry(stored: StoredEntry): Entry {
  // Of this version: it was made by this very code, and is not looked through field by field at every start of a night.
  const known = asKnown(stored.raw);
  if (known) return { ...stored, fact: known };
  const read = readFact(stored.raw);
  if (read.status === 'wrong') return { ...stored, fact: null, refused: stored.refused ?? unreadable };
  return { ...stored, fact: read.fact };
}

function asKnown(raw: unknown): AnyFact | null {
  if (typeof raw !== 'object' || raw === null) return null;
  const { kind, v } = raw as Partial<AnyFact>;
  return typeof kind === 'string' && typeof v === 'number' ? knownFact(raw as AnyFact) : null;
}

/** The closure that a record is about; "" where it is about none, or cannot be read. */
export function closureIn(raw: unknown): string {
  if (typeof raw !== 'object' || raw === null) return '';
  return closureOf(knownFact(raw as AnyFact) ?? (raw as AnyFact)) ?? '';
}

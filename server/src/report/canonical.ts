import canonicalize from 'canonicalize';
import { createHash } from 'node:crypto';

/** A document in the one form in which it is hashed: JSON canonicalization, RFC 8785. */
export function canonical(document: unknown): string {
  const text = canonicalize(document);
  if (text === undefined) throw new Error('This is no JSON.');
  return text;
}

/** SHA-256 (FIPS 180-4) of a document's canonical form, in hexadecimal digits. */
export function fingerprint(document: unknown): string {
  return createHash('sha256').update(canonical(document), 'utf8').digest('hex');
}

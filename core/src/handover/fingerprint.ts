/** The letters of proquints (Wilkerson, "A Proposal for Proquints: Identifiers that are Readable, Spellable, and Pronounceable", 2009): five letters say sixteen bits. */
const consonants = 'bdfghjklmnprstvz';
const vowels = 'aiou';

/** Sixteen bits as a word of five letters. */
function proquint(value: number): string {
  return [
    consonants[(value >> 12) & 15],
    vowels[(value >> 10) & 3],
    consonants[(value >> 6) & 15],
    vowels[(value >> 4) & 3],
    consonants[value & 15],
  ].join('');
}

/** The first 96 bits of a hash of hexadecimal digits as six words. Whoever wants to be surer compares all digits. */
export function fingerprintWords(hex: string): string {
  return Array.from({ length: 6 }, (_, index) =>
    proquint(Number.parseInt(hex.slice(4 * index, 4 * index + 4), 16)),
  ).join(' ');
}

/** Whether what somebody gave, all digits or the words, whatever their case and what stands between them, is this fingerprint. */
export function matchesFingerprint(hex: string, given: string): boolean {
  const plain = given.trim().toLowerCase();
  if (/^[0-9a-f\s]{64,}$/.test(plain)) return plain.replace(/\s/g, '') === hex;
  return (
    plain
      .split(/[^a-z]+/)
      .filter(Boolean)
      .join(' ') === fingerprintWords(hex)
  );
}

/** The core knows no surroundings; every one that it runs in has this. */
declare class TextDecoder {
  constructor(label: string, options?: { readonly fatal?: boolean });
  decode(bytes: Uint8Array): string;
}

/** How the text of a machine's log may be written. "latin-1" is the Western page that older programs write, in which every byte is some character. */
export const encodings = ['utf-8', 'utf-16le', 'utf-16be', 'latin-1'] as const;
export type Encoding = (typeof encodings)[number];

export interface GuessedEncoding {
  readonly encoding: Encoding;
  /** false: it may be another one, and a person who sees its text can tell. */
  readonly certain: boolean;
}

/** Bytes that are looked at for zeros. */
const looked = 4096;

/** How a file is encoded: by its mark, by the zeros of UTF-16, by whether it is UTF-8. */
export function guessEncoding(bytes: Uint8Array): GuessedEncoding {
  const [first, second, third] = bytes;
  if (first === 0xff && second === 0xfe) return { encoding: 'utf-16le', certain: true };
  if (first === 0xfe && second === 0xff) return { encoding: 'utf-16be', certain: true };
  if (first === 0xef && second === 0xbb && third === 0xbf) return { encoding: 'utf-8', certain: true };
  const begin = bytes.subarray(0, looked);
  const zeros = [0, 0];
  begin.forEach((byte, index) => (zeros[index % 2]! += Number(byte === 0)));
  // Digits and commas have a zero beside them in UTF-16, always on the same side.
  const least = begin.length / 8;
  if (zeros[1]! > least && zeros[0]! < least / 4) return { encoding: 'utf-16le', certain: true };
  if (zeros[0]! > least && zeros[1]! < least / 4) return { encoding: 'utf-16be', certain: true };
  if (begin.every((byte) => byte < 0x80) && bytes.every((byte) => byte < 0x80))
    return { encoding: 'utf-8', certain: true };
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(withoutHalf(bytes));
    return { encoding: 'utf-8', certain: true };
  } catch {
    return { encoding: 'latin-1', certain: false };
  }
}

/** Without a character that was cut off at the end: a file that was not written to its end is UTF-8 all the same. */
function withoutHalf(bytes: Uint8Array): Uint8Array {
  for (let back = 1; back <= 3 && back <= bytes.length; back += 1) {
    const byte = bytes[bytes.length - back]!;
    if (byte < 0x80) return bytes;
    if (byte >= 0xc0) {
      const needs = byte >= 0xf0 ? 4 : byte >= 0xe0 ? 3 : 2;
      return needs > back ? bytes.subarray(0, bytes.length - back) : bytes;
    }
  }
  return bytes;
}

/** The text without its mark. What cannot be read shows as U+FFFD. */
export function decodeLog(bytes: Uint8Array, encoding: Encoding): string {
  const text = new TextDecoder(encoding === 'latin-1' ? 'windows-1252' : encoding).decode(bytes);
  return text.startsWith('\ufeff') ? text.slice(1) : text;
}

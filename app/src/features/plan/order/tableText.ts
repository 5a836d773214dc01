/**
 * The text of a table that somebody saved out of a spreadsheet: UTF-8, UTF-16 with its mark, or else the Western page that older spreadsheets
 * write, in which every sequence of bytes is some text. A mark of the encoding at the start is left out.
 */
export function tableText(bytes: ArrayBuffer): string {
  const [first, second] = new Uint8Array(bytes);
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

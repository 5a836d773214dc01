/** @jest-environment node */
import { tableText } from './tableText';

const words = 'João,1-12';

test.each([
  ['UTF-8', Buffer.from(words)],
  ['UTF-8 with a mark', Buffer.from(`\uFEFF${words}`)],
  ['UTF-16, little end first', Buffer.from(`\uFEFF${words}`, 'utf16le')],
  ['UTF-16, big end first', Buffer.from(`\uFEFF${words}`, 'utf16le').swap16()],
  ['a Western page', Buffer.from(words, 'latin1')],
])('reads %s', (_, bytes) => {
  expect(tableText(new Uint8Array(bytes).buffer)).toBe(words);
});

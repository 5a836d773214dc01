import { lossSchema } from '@cordel/core';
import { decimalField, optionalDecimalField } from './numberField';

test.each([
  ['0.03', 0.03],
  [' 0,03 ', 0.03],
  ['.5', 0.5],
])('takes %p', (text, value) => expect(decimalField(lossSchema).parse(text)).toBe(value));

test.each([['abc'], [''], ['0.03 dB'], ['-1'], ['1e3']])('says what is wrong with %p', (text) => {
  const result = decimalField(lossSchema).safeParse(text);
  expect(result.success).toBe(false);
  expect(result.error!.issues[0]!.message.length).toBeGreaterThan(15);
});

test('an optional field may be empty, and nothing else', () => {
  expect(optionalDecimalField(lossSchema).parse('  ')).toBeNull();
  expect(optionalDecimalField(lossSchema).safeParse('x').success).toBe(false);
});

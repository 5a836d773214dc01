import { positionText, readPosition } from './PositionField';

test.each([
  ['-22.90512, -43.18213', { latitude: -22.90512, longitude: -43.18213 }],
  ['48.2 16.37', { latitude: 48.2, longitude: 16.37 }],
  ['48,2; 16,37', { latitude: 48.2, longitude: 16.37 }],
  ['48,2 16,37', { latitude: 48.2, longitude: 16.37 }],
  ['  ', undefined],
  ['48.2', null],
  ['north, west', null],
  ['1, 2, 3', null],
])('“%s” is read', (text, expected) => {
  expect(readPosition(text)).toEqual(expected);
});

test('what is shown is read back the same', () => {
  const position = { latitude: -0.1234567, longitude: 179.99 };
  expect(readPosition(positionText(position))).toEqual(position);
  expect(positionText(undefined)).toBe('');
});

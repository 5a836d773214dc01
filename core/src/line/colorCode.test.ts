import fc from 'fast-check';
import { colorSchemeSchema, colorAt, colorSchemes, dinVde0888, tia598 } from './colorCode';

describe('TIA-598-D', () => {
  // ANSI/TIA-598-D: the twelve colors in order, then again with a tracer, black except on black, where it is yellow.
  const published = ['BL', 'OR', 'GR', 'BR', 'SL', 'WH', 'RD', 'BK', 'YL', 'VI', 'RS', 'AQ'];

  test.each(published.map((code, index) => [index + 1, code]))('position %i is %s', (position, code) => {
    expect(colorAt(tia598, position as number).code).toBe(code);
  });

  test('13 to 24 repeat the sequence with a tracer', () => {
    const second = published.map((_, index) => colorAt(tia598, index + 13));
    expect(second.map((mark) => mark.code.slice(0, 2))).toEqual(published);
    expect(second.map((mark) => mark.tracer)).toEqual(
      published.map((code) => (code === 'BK' ? 'yellow' : 'black')),
    );
  });

  test('says it in words', () => {
    expect(colorAt(tia598, 14).name).toBe('orange with black tracer');
    expect(colorAt(tia598, 20).code).toBe('BK-YL');
    expect(colorAt(tia598, 26).name).toBe('orange with 2 black tracers');
  });
});

test('DIN VDE 0888 starts red, green, blue, yellow, white (from memory)', () => {
  expect([1, 2, 3, 4, 5].map((position) => colorAt(dinVde0888, position).base)).toEqual([
    'red',
    'green',
    'blue',
    'yellow',
    'white',
  ]);
});

test('no two of the first 72 positions look alike in any scheme', () => {
  for (const scheme of colorSchemes) {
    const codes = Array.from({ length: 72 }, (_, index) => colorAt(scheme, index + 1).code);
    expect(new Set(codes).size).toBe(72);
  }
});

test('refuses what is not a position', () => {
  fc.assert(
    fc.property(fc.oneof(fc.integer({ max: 0 }), fc.double({ noInteger: true })), (position) => {
      expect(() => colorAt(tia598, position)).toThrow(RangeError);
    }),
  );
});

test('a color code of one’s own is checked for doubles', () => {
  const own = { ...tia598, id: 'own', sequence: ['red', 'green', 'red'] };
  const { error } = colorSchemeSchema.safeParse(own);
  expect(error!.issues.map((issue) => [issue.path.join('.'), issue.message])).toEqual([
    ['sequence.2', 'red stands at 1 and at 3. Two fibers of one color cannot be told apart.'],
  ]);
  for (const scheme of colorSchemes) expect(colorSchemeSchema.parse(scheme)).toEqual(scheme);
});

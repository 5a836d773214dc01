import { fiberOf, fiberTypes } from './fiberType';

const type = (name: string) => fiberTypes.find((one) => one.name === name)!;

// ITU-T G.652: mode-field diameter at 1310 nm nominal 8.6 to 9.2 μm; G.652.D cabled attenuation at most 0.40 dB/km at 1310 and 0.30 at 1550 nm.
test('single-mode types lie in the range of ITU-T G.652', () => {
  for (const one of fiberTypes.filter((each) => each.mode === 'single')) {
    expect(one.modeField).toBeGreaterThanOrEqual(8.6);
    expect(one.modeField).toBeLessThanOrEqual(9.2);
  }
  expect(type('G.652.D').attenuation).toEqual([0.4, 0.3]);
});

// ITU-T G.657 design bend radius: A1 10 mm, A2 7.5 mm, B3 5 mm; G.652 is commonly held to 30 mm (from memory).
test('bend radii are those of ITU-T G.657', () => {
  expect(['G.652.D', 'G.657.A1', 'G.657.A2', 'G.657.B3'].map((name) => type(name).bendRadius)).toEqual([
    30, 10, 7.5, 5,
  ]);
});

test('multimode has a core and no mode field, whatever the cable says', () => {
  expect(fiberOf({ fiberType: 'om1', modeField: 9 })).toMatchObject({
    modeField: null,
    type: { core: 62.5 },
  });
});

test('a cable of which nothing is said is G.652.D, and its own mode field counts', () => {
  expect(fiberOf({})).toMatchObject({ modeField: 9.2, type: { id: 'g652d' } });
  expect(fiberOf({ modeField: 8.7 }).modeField).toBe(8.7);
});

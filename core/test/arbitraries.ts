import fc from 'fast-check';
import { ribbonSizes, type Construction } from '../src';

/** Armor and a messenger, which any cable may have. */
const metal = fc.tuple(fc.boolean(), fc.boolean()).map(([armor, messenger]) => ({
  ...(armor ? { armor: true as const } : {}),
  ...(messenger ? { messenger: true as const } : {}),
}));
const withMetal = <C extends object>(construction: fc.Arbitrary<C>) =>
  fc.tuple(construction, metal).map(([one, more]) => ({ ...one, ...more }));

/** Made-up cables of every construction, for laws that hold for all of them. */

const filler = fc.constant({ kind: 'filler' as const });
const tube = fc
  .record({ fibers: fc.integer({ min: 1, max: 24 }), groupSize: fc.option(fc.integer({ min: 1, max: 12 })) })
  .map(({ fibers, groupSize }) => ({ kind: 'tube' as const, fibers, ...(groupSize ? { groupSize } : {}) }));
const ribbonTube = fc.record({
  kind: fc.constant('tube' as const),
  ribbons: fc.integer({ min: 1, max: 12 }),
  fibersPerRibbon: fc.constantFrom(...ribbonSizes),
});

function stranded<T>(strand: fc.Arbitrary<T>) {
  return fc
    .tuple(
      strand,
      fc.array(fc.oneof({ weight: 4, arbitrary: strand }, { weight: 1, arbitrary: filler }), {
        maxLength: 20,
      }),
    )
    .map(([first, others]) => [first, ...others]);
}

export const anyConstruction: fc.Arbitrary<Construction> = fc.oneof(
  withMetal(fc.record({ kind: fc.constant('stranded-tubes' as const), strands: stranded(tube) })),
  withMetal(fc.record({ kind: fc.constant('stranded-ribbon' as const), strands: stranded(ribbonTube) })),
  withMetal(
    fc.record({
      kind: fc.constant('central-ribbon' as const),
      ribbons: fc.integer({ min: 1, max: 36 }),
      fibersPerRibbon: fc.constantFrom(...ribbonSizes),
    }),
  ),
  fc.record({
    kind: fc.constant('drop' as const),
    shape: fc.constantFrom('flat' as const, 'round' as const),
    fibers: fc.integer({ min: 1, max: 12 }),
    toningWire: fc.boolean(),
    messenger: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('pigtails' as const),
    fibers: fc.integer({ min: 1, max: 48 }),
    bufferMicrometers: fc.constantFrom(250 as const, 900 as const),
  }),
);

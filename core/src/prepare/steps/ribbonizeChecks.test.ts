import fc from 'fast-check';
import { equalTubes, fiberName, looseSides, type FiberEnd } from '../../index';
import { cableOf } from '../../../test/joint';
import { ribbonizeChecks } from './ribbonizeChecks';
import { isRightAnswer } from './step';

const loose = cableOf(1, equalTubes(2, 12));
const ribbons = cableOf(2, { kind: 'central-ribbon', ribbons: 2, fibersPerRibbon: 12 });
const cables = new Map([loose, ribbons].map((cable) => [cable.id, cable]));
const ends = (cableId: string, from: number, count: number): FiberEnd[] =>
  Array.from({ length: count }, (_, index) => ({ cableId, fiber: from + index, side: 'end' }));

describe('loose fibers that become a ribbon', () => {
  it('is asked for on the sides without ribbons, and not of a single splice', () => {
    const left = ends(loose.id, 1, 12);
    const right = ends(ribbons.id, 1, 12);
    expect(looseSides({ kind: 'ribbon', left, right }, cables)).toEqual(['left']);
    expect(looseSides({ kind: 'ribbon', left, right: left }, cables)).toEqual(['left', 'right']);
    expect(looseSides({ kind: 'ribbon', left: right, right }, cables)).toEqual([]);
    expect(looseSides({ kind: 'single', left: left.slice(0, 1), right: left.slice(1, 2) }, cables)).toEqual(
      [],
    );
  });

  it('asks for the count and for a color in each half, and knows a neighbor from the right one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 96 }),
        fc.integer({ min: 2, max: 12 }),
        fc.boolean(),
        (slot, count, reversed) => {
          const right = ends(loose.id, 13, count);
          const checks = ribbonizeChecks(
            { left: right, right: reversed ? [...right].reverse() : right, slot },
            'right',
            cables,
          );
          expect(checks).toHaveLength(3);
          expect(isRightAnswer(checks[0]!, { count })).toBe(true);
          expect(isRightAnswer(checks[0]!, { count: count + 1 })).toBe(false);
          const places = checks.slice(1).map((check) => Number(/place (\d+)/.exec(check.ask)![1]));
          expect(places[0]).toBeLessThan(places[1]!);
          for (const [index, place] of places.entries()) {
            const check = checks[index + 1]!;
            expect(place).toBeGreaterThanOrEqual(1);
            expect(place).toBeLessThanOrEqual(count);
            // Laid in the order of the cable, whichever way it is spliced.
            expect(check.answer).toBe(fiberName(loose, 12 + place).fiberColor.code);
            const swapped = place < count ? place + 1 : place - 1;
            const colors = [fiberName(loose, 12 + swapped).fiberColor.code];
            expect(isRightAnswer(check, { colors })).toBe(false);
          }
        },
      ),
    );
  });
});

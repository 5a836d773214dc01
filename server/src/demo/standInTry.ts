import { fiberOf, type Cable, type FiberEnd, type PlacedSplice, type Reading } from '@cordel/core';
import {
  cleave,
  fuse,
  seat,
  usualFaults,
  type Bench,
  type Cleave,
  type Faults,
  type FiberPair,
  type FusedFiber,
  type Weather,
  type Wear,
} from '@cordel/core/machine';

/** What a try at the simulated machine came to. */
interface Tried {
  readonly fused: FusedFiber;
  readonly cleaves: { readonly left: Cleave; readonly right: Cleave };
}

/** So often the hands lay a pair in until it goes as the scenario wants it; it is never nearly as many. */
const mostTries = 20_000;

/**
 * A try at a splice as the simulated machine makes it. The scenario says where something goes wrong, and what: the pair is laid in with that fault until a try comes to it. The
 * same every time: draws go by the cables' labels, not by identifiers, which differ from demo to demo.
 * @param nth tries of this splice before
 */
export function standInTry(
  seed: number,
  { left, right }: PlacedSplice,
  cables: ReadonlyMap<string, Cable>,
  { wear, weather, faults, nth }: { wear: Wear; weather: Weather; faults: Faults; nth: number },
  wanted: (tried: Tried) => boolean,
): Reading {
  const end = ({ cableId, fiber, side }: FiberEnd) => {
    const cable = cables.get(cableId)!;
    return { key: `${cable.label} ${fiber} ${side}`, modeField: fiberOf(cable).modeField ?? 9.2 };
  };
  const pair: FiberPair = { left: end(left[0]!), right: end(right[0]!) };
  const splice = `${pair.left.key} to ${pair.right.key}`;
  const bench: Bench = { seed, aligns: 'cores', faults };
  for (let again = nth * mostTries + 1; again <= (nth + 1) * mostTries; again += 1) {
    const cleaves = {
      left: cleave(bench, wear, 'left', pair.left, again),
      right: cleave(bench, wear, 'right', pair.right, again),
    };
    const laid = { pair, cleaves, seat: seat(bench, splice, 1, pair, again) };
    const fused = fuse(bench, wear, weather, splice, [laid], again)[0]!;
    if (!wanted({ fused, cleaves })) continue;
    return {
      loss: fused.broke ? null : fused.estimate,
      cleaveLeft: tenths(cleaves.left.angle),
      cleaveRight: tenths(cleaves.right.angle),
    };
  }
  throw new Error(`No try of ${splice} comes to what the scenario wants.`);
}

export const tenths = (value: number) => Math.round(value * 10) / 10;

/** Faults by what the scenario calls them. */
export const faultsOf = {
  none: {},
  dust: { dust: 1 },
  nick: { coldStripper: 1 },
  holder: { badHolder: { ...usualFaults.badHolder, angle: 1.3 } },
} as const satisfies Readonly<Record<string, Faults>>;

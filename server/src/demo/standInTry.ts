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

/** What a fiber of a try at the simulated machine came to. */
export interface TriedFiber {
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
  wanted: (tried: readonly TriedFiber[]) => boolean,
): Reading[] {
  const end = ({ cableId, fiber, side }: FiberEnd) => {
    const cable = cables.get(cableId)!;
    return { key: `${cable.label} ${fiber} ${side}`, modeField: fiberOf(cable).modeField ?? 9.2 };
  };
  const pairs = left.map((one, index): FiberPair => ({ left: end(one), right: end(right[index]!) }));
  const splice = `${pairs[0]!.left.key} to ${pairs[0]!.right.key}`;
  const bench: Bench = { seed, aligns: pairs.length === 1 ? 'cores' : 'grooves', faults };
  for (let again = nth * mostTries + 1; again <= (nth + 1) * mostTries; again += 1) {
    const laid = pairs.map((pair, index) => ({
      pair,
      cleaves: {
        left: cleave(bench, wear, 'left', pair.left, again),
        right: cleave(bench, wear, 'right', pair.right, again),
      },
      seat: seat(bench, splice, index + 1, pair, again),
    }));
    const fused = fuse(bench, wear, weather, splice, laid, again);
    const tried = laid.map(({ cleaves }, index): TriedFiber => ({ fused: fused[index]!, cleaves }));
    if (!wanted(tried)) continue;
    return tried.map(({ fused: { broke, estimate }, cleaves }) => ({
      loss: broke ? null : estimate,
      cleaveLeft: tenths(cleaves.left.angle),
      cleaveRight: tenths(cleaves.right.angle),
    }));
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
  /** So little dirt that nothing is over the limit yet. */
  groove: { dirtyGroove: { position: 7, offset: 0.7 } },
} as const satisfies Readonly<Record<string, Faults>>;

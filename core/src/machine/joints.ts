import { draws, type Draws } from './draws';
import type { Faults } from './faults';
import { cameraNoise, estimatedLoss, trueLoss, type JointState } from './loss';
import { arcOf, arcSpread, bladeAngle, type Wear, type Weather } from './wear';

/** One end of a fiber as the machine gets it. */
export interface FiberEndAt {
  /** Which end it is, always the same for the same fiber. */
  readonly key: string;
  /** Mode-field diameter at 1310 nm, μm. */
  readonly modeField: number;
}
export interface FiberPair {
  readonly left: FiberEndAt;
  readonly right: FiberEndAt;
}

export interface Bench {
  readonly seed: number;
  /** A machine that looks for the cores, one fiber at a time; or one with fixed grooves, in which the claddings lie. */
  readonly aligns: 'cores' | 'grooves';
  readonly faults: Faults;
}

/** One end after its cleave. */
export interface Cleave {
  /** Degrees. */
  readonly angle: number;
  /** The coating was scraped off, and the glass scratched: it may break in the proof test. Nobody sees it. */
  readonly nicked: boolean;
}

/** σ of the offset that is left, each way, μm: mean losses of 0.02 dB, in grooves together with both cores' own offsets. Invented; a good ribbon is 0.01 to 0.03 dB on all twelve (common practice). */
const coreSpread = 0.22;
const grooveSpread = 0.17;
/** How far a core lies off the middle of its cladding, each way, μm (ITU-T G.652 allows 0.6). Invented. */
const concentricity = 0.1;
/** Cleave angle: |N(0.4°, 0.25°)|. Invented. */
const cleaveMean = 0.4;
const cleaveSpread = 0.25;

/**
 * Cleaves an end.
 * @param nth the how manieth cleave of it, from 1
 */
export function cleave(
  { seed, faults }: Bench,
  wear: Wear,
  side: 'left' | 'right',
  end: FiberEndAt,
  nth: number,
): Cleave {
  const own = draws(seed, 'cleave', end.key, nth);
  const worn = { bladeCleaves: wear.bladeCleaves + (faults.wornBlade ?? 0) };
  const holder = faults.badHolder?.side === side ? faults.badHolder.angle : 0;
  const angle = Math.abs(cleaveMean + bladeAngle(worn) + holder + cleaveSpread * own.normal());
  const nicked = own.chance(faults.coldStripper ?? 0);
  // A nick lets the crack run where it likes, now and then.
  return { angle: nicked && own.chance(0.3) ? angle + 2 * own.uniform() : angle, nicked };
}

/** How a pair of ends lies in its place. */
export interface Seat {
  readonly offsetX: number;
  readonly offsetY: number;
  readonly gap: number;
  readonly dusty: boolean;
}

/**
 * Lays a pair of ends into the machine.
 * @param splice which splice it belongs to
 * @param position in the holder, from 1
 * @param nth the how manieth time, from 1
 */
export function seat(
  { seed, aligns, faults }: Bench,
  splice: string,
  position: number,
  { left, right }: FiberPair,
  nth: number,
): Seat {
  const own = draws(seed, 'seat', splice, position, nth);
  const spread = aligns === 'cores' ? coreSpread : grooveSpread;
  let x = spread * own.normal();
  let y = spread * own.normal();
  if (aligns === 'grooves') {
    const [leftCore, rightCore] = [draws(seed, 'core', left.key), draws(seed, 'core', right.key)];
    x += concentricity * (leftCore.normal() - rightCore.normal());
    y += concentricity * (leftCore.normal() - rightCore.normal());
  }
  const gap = Math.max(0, 10 + 2 * own.normal());
  const dusty = own.chance(faults.dust ?? 0);
  if (dusty) {
    const [dustX, dustY] = someway(own, 0.8 + 1.2 * own.uniform());
    x += dustX;
    y += dustY;
  }
  const groove = faults.dirtyGroove;
  if (groove?.position === position) {
    const [dirtX, dirtY] = someway(draws(seed, 'groove', position), groove.offset);
    x += dirtX;
    y += dirtY;
  }
  return { offsetX: x, offsetY: y, gap, dusty };
}

/** A vector of this length in a direction that is drawn. */
function someway(from: Draws, length: number): [number, number] {
  const [x, y] = [from.normal(), from.normal()];
  const norm = Math.sqrt(x * x + y * y) || 1;
  return [(x / norm) * length, (y / norm) * length];
}

/** What a fiber of a splice is when the arc is over. */
export interface FusedFiber {
  readonly joint: JointState;
  /** dB, known to nobody at the bench. */
  readonly truth: number;
  /** dB as the machine shows it, in steps of 0.01. */
  readonly estimate: number;
  readonly broke: boolean;
}

export interface LaidPair {
  readonly pair: FiberPair;
  readonly cleaves: { readonly left: Cleave; readonly right: Cleave };
  readonly seat: Seat;
}

/** What an arc makes of the pairs that lie in the machine. All of a splice share its power. */
export function fuse(
  { seed, faults }: Bench,
  wear: Wear,
  weather: Weather,
  splice: string,
  laid: readonly LaidPair[],
  nth: number,
): readonly FusedFiber[] {
  const whole = draws(seed, 'arc', splice, nth);
  const aged = { electrodeArcs: wear.electrodeArcs + (faults.oldElectrodes ?? 0) };
  const arc = arcOf(wear, weather) + (faults.wrongProgram ?? 0) + arcSpread(aged) * whole.normal();
  return laid.map(({ pair, cleaves, seat: { offsetX, offsetY, gap, dusty } }, index) => {
    const own = draws(seed, 'fused', splice, nth, index);
    const joint: JointState = {
      modeFieldLeft: pair.left.modeField,
      modeFieldRight: faults.mixedFiber ?? pair.right.modeField,
      offsetX,
      offsetY,
      angleLeft: cleaves.left.angle,
      angleRight: cleaves.right.angle,
      gap,
      arc,
    };
    const [noiseX, noiseY] = [cameraNoise * own.normal(), cameraNoise * own.normal()];
    const breaks = breakChance(joint, cleaves.left.nicked || cleaves.right.nicked, dusty);
    return {
      joint,
      truth: trueLoss(joint),
      estimate: Math.round(100 * estimatedLoss(joint, noiseX, noiseY)) / 100,
      broke: own.chance(breaks),
    };
  });
}

/** The chance that a joint breaks in the proof test. Invented. */
export function breakChance(
  { angleLeft, angleRight, arc }: JointState,
  nicked: boolean,
  dusty: boolean,
): number {
  return Math.min(
    0.95,
    0.002 +
      (nicked ? 0.5 : 0) +
      (dusty ? 0.1 : 0) +
      0.1 * Math.max(0, Math.max(angleLeft, angleRight) - 3) +
      0.8 * Math.max(0, Math.abs(arc) - 0.25),
  );
}

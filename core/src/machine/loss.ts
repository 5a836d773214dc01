import { exactLog } from '../exactLog';
import { mismatchLoss, offsetLoss, tiltLoss } from '../splice/record/spliceLoss';

/** How two fiber ends lie when the arc is struck, and with how much power. */
export interface JointState {
  /** Mode-field diameters at 1310 nm, μm. */
  readonly modeFieldLeft: number;
  readonly modeFieldRight: number;
  /** Of the cores to each other, across the fiber, μm. */
  readonly offsetX: number;
  readonly offsetY: number;
  /** Of the cleaves, degrees. */
  readonly angleLeft: number;
  readonly angleRight: number;
  /** Between the ends, μm. */
  readonly gap: number;
  /** Natural logarithm of the arc's power over what it should be. */
  readonly arc: number;
}

/** Of the difference of the cleave angles this is left as a tilt; the glass flows while it is soft. Invented. */
const tiltLeft = 0.1;
/** Beyond this angle the core bends at the joint, dB for each degree. Invented. */
const bendsFrom = 2;
const bendLoss = 0.05;
/** Beyond this gap the joint necks, dB for each μm. Invented. */
const necksFrom = 25;
const neckLoss = 0.01;
/** An arc of 10 % more or less power costs so much, dB; growing with the square. Invented. */
const arcLossAtTenth = 0.02;
const tenth = exactLog(1.1);

/**
 * The true loss of a joint, dB: Marcuse's terms (see `spliceLoss.ts`) for the difference of the mode fields, the offset and the tilt, and what bend, neck and arc
 * add.
 */
export function trueLoss(joint: JointState): number {
  const { modeFieldLeft, modeFieldRight, offsetX, offsetY, arc } = joint;
  return (
    mismatchLoss(modeFieldLeft, modeFieldRight) +
    offsetLoss(modeFieldLeft, modeFieldRight, Math.sqrt(offsetX * offsetX + offsetY * offsetY)) +
    shapeLoss(joint) +
    arcLoss(arc)
  );
}

/** What follows from what a camera sees exactly: angles and gap. */
function shapeLoss({ modeFieldLeft, modeFieldRight, angleLeft, angleRight, gap }: JointState): number {
  return (
    tiltLoss(modeFieldLeft, modeFieldRight, tiltLeft * (angleLeft - angleRight)) +
    bendLoss * (Math.max(0, angleLeft - bendsFrom) + Math.max(0, angleRight - bendsFrom)) +
    neckLoss * Math.max(0, gap - necksFrom)
  );
}

function arcLoss(arc: number): number {
  return arcLossAtTenth * (arc / tenth) ** 2;
}

/** A camera's error in the offset, each way, μm. Invented. */
export const cameraNoise = 0.08;
/** It sees half of what the mode fields cost, and half of what the arc costs (as a bulge or a neck). Invented. */
const seenOfMismatch = 0.5;
const seenOfArc = 0.5;

/**
 * What the machine says that a joint loses, dB, as its cameras see it: not rounded.
 * @param noiseX of the camera, μm
 */
export function estimatedLoss(joint: JointState, noiseX: number, noiseY: number): number {
  const { modeFieldLeft, modeFieldRight, offsetX, offsetY, arc } = joint;
  const [x, y] = [offsetX + noiseX, offsetY + noiseY];
  return (
    seenOfMismatch * mismatchLoss(modeFieldLeft, modeFieldRight) +
    offsetLoss(modeFieldLeft, modeFieldRight, Math.sqrt(x * x + y * y)) +
    shapeLoss(joint) +
    seenOfArc * arcLoss(arc)
  );
}

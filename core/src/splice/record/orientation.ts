import { endsOfRuns, type FiberEnd, type FiberRun } from '../../plan/fiberEnd';
import type { Attempt, Correction, MeasuredLoss, SpliceFact } from '../../facts';
import type { Reading } from './reading';

type Ends = { readonly left: readonly FiberEnd[]; readonly right: readonly FiberEnd[] };

/**
 * The fact with its readings as the plan now names the sides and pairs of its splice. Swapping left and right in an order, or naming a reversed ribbon from its
 * other end, keeps the splice and turns its readings round. Nothing is turned where the fact was written for the same sides.
 */
export function asPlanned(fact: SpliceFact, splice: Ends): SpliceFact {
  if (fact.kind === 'owner-answer' || isFirst(fact.subject.left[0]!, splice.left[0]!)) return fact;
  const own = endsOfRuns(fact.subject.left);
  const ownRight = endsOfRuns(fact.subject.right);
  const at = (side: readonly FiberEnd[], end: FiberEnd) =>
    side.findIndex((one) => one.fiber === end.fiber && one.cableId === end.cableId && one.side === end.side);
  const swapped = at(own, splice.left[0]!) < 0;
  const places = splice.left.map((end) => at(swapped ? ownRight : own, end));
  // Cordel 0.1 did not keep which side was left: its angles stay on the side where they were.
  const cleaves = swapped && !fact.subject.sidesUnknown;
  const turned = (readings: readonly Reading[]) =>
    places.map((place): Reading => {
      const reading = readings[place]!;
      return cleaves
        ? { ...reading, cleaveLeft: reading.cleaveRight, cleaveRight: reading.cleaveLeft }
        : reading;
    });
  if (fact.kind === 'measured-loss') {
    const { position, fromLeft, fromRight } = fact.body;
    return {
      ...fact,
      body: {
        ...fact.body,
        position: places.indexOf(position - 1) + 1,
        ...(swapped ? { fromLeft: fromRight, fromRight: fromLeft } : {}),
      },
    } satisfies MeasuredLoss;
  }
  if (fact.kind === 'attempt')
    return { ...fact, body: { ...fact.body, readings: turned(fact.body.readings) } } satisfies Attempt;
  const { result } = fact.body;
  if (!result) return fact;
  return {
    ...fact,
    body: { ...fact.body, result: { ...result, readings: turned(result.readings) } },
  } satisfies Correction;
}

function isFirst(run: FiberRun, end: FiberEnd): boolean {
  return run.from === end.fiber && run.cableId === end.cableId && run.side === end.side;
}

import type { MatchTarget } from './matchLog';

/** Finds a splice by what somebody typed at the machine; only where it can be but one. */
export function labelFinder(
  targets: readonly MatchTarget[],
): (label: string, fibers: number) => MatchTarget | null {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  const only = (list: readonly MatchTarget[]) => (list.length === 1 ? list[0]! : null);
  const byPlace = new Map(targets.map((one) => [`${one.tray} ${one.slot}`, one]));
  return (label, fibers) => {
    const fitting = (one: MatchTarget) => one.leftFibers.length === fibers;
    const text = plain(label);
    if (text === '') return null;
    const circuit = only(
      targets.filter((one) => one.circuit !== null && plain(one.circuit) === text && fitting(one)),
    );
    if (circuit) return circuit;
    const numbers = [...text.matchAll(/\d+/g)].map(([digits]) => Number(digits));
    if (numbers.length === 2) {
      const place = byPlace.get(`${numbers[0]} ${numbers[1]}`);
      if (place && fitting(place)) return place;
      // The first and the last fiber of a ribbon.
      return only(
        targets.filter(
          (one) => fitting(one) && one.leftFibers[0] === numbers[0] && one.leftFibers.at(-1) === numbers[1],
        ),
      );
    }
    if (numbers.length !== 1) return null;
    return only(targets.filter((one) => fitting(one) && one.leftFibers[0] === numbers[0]));
  };
}

import { spliceIdOf, type Fact } from '../../facts';

/** A sleeve that was ready for the heater. ms since 1970. */
export interface LaneSleeve {
  readonly spliceId: string;
  readonly since: number;
  /** How long its program heats, s. */
  readonly seconds: number;
}

export interface LanePlace extends LaneSleeve {
  readonly phase: 'waiting' | 'heating' | 'cooling' | 'ready';
  /** Until the phase ends, whole s upward; 0 when it is ready. */
  readonly left: number;
}

/**
 * Where each sleeve is: it waits until the heater has a place, is heated, cools on the tray, and may then be touched. They go in the order in which they
 * were ready.
 * @param heaters sleeves that the heater takes at once
 * @param now ms since 1970
 */
export function heaterLane(
  sleeves: readonly LaneSleeve[],
  { heaters, coolSeconds }: { readonly heaters: number; readonly coolSeconds: number },
  now: number,
): LanePlace[] {
  const free = Array.from({ length: heaters }, () => -Infinity);
  return [...sleeves]
    .sort((a, b) => a.since - b.since)
    .map((sleeve) => {
      const first = free.indexOf(Math.min(...free));
      const begin = Math.max(sleeve.since, free[first]!);
      const hot = begin + sleeve.seconds * 1000;
      const cool = hot + coolSeconds * 1000;
      free[first] = hot;
      const until = now < begin ? begin : now < hot ? hot : cool;
      const phase = now < begin ? 'waiting' : now < hot ? 'heating' : now < cool ? 'cooling' : 'ready';
      return { ...sleeve, phase, left: phase === 'ready' ? 0 : Math.ceil((until - now) / 1000) };
    });
}

/** Sleeves that were ready longer ago are in their trays. ms */
export const laneMemory = 10 * 60 * 1000;

/**
 * The splices whose sleeves may still be in the lane, newest last: by the last try of each that was not taken back, unless it broke or has no sleeve. A try that was
 * taken back never happened, and leaves the sleeve of the one before in its place.
 * @param now ms since 1970
 */
export function sleevesOf(
  facts: readonly Fact[],
  now: number,
  mine: (fact: Extract<Fact, { kind: 'attempt' }>) => boolean,
): { readonly spliceId: string; readonly since: number }[] {
  const takenBack = new Set<string>();
  const bare = new Set<string>();
  for (const fact of facts) {
    if (fact.kind !== 'correction') continue;
    const { attemptId, result } = fact.body;
    if (result === null) takenBack.add(attemptId);
    else if (result.sleeveForgotten || result.proofTestFailed) bare.add(attemptId);
  }
  const last = new Map<string, { readonly since: number; readonly sleeve: boolean }>();
  for (const fact of facts) {
    if (fact.kind !== 'attempt' || takenBack.has(fact.id)) continue;
    const since = Date.parse(fact.madeAt);
    if (now - since > laneMemory || since > now || !mine(fact)) continue;
    const spliceId = spliceIdOf(fact);
    if ((last.get(spliceId)?.since ?? -Infinity) > since) continue;
    last.set(spliceId, {
      since,
      sleeve: !bare.has(fact.id) && !fact.body.proofTestFailed && !fact.body.sleeveForgotten,
    });
  }
  return [...last]
    .flatMap(([spliceId, { since, sleeve }]) => (sleeve ? [{ spliceId, since }] : []))
    .sort((a, b) => a.since - b.since);
}

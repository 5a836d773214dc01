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
 * The splices whose sleeves may still be in the lane, newest last: attempts of the last minutes that were not taken back, not broken, and not
 * without their sleeve. A splice that was tried again is there once, with its last try.
 * @param now ms since 1970
 */
export function sleevesOf(
  facts: readonly Fact[],
  now: number,
  mine: (fact: Extract<Fact, { kind: 'attempt' }>) => boolean,
): { readonly spliceId: string; readonly since: number }[] {
  const out = new Map<string, number>();
  const withdrawn = new Set<string>();
  for (const fact of facts)
    if (
      fact.kind === 'correction' &&
      (fact.body.result === null || fact.body.result.sleeveForgotten || fact.body.result.proofTestFailed)
    )
      withdrawn.add(fact.body.attemptId);
  for (const fact of facts) {
    if (fact.kind !== 'attempt') continue;
    const since = Date.parse(fact.madeAt);
    if (now - since > laneMemory || since > now || !mine(fact)) continue;
    const spliceId = spliceIdOf(fact);
    const known = out.get(spliceId);
    if (known !== undefined && known > since) continue;
    out.delete(spliceId);
    if (!withdrawn.has(fact.id) && !fact.body.proofTestFailed && !fact.body.sleeveForgotten)
      out.set(spliceId, since);
  }
  return [...out].map(([spliceId, since]) => ({ spliceId, since })).sort((a, b) => a.since - b.since);
}

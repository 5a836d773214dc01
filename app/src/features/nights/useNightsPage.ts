import type { Fact, ProjectDefinition } from '@cordel/core';
import { useEffect, useMemo, useState } from 'react';
import { correctedNow } from '../../data/clock';
import { useGear } from '../../data/gear';
import { useNights, type NightsNow } from '../../data/nights/useNights';
import { usePace } from '../../data/pace';
import { useFactsOf } from '../../sync/react';

/** The time moves on in such steps, ms: whatever comes in is planned with at once. */
const step = 120_000;

function useNow(): number {
  const [now, setNow] = useState(() => Math.floor(correctedNow() / 60_000) * 60_000);
  useEffect(() => {
    const clock = setInterval(() => setNow(Math.floor(correctedNow() / 60_000) * 60_000), step);
    return () => clearInterval(clock);
  }, []);
  return now;
}

const noGear: never[] = [];

export interface NightsPage extends NightsNow {
  /** The facts are there. */
  readonly loaded: boolean;
  readonly failed: Error | null;
  readonly retry: () => void;
  /** ms since 1970. */
  readonly now: number;
}

/** Everything that the pages of the nights show: the plan as it follows from what is recorded by now. */
export function useNightsPage(definition: ProjectDefinition): NightsPage {
  const pace = usePace();
  const { data: gear = noGear } = useGear();
  const now = useNow();
  const { facts, error, retry } = useFactsOf(
    definition.project.id,
    useMemo(() => definition.closures.map(({ id }) => id), [definition.closures]),
  );
  const all = useMemo((): readonly Fact[] | null => (facts ? facts.flat() : null), [facts]);
  // Before the first night nothing hangs on the time, and nothing is planned anew as it goes on.
  const first = Math.min(...(definition.project.nights?.nights ?? []).map(({ opens }) => Date.parse(opens)));
  const found = useNights(definition, all, pace, gear, now >= first ? now : null);
  return { ...found, loaded: facts !== null && facts !== undefined, failed: error, retry, now };
}

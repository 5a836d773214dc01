import type { Fact, ProjectDefinition } from '@cordel/core';
import type { Gear } from '@cordel/core/gear';
import type { Pace } from '@cordel/core/prepare';
import type { NightsRecord } from '@cordel/core/schedule';
import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { NightsAnswer, NightsReasons, NightsService } from './nightsService';

let worker: Remote<NightsService> | null = null;

function service(): Remote<NightsService> {
  worker ??= wrap<NightsService>(new Worker('/nights.worker.js', { type: 'module' }));
  return worker;
}

/** The plan of a project's nights, as far as it is made; answers of what was asked before stay until there is one. */
export interface NightsNow {
  readonly answer: NightsAnswer | null;
  /** null until the plan stands. */
  readonly reasons: NightsReasons | null;
  readonly planning: boolean;
  readonly error: Error | null;
  /** Takes the plan that there is. */
  readonly enough: () => void;
}

interface Found {
  readonly record: NightsRecord | null;
  readonly answer: NightsAnswer | null;
  readonly reasons: NightsReasons | null;
  readonly done: boolean;
  readonly error: Error | null;
}

/**
 * Plans a project's nights in a worker, anew whenever something it is made from changes.
 * @param facts of all closures; null: not there yet
 * @param now ms since 1970 of a night that goes on, changed every minute at most; null: nights from their beginning
 */
export function useNights(
  definition: ProjectDefinition,
  facts: readonly Fact[] | null,
  pace: Pace,
  gear: readonly Gear[],
  now: number | null,
): NightsNow {
  const record = useMemo(
    (): NightsRecord | null => (facts ? { definition, facts, pace, gear, now } : null),
    [definition, facts, pace, gear, now],
  );
  const [found, setFound] = useState<Found>({
    record: null,
    answer: null,
    reasons: null,
    done: false,
    error: null,
  });
  useEffect(() => {
    if (!record || typeof Worker === 'undefined') return;
    let current = true;
    const told = proxy((answer: NightsAnswer) => {
      if (current)
        setFound((before) => ({
          record,
          answer,
          // Of the plan before, until there are those of this one.
          reasons: before.record === record ? before.reasons : null,
          // An answer and the end come by two ways: the last answer may come after the end.
          done: before.record === record && before.done,
          error: null,
        }));
    });
    service()
      .plan(record, told)
      .then(
        (reasons) => {
          if (current && reasons) setFound((before) => ({ ...before, record, reasons, done: true }));
        },
        (error: Error) => {
          if (current) setFound((before) => ({ ...before, record, done: true, error }));
        },
      );
    return () => {
      current = false;
    };
  }, [record]);
  return {
    answer: found.answer,
    reasons: found.record === record ? found.reasons : null,
    planning: record !== null && !(found.record === record && found.done),
    error: found.record === record ? found.error : null,
    enough: () => void service().enough(),
  };
}

import type { Fact } from '@cordel/core';
import type { Gear } from '@cordel/core/gear';
import { wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { correctedNow } from '../clock';
import type { ClosureAtHand } from '../ledger';
import { useGear } from '../gear';
import type { Judged, JudgedJob, JudgeService } from './judgeService';

/** What is known, and since when, ms since 1970. */
export interface JudgedNow extends Judged {
  readonly at: number;
}

/** One worker for the page, and what was told to it last. */
let worker: Remote<JudgeService> | null = null;
let told: {
  readonly job: JudgedJob;
  readonly facts: readonly Fact[];
  readonly judged: Promise<Judged>;
} | null = null;

function judged(job: JudgedJob, facts: readonly Fact[]): Promise<Judged> {
  if (told?.job === job && told.facts === facts) return told.judged;
  worker ??= wrap<JudgeService>(new Worker('/judge.worker.js', { type: 'module' }));
  const before = told?.job === job ? told.facts : null;
  if (!before) void worker.begin(job);
  // Messages arrive in their order: what was told before is known there.
  const known = before && facts.length >= before.length && facts[before.length - 1] === before.at(-1);
  const answer = worker.take(known ? facts.slice(before.length) : facts);
  told = { job, facts, judged: answer };
  return answer;
}

const jobs = new WeakMap<readonly unknown[], Map<string, JudgedJob>>();

/** The same definition, limits and gear give the same job. */
function jobOf(
  { definition, closure }: Pick<ClosureAtHand, 'definition' | 'closure'>,
  gear: readonly Gear[],
): JudgedJob {
  const { limits } = definition.project;
  const rules = gear.flatMap((one) => (one.kind === 'machine' ? [[one.id, one.rules] as const] : []));
  const key = JSON.stringify([closure.id, limits, rules]);
  let own = jobs.get(definition.cables);
  if (!own) jobs.set(definition.cables, (own = new Map()));
  let job = own.get(key);
  if (!job) own.set(key, (job = { limits, cables: definition.cables, rules }));
  return job;
}

const noGear: readonly Gear[] = [];

/** What the judge knows of a closure's readings; null until it was asked, or where no worker runs. A reading is painted before anybody judges it. */
export function useJudged({ definition, closure, facts }: ClosureAtHand): JudgedNow | null {
  const { data: gear = noGear } = useGear();
  const job = useMemo(() => jobOf({ definition, closure }, gear), [definition, closure, gear]);
  const [found, setFound] = useState<{ readonly job: JudgedJob; readonly judged: JudgedNow } | null>(null);
  useEffect(() => {
    if (typeof Worker === 'undefined') return;
    let current = true;
    judged(job, facts).then(
      (answer) => {
        if (current) setFound({ job, judged: { ...answer, at: correctedNow() } });
      },
      // Without it the bench is what it was: nothing is said.
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [job, facts]);
  return found?.job === job ? found.judged : null;
}

import { compareFacts, isSpliceFact, spliceIdOf, type Fact, type SpliceFact } from '../../facts';
import { exceeds, type Limits } from '../../limits/limits';
import type { Cable } from '../../line/cable';
import { fiberOf } from '../../line/fiberType';
import { spliceHistory, spliceOrder, type StandingAttempt } from '../../splice/record/history';
import { mismatchLoss } from '../../splice/record/spliceLoss';
import { lossLimit } from '../../splice/record/verdict';
import type { Happened, Tried } from './tried';

/** What happened, in the order of time. */
export type Told = { readonly tried: Tried } | { readonly event: Happened };

export interface SeriesContext {
  readonly cables: ReadonlyMap<string, Cable>;
  readonly limits: Limits;
}

/** The series of tries and what happened beside them, from facts in any order. Tries that were taken back are not in it, corrected ones are as they were corrected. */
export function seriesOf(facts: Iterable<Fact>, context: SeriesContext): readonly Told[] {
  const bySplice = new Map<string, SpliceFact[]>();
  const told: { readonly madeAt: string; readonly id: string; readonly one: Told }[] = [];
  for (const fact of facts) {
    if (isSpliceFact(fact)) {
      const key = `${fact.subject.closureId} ${spliceIdOf(fact)}`;
      const own = bySplice.get(key);
      if (own) own.push(fact);
      else bySplice.set(key, [fact]);
      continue;
    }
    const event = happenedOf(fact);
    if (event) told.push({ madeAt: fact.madeAt, id: fact.id, one: { event } });
  }
  for (const own of bySplice.values()) {
    const { attempts } = spliceHistory(spliceOrder(own));
    attempts.forEach((attempt, index) => {
      const tried = triedOf(attempt, index + 1, context);
      if (tried) told.push({ madeAt: attempt.fact.madeAt, id: attempt.fact.id, one: { tried } });
    });
  }
  return told.sort(compareFacts).map(({ one }) => one);
}

/** null: no loss was to be read of it (a mechanical connector). */
export function triedOf(
  { fact, readings, proofTestFailed, light }: StandingAttempt,
  nth: number,
  { cables, limits }: SeriesContext,
): Tried | null {
  if (light !== undefined) return null;
  const { subject, body, by, id, madeAt } = fact;
  const kind = readings.length > 1 ? 'ribbon' : 'single';
  const limit = lossLimit(kind, limits);
  const sides = [subject.left[0]!.cableId, subject.right[0]!.cableId] as const;
  const [one, other] = sides.map((cableId) => cables.get(cableId));
  const fields = [one, other].map((cable) => (cable ? fiberOf(cable).modeField : null));
  return {
    attempt: id,
    splice: spliceIdOf(fact),
    at: Date.parse(madeAt),
    kind,
    nth,
    losses: readings.map(({ loss }) => loss),
    left: readings.map(({ cleaveLeft }) => cleaveLeft),
    right: readings.map(({ cleaveRight }) => cleaveRight),
    broke: proofTestFailed,
    over: readings.some(({ loss }) => loss !== null && exceeds(loss, limit)),
    pair: sides.toSorted().join(' '),
    pairTerm: fields[0] == null || fields[1] == null ? null : mismatchLoss(fields[0], fields[1]),
    machine: body.gear?.machine?.id ?? null,
    cleaver: body.gear?.cleaver?.id ?? null,
    person: by,
  };
}

export function happenedOf(fact: Fact): Happened | null {
  const at = Date.parse(fact.madeAt);
  switch (fact.kind) {
    case 'calibration':
      return fact.body.passed
        ? { at, what: 'calibrated', machine: fact.subject.gearId, ...fact.body.conditions }
        : { at, what: 'weather', machine: fact.subject.gearId, ...fact.body.conditions };
    case 'weather':
      return { at, what: 'weather', machine: fact.subject.gearId, ...fact.body.conditions };
    case 'gear-event':
      return fact.body.event === 'blade-turned' || fact.body.event === 'blade-replaced'
        ? { at, what: 'blade-turned', cleaver: fact.subject.gearId }
        : null;
    case 'pattern-answer': {
      const { rule, about, machine } = fact.body;
      return { at, what: 'answered', rule, about, machine };
    }
    // Who splices on all the same was asked, and has answered.
    case 'went-on':
      return fact.body.rules.some((rule) => ['temperature', 'humidity', 'pressure'].includes(rule))
        ? { at, what: 'answered', rule: 'conditions', about: '', machine: fact.subject.gearId }
        : null;
    default:
      return null;
  }
}

import { closureOf, type Fact } from '../facts';
import type { Gear, Machine } from '../gear/gear';
import type { ProjectDefinition } from '../handover/projectFile';
import type { Closure } from '../plan/closure';
import { planClosure } from '../plan/trays/closurePlan';
import type { Pace } from '../prepare/time/estimate';
import { measuredPace, measuredVariation } from '../prepare/time/measured';
import { workLeft } from '../prepare/steps/progress';
import { buildLedger } from '../splice/record/ledger';
import type { NightsInput } from './problemOf';
import { newNightsSetup } from './setup';
import { carryingLeft, traysLeft, type ClosureToDo } from './closureToDo';

/** A project as it is recorded, to be planned. */
export interface NightsRecord {
  readonly definition: ProjectDefinition;
  /** Of all closures, in any order. */
  readonly facts: readonly Fact[];
  readonly pace: Pace;
  readonly gear: readonly Gear[];
  /** ms since 1970; null: the nights from their beginning, whatever the time. */
  readonly now: number | null;
}

/** What was found out of closures, by what it was found from, so that only those are looked at again of which something changed. */
export type LookedAt = Map<string, { readonly key: string; readonly found: Found }>;
type Found = Pick<ClosureToDo, 'plan' | 'left' | 'trays' | 'carrying'>;

/**
 * What the plan of nights is made from: what is left of each closure by its facts, at the pace that was measured here where there is one.
 * @param before of a call before; it is added to
 */
export function nightsInput(
  { definition, facts, pace, gear, now }: NightsRecord,
  before: LookedAt = new Map(),
): NightsInput {
  const setup = definition.project.nights ?? newNightsSetup;
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const byClosure = new Map<string, Fact[]>();
  for (const fact of facts) {
    const closureId = closureOf(fact);
    if (closureId === null) continue;
    const own = byClosure.get(closureId);
    if (own) own.push(fact);
    else byClosure.set(closureId, [fact]);
  }
  const at = new Date(now ?? Date.parse(setup.nights[0]?.opens ?? '1970-01-01T00:00:00.000Z')).toISOString();
  const measured = new Map(
    definition.closures.map(({ id }) => [id, measuredPace(byClosure.get(id) ?? [], at)] as const),
  );
  // A closure where nobody spliced yet goes at the pace of the others.
  const others = {
    single: [...measured.values()].find(({ single }) => single !== null)?.single ?? null,
    ribbon: [...measured.values()].find(({ ribbon }) => ribbon !== null)?.ribbon ?? null,
  };
  const variation = measuredVariation(facts);
  const common = JSON.stringify([definition.project.limits, definition.cables]);
  const lookAt = (closure: Closure, own: readonly Fact[]): Found => {
    const plan = planClosure(closure, cables);
    const ledger = buildLedger(plan, own, definition.project.limits);
    return {
      plan,
      left: workLeft(closure, plan, cables, ledger, own),
      trays: traysLeft(closure, plan, cables, ledger),
      carrying: carryingLeft(closure, plan, cables, ledger),
    };
  };
  const toDo = definition.closures.map((closure): ClosureToDo => {
    const own = byClosure.get(closure.id) ?? [];
    const key = `${common} ${JSON.stringify(closure)} ${own.map(({ id }) => id).join()}`;
    let looked = before.get(closure.id);
    if (looked?.key !== key) before.set(closure.id, (looked = { key, found: lookAt(closure, own) }));
    const pacing = measured.get(closure.id)!;
    return {
      closure,
      ...looked.found,
      cables,
      measured: {
        single: pacing.single ?? others.single,
        ribbon: pacing.ribbon ?? others.ribbon,
        atWork: [],
      },
      variation,
    };
  });
  const machines = new Map(
    gear.flatMap((one) => (one.kind === 'machine' ? [[one.id, one] as [string, Machine]] : [])),
  );
  return {
    definition,
    setup,
    toDo,
    pace,
    machineOf: (gearId) => machines.get(gearId),
    now,
    begun: begunTonight(setup.nights, facts, now, toDo),
  };
}

/** Closures that were worked at in the night that goes on, and who is there: each at the closure of the last thing that they did. */
function begunTonight(
  nights: readonly { readonly opens: string; readonly closes: string }[],
  facts: readonly Fact[],
  now: number | null,
  toDo: readonly ClosureToDo[],
): Map<string, readonly string[]> {
  const begun = new Map<string, string[]>();
  const night = nights.find(
    ({ opens, closes }) => now !== null && Date.parse(opens) <= now && now < Date.parse(closes),
  );
  if (now === null || !night) return begun;
  const open = new Set(toDo.filter(({ left }) => !left.sealed).map(({ closure }) => closure.id));
  const last = new Map<string, { readonly at: number; readonly closureId: string }>();
  for (const fact of facts) {
    const { kind, by } = fact;
    const at = Date.parse(fact.madeAt);
    const closureId = closureOf(fact);
    if (closureId === null || !open.has(closureId)) continue;
    if (at < Date.parse(night.opens) || at > now) continue;
    if (kind !== 'attempt' && kind !== 'tick' && kind !== 'recleave') continue;
    begun.set(closureId, []);
    if (by && at >= (last.get(by)?.at ?? 0)) last.set(by, { at, closureId });
  }
  for (const [person, { closureId }] of [...last].sort(([a], [b]) => (a < b ? -1 : 1)))
    begun.get(closureId)!.push(person);
  return begun;
}

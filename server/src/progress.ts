import { buildLedger, planClosure, type Fact, type ProjectDefinition, type RollUp } from '@cordel/core';

export interface ClosureProgress {
  readonly closureId: string;
  readonly rollUp: RollUp;
}

/** How far each closure of a project is, derived from its plan and facts as on every device. */
export function progressOf(definition: ProjectDefinition, facts: readonly Fact[]): ClosureProgress[] {
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const byClosure = new Map<string, Fact[]>();
  for (const fact of facts) {
    const own = byClosure.get(fact.closureId);
    if (own) own.push(fact);
    else byClosure.set(fact.closureId, [fact]);
  }
  return definition.closures.map((closure) => ({
    closureId: closure.id,
    rollUp: buildLedger(
      planClosure(closure, cables),
      byClosure.get(closure.id) ?? [],
      definition.project.limits,
    ).rollUp,
  }));
}

import { planClosure } from '@cordel/core';
import { makeProject } from '../../server/test/makeProject';

/** Two ribbon cables of `count` ribbons of 12, joined straight, ribbon by ribbon. */
export function makeRibbonProject(count: number) {
  const made = makeProject(1);
  const { definition, closureId } = made;
  const [closure] = definition.closures;
  const cables = definition.cables.map((cable) => ({
    ...cable,
    construction: { kind: 'central-ribbon' as const, ribbons: count, fibersPerRibbon: 12 as const },
  }));
  const [line] = closure!.order;
  const ribboned = {
    ...closure!,
    trays: Array.from({ length: Math.ceil(count / 12) }, () => ({ singleSlots: 0, ribbonSlots: 12 })),
    order: [
      {
        ...line!,
        left: { ...line!.left, from: 1, to: 12 * count },
        right: { ...line!.right!, from: 1, to: 12 * count },
        mode: 'ribbon' as const,
      },
    ],
  };
  const plan = planClosure(ribboned, new Map(cables.map((cable) => [cable.id, cable])));
  return { definition: { ...definition, cables, closures: [ribboned] }, closureId, ribbons: plan.splices };
}

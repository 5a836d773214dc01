import {
  factVersion,
  limitsPresets,
  planClosure,
  runsOf,
  type Attempt,
  type PlacedSplice,
  type ProjectDefinition,
} from '@cordel/core';
import { straightProject } from '@cordel/core/straightProject';
import { randomUUID } from 'node:crypto';

/** A straight project of `tubes` × 12 fibers for tests and benchmarks, with its splices along the cord. */
export function makeProject(
  tubes = 2,
  name = 'Test job',
): { definition: ProjectDefinition; closureId: string; splices: PlacedSplice[] } {
  const cable = { tubes, fibersPerTube: 12, schemeId: 'tia-598-d' };
  const definition = straightProject(
    {
      name,
      units: 'mm',
      limits: limitsPresets[0]!.limits,
      from: 'Hub',
      to: 'Cabinet',
      closure: { name: 'Joint', kind: 'dome', chainage: 100, trays: Math.ceil(tubes / 2), slotsPerTray: 24 },
      left: { ...cable, label: 'A' },
      right: { ...cable, label: 'B' },
    },
    randomUUID,
  );
  const closure = definition.closures[0]!;
  const plan = planClosure(closure, new Map(definition.cables.map((one) => [one.id, one])));
  return { definition, closureId: closure.id, splices: plan.trays.flatMap((tray) => tray.splices) };
}

/** A first try read off by hand. */
export function makeAttempt(
  closureId: string,
  splice: PlacedSplice,
  loss: number,
  more: Partial<Attempt['body']> & Partial<Pick<Attempt, 'id' | 'madeAt' | 'by'>> = {},
): Attempt {
  const { id = randomUUID(), madeAt = new Date().toISOString(), by = null, ...body } = more;
  return {
    v: factVersion('attempt'),
    id,
    kind: 'attempt',
    madeAt,
    by,
    device: null,
    subject: { on: 'splice', closureId, left: runsOf(splice.left), right: runsOf(splice.right) },
    body: {
      source: 'hand',
      simulated: true,
      readings: [{ loss, cleaveLeft: null, cleaveRight: null }],
      proofTestFailed: false,
      note: '',
      ...body,
    },
  };
}

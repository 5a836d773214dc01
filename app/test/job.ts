import { factVersion, limitsPresets, runsOf, type Attempt, type ProjectDefinition } from '@cordel/core';
import { straightProject } from '@cordel/core/straightProject';
import { planOf } from '../src/data/ledger';

let next = 1;
const newId = () => `01900000-0000-7000-8000-${String(next++).padStart(12, '0')}`;

const cable = { tubes: 2, fibersPerTube: 12, schemeId: 'tia-598-d' };

/** A small job: 24 single splices on trays of so many slots. */
export function smallJob(slotsPerTray = 24): ProjectDefinition {
  return straightProject(
    {
      name: 'Test',
      units: 'mm',
      limits: limitsPresets[0]!.limits,
      from: 'Hub',
      to: 'Cabinet',
      closure: { name: 'Joint', kind: 'dome', chainage: 0, trays: 24 / slotsPerTray, slotsPerTray },
      left: { label: 'A', ...cable },
      right: { label: 'B', ...cable },
    },
    newId,
  );
}

/** A try at the splice of this position, made so many minutes after one o'clock. */
export function attemptAt(
  definition: ProjectDefinition,
  position: number,
  loss: number,
  minute = position,
): Attempt {
  const closure = definition.closures[0]!;
  const { left, right } = planOf(closure, definition).splices[position]!;
  return {
    v: factVersion('attempt'),
    id: newId(),
    kind: 'attempt',
    madeAt: `2026-04-15T01:${String(minute).padStart(2, '0')}:00.000Z`,
    by: null,
    device: null,
    subject: { on: 'splice', closureId: closure.id, left: runsOf(left), right: runsOf(right) },
    body: {
      source: 'hand',
      simulated: false,
      readings: [{ loss, cleaveLeft: null, cleaveRight: null }],
      proofTestFailed: false,
      note: '',
    },
  };
}

/** The same with two ribbons of twelve on each side. */
export function ribbonJob(): ProjectDefinition {
  const job = smallJob();
  const [closure] = job.closures;
  return {
    ...job,
    cables: job.cables.map((one) => ({
      ...one,
      construction: { kind: 'central-ribbon', ribbons: 2, fibersPerRibbon: 12 },
    })),
    closures: [
      {
        ...closure!,
        trays: [{ singleSlots: 24, ribbonSlots: 6 }],
        order: closure!.order.map((line) => ({ ...line, mode: 'ribbon' })),
      },
    ],
  };
}

import { z } from 'zod';
import { equalTubes } from '../line/cable';
import { colorSchemes } from '../line/colorCode';
import { unitsSchema } from '../line/project';
import { timeZoneSchema } from '../line/timeZone';
import type { ProjectDefinition } from '../handover/projectFile';
import { limitsSchema } from '../limits/limits';
import { nameSchema } from '../schemas';

const tubeCable = z.strictObject({
  label: nameSchema,
  tubes: z.int('Give a whole number of tubes.').min(1, 'At least 1 tube.').max(576, 'At most 576 tubes.'),
  fibersPerTube: z
    .int('Give a whole number of fibers.')
    .min(1, 'At least 1 fiber in a tube.')
    .max(24, 'At most 24 fibers in a tube.'),
  schemeId: z.enum(colorSchemes.map((scheme) => scheme.id) as [string, ...string[]]),
});

/** The smallest job that can be spliced: two loose tube cables that end in one closure, fiber 1 to fiber 1 and so on. */
export const straightProjectSchema = z.strictObject({
  name: nameSchema,
  units: unitsSchema,
  timeZone: timeZoneSchema.nullable().optional(),
  limits: limitsSchema,
  from: nameSchema,
  to: nameSchema,
  closure: z.strictObject({
    name: nameSchema,
    kind: z.enum(['dome', 'inline']),
    /** Meters from the first site. */
    chainage: z.number('Give the distance as a number.').min(0, 'Distance starts at 0.').max(1_000_000),
    trays: z.int('Give a whole number of trays.').min(1, 'At least 1 tray.').max(1000, 'At most 1000 trays.'),
    slotsPerTray: z
      .int('Give a whole number of slots.')
      .min(1, 'At least 1 slot.')
      .max(144, 'At most 144 slots in a tray.'),
  }),
  left: tubeCable,
  right: tubeCable,
});
export type StraightProject = z.infer<typeof straightProjectSchema>;

/** Builds the project; as many fibers are joined as the smaller cable has, the others stay dark. `newId` hands in identifiers. */
export function straightProject(input: StraightProject, newId: () => string): ProjectDefinition {
  const [hub, joint, cabinet] = [newId(), newId(), newId()];
  const [left, right] = [newId(), newId()];
  const count = Math.min(
    input.left.tubes * input.left.fibersPerTube,
    input.right.tubes * input.right.fibersPerTube,
  );
  return {
    project: {
      id: newId(),
      name: input.name,
      units: input.units,
      limits: input.limits,
      window: null,
      timeZone: input.timeZone ?? null,
      version: 1,
      lineVersion: 1,
    },
    sites: [
      { id: hub, name: input.from, kind: 'hub', chainage: 0, placement: null },
      {
        id: joint,
        name: input.closure.name,
        kind: 'closure',
        chainage: input.closure.chainage,
        placement: null,
      },
      {
        id: cabinet,
        name: input.to,
        kind: 'cabinet',
        // How far the far end is, is not asked: it stands just behind the closure on the cord.
        chainage: input.closure.chainage,
        placement: null,
      },
    ],
    cables: [
      {
        id: left,
        label: input.left.label,
        schemeId: input.left.schemeId,
        construction: equalTubes(input.left.tubes, input.left.fibersPerTube),
        siteIds: [hub, joint],
      },
      {
        id: right,
        label: input.right.label,
        schemeId: input.right.schemeId,
        construction: equalTubes(input.right.tubes, input.right.fibersPerTube),
        siteIds: [joint, cabinet],
      },
    ],
    closures: [
      {
        id: newId(),
        siteId: joint,
        kind: input.closure.kind,
        entries: [
          { cableId: left, manner: 'cut' },
          { cableId: right, manner: 'cut' },
        ],
        trays: Array.from({ length: input.closure.trays }, () => ({
          singleSlots: input.closure.slotsPerTray,
        })),
        order: [
          {
            id: newId(),
            left: { cableId: left, side: 'end', from: 1, to: count },
            right: { cableId: right, side: 'end', from: 1, to: count },
            mode: 'single',
            circuit: null,
          },
        ],
        version: 1,
      },
    ],
  };
}

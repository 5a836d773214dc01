import { z } from 'zod';
import { fiberTypeIds, type FiberTypeId } from '../line/fiberType';
import { logMappingSchema } from '../machine/log/mapping';
import { idSchema, nameSchema, versionSchema } from '../schemas';
import type { SleeveKind } from '../splice/bench/joint';
import { calibrationRulesSchema, usualRules } from './rules';

const sleeveKindSchema = z.enum(['single-40', 'single-60', 'ribbon', 'connector'] satisfies SleeveKind[]);

const limitOf = (what: string, unit: string, most: number) =>
  z
    .number(`${what}: give a number in ${unit}, or leave it empty.`)
    .positive(`${what} is above 0 ${unit}.`)
    .max(most, `${what} is at most ${most} ${unit}.`)
    .nullable();

const itemBase = z.strictObject({
  id: idSchema,
  /** What the crew calls it. */
  label: nameSchema,
  version: versionSchema,
});

export const programSchema = z.strictObject({
  name: nameSchema,
  fiberTypes: z.array(z.enum(fiberTypeIds)).min(1, 'A program is for at least one fiber type.'),
  /** Cladding, μm. */
  cladding: z.literal([125, 400], 'The cladding is 125 or 400 μm.'),
});
export type Program = z.infer<typeof programSchema>;

export const heaterProgramSchema = z.strictObject({
  name: nameSchema,
  sleeve: sleeveKindSchema,
  /** s */
  seconds: z.int('Give whole seconds.').min(5, 'At least 5 s.').max(600, 'At most 600 s.'),
});
export type HeaterProgram = z.infer<typeof heaterProgramSchema>;

const noDoubles = {
  when: (list: readonly { name: string }[]) => new Set(list.map((one) => one.name)).size === list.length,
  message: 'Two programs have the same name.',
};

export const machineSchema = itemBase.extend({
  kind: z.literal('machine'),
  programs: z
    .array(programSchema)
    .min(1, 'At least one program.')
    .max(40)
    .refine(noDoubles.when, noDoubles.message),
  heaterPrograms: z
    .array(heaterProgramSchema)
    .min(1, 'At least one heater program.')
    .max(40)
    .refine(noDoubles.when, noDoubles.message),
  /** Sleeves that the heater takes at once. */
  heaters: z.int('Give a whole number.').min(1, 'At least 1.').max(4, 'At most 4.'),
  /** s on the cooling tray until a sleeve may be touched. */
  coolSeconds: z.int('Give whole seconds.').min(0, 'Not below 0 s.').max(600, 'At most 600 s.'),
  /** What the machine itself takes before the arc; null where it sets no limit. */
  limits: z.strictObject({
    cleaveAngle: limitOf('Cleave angle', '°', 10),
    offset: limitOf('Axis offset', 'μm', 50),
    gap: limitOf('Gap', 'μm', 200),
  }),
  /** Arcs of one try at a calibration; see `usualCalibrationArcs`. */
  calibrationArcs: z.int('Give a whole number.').min(0, 'Not below 0.').max(50, 'At most 50.').optional(),
  rules: calibrationRulesSchema,
  /** How its log is read, once that was told. */
  log: logMappingSchema.optional(),
});
export type Machine = z.infer<typeof machineSchema>;

const cleaveLengthSchema = z
  .number('Give a length in mm.')
  .min(3, 'At least 3 mm.')
  .max(40, 'At most 40 mm.');

export const cleaverSchema = itemBase.extend({
  kind: z.literal('cleaver'),
  /** mm of bare glass from coating to end, of a fiber with 250 μm coating. */
  cleaveLength: cleaveLengthSchema,
  /** The same of a tight buffer of 900 μm; not known where it is left out. */
  tightLength: cleaveLengthSchema.optional(),
  /** And of a ribbon; as for one fiber where it is left out. */
  ribbonLength: cleaveLengthSchema.optional(),
  /** Places on the blade's edge. */
  positions: z.int('Give a whole number.').min(1, 'At least 1.').max(100, 'At most 100.'),
  rules: z.strictObject({
    /** Fibers that a position cleaves; null: never due. */
    cleaves: z.int('Give a whole number.').min(1, 'At least 1.').max(1_000_000).nullable(),
  }),
});
export type Cleaver = z.infer<typeof cleaverSchema>;

export const stripperSchema = itemBase.extend({
  kind: z.literal('stripper'),
  /** °C of its jaws. */
  temperature: z.number('Give a temperature in °C.').min(20).max(200).nullable(),
});
export type Stripper = z.infer<typeof stripperSchema>;
export const lightSourceSchema = itemBase.extend({
  kind: z.literal('light-source'),
  /** nm */
  wavelength: z.int('Give a wavelength in nm.').min(400).max(1700).nullable(),
});
export type LightSource = z.infer<typeof lightSourceSchema>;

/** A piece of gear under a label of the user's own. */
export const gearSchema = z.discriminatedUnion('kind', [
  machineSchema,
  cleaverSchema,
  stripperSchema,
  lightSourceSchema,
]);
export type Gear = z.infer<typeof gearSchema>;
export type GearKind = Gear['kind'];

export const gearWords: Readonly<Record<GearKind, { readonly one: string; readonly many: string }>> = {
  machine: { one: 'splicing machine', many: 'Splicing machines' },
  cleaver: { one: 'cleaver', many: 'Cleavers' },
  stripper: { one: 'thermal stripper', many: 'Thermal strippers' },
  'light-source': { one: 'light source', many: 'Light sources' },
};

const singleMode: readonly FiberTypeId[] = ['g652d', 'g657a1', 'g657a2', 'g657b3'];
const multimode: readonly FiberTypeId[] = ['om1', 'om2', 'om3', 'om4', 'om5'];

/**
 * A new piece of gear with usual settings, to be made the user's own. Heater times, cooling and life of blade and electrodes: common practice or
 * from memory; makers print their own.
 */
export function newGear(kind: GearKind, id: string, label: string): Gear {
  const base = { id, label, version: 1 };
  switch (kind) {
    case 'machine':
      return {
        ...base,
        kind,
        programs: [
          { name: 'Single mode', fiberTypes: [...singleMode], cladding: 125 },
          { name: 'Multimode', fiberTypes: [...multimode], cladding: 125 },
        ],
        heaterPrograms: [
          { name: '60 mm', sleeve: 'single-60', seconds: 35 },
          { name: '40 mm', sleeve: 'single-40', seconds: 25 },
          { name: 'Ribbon', sleeve: 'ribbon', seconds: 40 },
          { name: 'Connector', sleeve: 'connector', seconds: 20 },
        ],
        heaters: 1,
        coolSeconds: 30,
        limits: { cleaveAngle: 3, offset: 2, gap: null },
        rules: usualRules,
      };
    case 'cleaver':
      return { ...base, kind, cleaveLength: 10, positions: 16, rules: { cleaves: 3000 } };
    case 'stripper':
      return { ...base, kind, temperature: 85 };
    case 'light-source':
      return { ...base, kind, wavelength: 650 };
  }
}

/** The program of a machine that is made for a fiber type; null when it has none. */
export function programFor(machine: Machine, fiberType: FiberTypeId): Program | null {
  return machine.programs.find((program) => program.fiberTypes.includes(fiberType)) ?? null;
}

/** The heater program of a machine that is made for a sleeve; null when it has none. */
export function heaterProgramFor(machine: Machine, sleeve: SleeveKind): HeaterProgram | null {
  return machine.heaterPrograms.find((program) => program.sleeve === sleeve) ?? null;
}

import { z } from 'zod';
import { idSchema, nameSchema, versionSchema } from '../schemas';

const millimeters = (what: string) =>
  z
    .number(`Give ${what} as a number.`)
    .min(0, `${what} starts at 0.`)
    .max(20_000, `${what} is at most 20 000 mm.`);

/** Where cables go in: `count` alike openings for cables of a range of diameters, mm. */
export const portSchema = z
  .strictObject({
    name: z.string().trim().min(1, 'Give the port a name.').max(20, 'Keep the name to 20 characters.'),
    count: z.int().min(1, 'At least 1.').max(96, 'At most 96.'),
    from: z.number().min(0, 'A diameter starts at 0 mm.').max(80, 'At most 80 mm.'),
    to: z.number().min(0, 'A diameter starts at 0 mm.').max(80, 'At most 80 mm.'),
    /** A cable that goes through cannot be threaded: its seal must be slit or split. */
    express: z.boolean(),
  })
  .refine((port) => port.from <= port.to, {
    message: 'The smallest diameter is above the largest.',
    path: ['from'],
  });
export type Port = z.infer<typeof portSchema>;

/** Lengths that the closure asks for when a cable is prepared, mm. */
export const closureLengthsSchema = z.strictObject({
  sheathOpening: millimeters('the sheath opening'),
  strengthMember: millimeters('the strength member'),
  tube: millimeters('the tube left'),
  /** Fiber from the tube's end to its splice and back, on the tray. */
  trayFiber: millimeters('the fiber on the tray'),
});
export type ClosureLengths = z.infer<typeof closureLengthsSchema>;

/** A catalogue entry. Everything in it is generic and invented, and can be changed. */
export const closureModelSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['dome', 'inline', 'terminal', 'drop', 'rack']),
  about: z.string().trim().max(300, 'Keep it to 300 characters.'),
  ports: z.array(portSchema).min(1, 'A closure has at least one port.').max(50),
  trays: z.int('Give a whole number of trays.').min(1, 'At least 1 tray.').max(1000, 'At most 1000 trays.'),
  singleSlots: z.int('Give a whole number of slots.').min(0).max(144, 'At most 144 slots in a tray.'),
  ribbonSlots: z.int('Give a whole number of slots.').min(0).max(144, 'At most 144 slots in a tray.'),
  lengths: closureLengthsSchema,
  /** kPa */
  testPressure: z.number().min(0).max(34.5, 'Never more than 34.5 kPa (5 psi).'),
  version: versionSchema,
});
export type ClosureModel = z.infer<typeof closureModelSchema>;

/** The catalogue as a document. */
export const catalogueFileSchema = z.strictObject({
  format: z.literal('cordel-catalogue', 'This is not a Cordel catalogue file.'),
  formatVersion: z.literal(1, 'This file was written by a newer Cordel. Update this one first.'),
  models: z.array(closureModelSchema).max(1000),
});

/** What a closure takes from its model when it is put at a site. */
export function closureOfModel(model: ClosureModel) {
  return {
    kind: model.kind,
    model: model.name,
    ports: model.ports,
    lengths: model.lengths,
    testPressure: model.testPressure,
    trays: Array.from({ length: model.trays }, () => ({
      singleSlots: model.singleSlots,
      ribbonSlots: model.ribbonSlots,
    })),
  };
}

const builtInId = (number: number) => `0c0de100-0000-4000-8000-${String(number).padStart(12, '0')}`;

/**
 * Models to begin with, generic and invented. Lengths are common practice, no published source: every maker prints its own table, and
 * these are to be replaced by it.
 */
export const builtInModels: readonly ClosureModel[] = [
  {
    id: builtInId(1),
    name: 'Dome 96',
    kind: 'dome',
    about: 'Dome for feeder joints, four trays.',
    ports: [
      { name: 'Oval', count: 2, from: 10, to: 25, express: true },
      { name: 'Round', count: 4, from: 6, to: 18, express: false },
    ],
    trays: 4,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: { sheathOpening: 1626, strengthMember: 203, tube: 57, trayFiber: 900 },
    testPressure: 34.5,
    version: 1,
  },
  {
    id: builtInId(2),
    name: 'Dome 288',
    kind: 'dome',
    about: 'Large dome, twelve trays.',
    ports: [
      { name: 'Oval', count: 2, from: 12, to: 32, express: true },
      { name: 'Round', count: 6, from: 8, to: 25, express: false },
    ],
    trays: 12,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: { sheathOpening: 1626, strengthMember: 203, tube: 57, trayFiber: 900 },
    testPressure: 34.5,
    version: 1,
  },
  {
    id: builtInId(3),
    name: 'Inline 144',
    kind: 'inline',
    about: 'Inline with glands on both ends, six trays.',
    ports: [{ name: 'Gland', count: 6, from: 8, to: 20, express: true }],
    trays: 6,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: { sheathOpening: 2000, strengthMember: 90, tube: 57, trayFiber: 900 },
    testPressure: 27.6,
    version: 1,
  },
  {
    id: builtInId(4),
    name: 'Express terminal 24',
    kind: 'terminal',
    about: 'Terminal on an express cable, with drops.',
    ports: [
      { name: 'Express', count: 2, from: 8, to: 18, express: true },
      { name: 'Drop', count: 12, from: 2, to: 8.5, express: false },
    ],
    trays: 2,
    singleSlots: 24,
    ribbonSlots: 6,
    lengths: { sheathOpening: 1778, strengthMember: 76, tube: 57, trayFiber: 700 },
    testPressure: 27.6,
    version: 1,
  },
  {
    id: builtInId(5),
    name: 'Drop joint 4',
    kind: 'drop',
    about: 'Small gel joint for two drops.',
    ports: [{ name: 'End', count: 2, from: 2, to: 9, express: false }],
    trays: 1,
    singleSlots: 4,
    ribbonSlots: 1,
    lengths: { sheathOpening: 508, strengthMember: 38, tube: 152, trayFiber: 500 },
    testPressure: 0,
    version: 1,
  },
  {
    id: builtInId(6),
    name: 'Rack module 144',
    kind: 'rack',
    about: 'Splice module for pigtails or ribbons in a rack.',
    ports: [{ name: 'Rear', count: 2, from: 4, to: 25, express: false }],
    trays: 6,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: { sheathOpening: 1219, strengthMember: 0, tube: 30, trayFiber: 800 },
    testPressure: 0,
    version: 1,
  },
];

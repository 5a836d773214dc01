import { z } from 'zod';
import { idSchema, nameSchema, textSchema, versionSchema } from '../../schemas';

const millimeters = (what: string) =>
  z
    .number(`Give ${what} as a number.`)
    .min(0, `${what} starts at 0.`)
    .max(20_000, `${what} is at most 20 000 mm.`);

/** A part that a cable of a range of diameters needs at a port. Ranges lie within ranges: all parts whose range holds the cable are taken. */
export const sealPartSchema = z
  .strictObject({
    part: textSchema.trim().min(1, 'Name the part.').max(60, 'Keep the part to 60 characters.'),
    /** The port needs exactly one part of kind seal or grommet; the others come on top. */
    kind: z.enum(['seal', 'grommet', 'spacer', 'clip', 'clamp', 'bushing']),
    from: z.number().min(0, 'A diameter starts at 0 mm.').max(80, 'At most 80 mm.'),
    to: z.number().min(0, 'A diameter starts at 0 mm.').max(80, 'At most 80 mm.'),
    count: z.int().min(1, 'At least 1.').max(20, 'At most 20.'),
    /** Layers to be peeled out of it for this range. */
    peel: z.int().min(0).max(20, 'At most 20 layers.').optional(),
    /** Slit, so that it goes round a cable that cannot be threaded. */
    slit: z.boolean().optional(),
    /** Cables that share one; 1 where it is not given. */
    holds: z.int().min(1).max(12, 'At most 12 cables in one.').optional(),
  })
  .refine((part) => part.from <= part.to, {
    message: 'The smallest diameter is above the largest.',
    path: ['from'],
  });
export type SealPart = z.infer<typeof sealPartSchema>;

/** Where cables go in: `count` alike openings for cables of a range of diameters, mm. */
export const portSchema = z
  .strictObject({
    name: textSchema.trim().min(1, 'Give the port a name.').max(20, 'Keep the name to 20 characters.'),
    count: z.int().min(1, 'At least 1.').max(96, 'At most 96.'),
    from: z.number().min(0, 'A diameter starts at 0 mm.').max(80, 'At most 80 mm.'),
    to: z.number().min(0, 'A diameter starts at 0 mm.').max(80, 'At most 80 mm.'),
    /** A cable that goes through cannot be threaded: its seal must be slit or split. */
    express: z.boolean(),
    /** When its seal goes on: before the sheath is opened, or, a gland of the assembled kind, after it. Before where it is not given. */
    goesOn: z.enum(['before', 'after']).optional(),
    /** The parts table of its seal kit; not known where it is not given. */
    parts: z.array(sealPartSchema).max(60).optional(),
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
  /** Central tube left past the sheath edge, or the small tube of a drop. */
  tube: millimeters('the tube left'),
  /** Fiber from the tray's entry to the splicing machine. */
  trayFiber: millimeters('the fiber to the machine'),
  /** From the sheath edge to the tray's entry, along tube or ribbon. */
  tubeToTray: millimeters('the way to the tray').optional(),
  /** From the sheath edge down the sheath to the mark that places gland or clamp. */
  clampMark: millimeters('the clamp mark').optional(),
  aramid: millimeters('the aramid').optional(),
  ripcord: millimeters('the ripcord').optional(),
  testCut: millimeters('the test cut').optional(),
  /** From the sheath edge to where a window begins. */
  windowInset: millimeters('the window’s distance').optional(),
  /** Tube that is left standing at the exit edge when a tube that goes through is cut. */
  exitStub: millimeters('the stub at the exit').optional(),
  dropOpening: millimeters('the drop’s opening').optional(),
  /** Of a drop that is spliced to nothing here and ends in connectors. */
  connectorOpening: millimeters('the opening for a connector').optional(),
  /** Coils in the tray, and their diameter. */
  coils: z.int('Give a whole number of coils.').min(0).max(20, 'At most 20 coils.').optional(),
  coilDiameter: millimeters('the coil’s diameter').optional(),
  /** Of tubes that go through, coiled in the slack basket: the widest coil it takes, and how many turns; 0 where it is not known. */
  basketDiameter: millimeters('the coil in the basket').optional(),
  basketTurns: z.int('Give a whole number of turns.').min(0).max(40, 'At most 40 turns.').optional(),
  /** Fiber that one try takes from each side. */
  redo: millimeters('the length of a redo').optional(),
  /** Diameter of the loop in which cable is stored at the site. */
  cableLoop: millimeters('the cable loop').optional(),
});
export type ClosureLengths = z.infer<typeof closureLengthsSchema>;

/** A part of the closure's own kit: a bolt set, a bracket, an earth wire. */
export const kitPartSchema = z.strictObject({
  name: textSchema.trim().min(1, 'Name the part.').max(60, 'Keep the part to 60 characters.'),
  count: z.int().min(1, 'At least 1.').max(200, 'At most 200.'),
  /** What cannot be done without it. */
  stops: textSchema.trim().max(80, 'Keep it to 80 characters.'),
  /** So many for each opening that a cable takes; for the closure where it is not given. */
  perCable: z.boolean().optional(),
});
export type KitPart = z.infer<typeof kitPartSchema>;

/** How a closure is closed, and what its maker says of it. What is not given is as usual for its kind. */
export const sealingSchema = z.strictObject({
  /** What holds its seals: caps turned by hand, gland nuts, screws that press the sealing material, or gel that closes with the shell. */
  opens: z.enum(['caps', 'glands', 'screws', 'gel']).optional(),
  /** In which order they are tightened, opposite ones after each other or one beside the other. */
  tightening: z.enum(['across', 'around']).optional(),
  /** The maker's own order, by the numbers of the openings; it counts before `tightening`. */
  order: z.array(z.int().min(1).max(4800)).max(96, 'At most 96 openings.').optional(),
  /** Whether gasket and seat are greased. */
  grease: z.boolean().optional(),
  /** Of gas in the closed closure. */
  liters: z.number().positive('A volume above 0.').max(1000, 'At most 1 000 liters.').optional(),
});
export type Sealing = z.infer<typeof sealingSchema>;

/** A catalogue entry. Everything in it is generic and invented, and can be changed. */
export const closureModelSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['dome', 'inline', 'terminal', 'drop', 'rack']),
  about: textSchema.trim().max(300, 'Keep it to 300 characters.'),
  ports: z.array(portSchema).min(1, 'A closure has at least one port.').max(50),
  trays: z.int('Give a whole number of trays.').min(1, 'At least 1 tray.').max(1000, 'At most 1000 trays.'),
  singleSlots: z.int('Give a whole number of slots.').min(0).max(144, 'At most 144 slots in a tray.'),
  ribbonSlots: z.int('Give a whole number of slots.').min(0).max(144, 'At most 144 slots in a tray.'),
  lengths: closureLengthsSchema,
  /** Of the single sleeves that its holders take, mm; 60 where it is not given. */
  sleeveLength: z.literal([40, 60], 'A single sleeve is 40 or 60 mm long.').optional(),
  parts: z.array(kitPartSchema).max(60).optional(),
  /** kPa */
  testPressure: z
    .number('Give the test pressure as a number; 0 where none is made.')
    .min(0, 'A pressure starts at 0.')
    .max(34.5, 'Never more than 34.5 kPa (5 psi).'),
  sealing: sealingSchema.optional(),
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
    ...(model.parts ? { parts: model.parts } : {}),
    ...(model.sleeveLength ? { sleeveLength: model.sleeveLength } : {}),
    testPressure: model.testPressure,
    ...(model.sealing ? { sealing: model.sealing } : {}),
    trays: Array.from({ length: model.trays }, () => ({
      singleSlots: model.singleSlots,
      ribbonSlots: model.ribbonSlots,
    })),
  };
}

import { z } from 'zod';

const chance = z.number().min(0).max(1);

/** What can be wrong at a bench, switched on alone or together. Strengths are invented; what they look like is common practice. */
export const faultsSchema = z.strictObject({
  /** Dust in the air and on the ends: the chance of it at each fiber of a try. */
  dust: chance.optional(),
  /** Dirt in a groove of a holder: it moves the fiber of one position by so many μm, the same way each time, until it is cleaned. From 1. */
  dirtyGroove: z
    .strictObject({ position: z.int().min(1).max(24), offset: z.number().min(0).max(10) })
    .optional(),
  /** A blade, or its position, that cleaved so many ends more than it shows. */
  wornBlade: z.int().min(0).max(1_000_000).optional(),
  /** The holder of one side is bent: degrees that it adds to the cleave angles there. */
  badHolder: z.strictObject({ side: z.enum(['left', 'right']), angle: z.number().min(0).max(20) }).optional(),
  /** Electrodes that made so many arcs more than they show. */
  oldElectrodes: z.int().min(0).max(1_000_000).optional(),
  /** A program for another fiber: what it changes of ln p. */
  wrongProgram: z.number().min(-1).max(1).optional(),
  /** The stripper is cold: the chance of a nick at each end. */
  coldStripper: chance.optional(),
  /** The right side is of another fiber than the plan says: its mode-field diameter, μm. */
  mixedFiber: z.number().min(4).max(15).optional(),
});
export type Faults = Readonly<z.infer<typeof faultsSchema>>;

export type FaultName = keyof Faults;

/** Each fault at a strength that a crew would notice in a night. */
export const usualFaults: Required<{ readonly [K in FaultName]: NonNullable<Faults[K]> }> = {
  dust: 0.08,
  dirtyGroove: { position: 7, offset: 1.2 },
  wornBlade: 5000,
  badHolder: { side: 'left', angle: 0.9 },
  oldElectrodes: 7000,
  wrongProgram: -0.3,
  coldStripper: 0.06,
  mixedFiber: 8.6,
};

export const faultWords: Readonly<Record<FaultName, string>> = {
  dust: 'Dust on the ends',
  dirtyGroove: 'Dirt in one groove',
  wornBlade: 'Worn blade position',
  badHolder: 'Bent holder on one side',
  oldElectrodes: 'Old electrodes',
  wrongProgram: 'Program for another fiber',
  coldStripper: 'Cold stripper',
  mixedFiber: 'Another fiber on the right',
};

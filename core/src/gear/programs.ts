import { fiberOf, type FiberTypeId } from '../line/fiberType';
import type { Cable } from '../line/cable';
import { sleeveWords, type SleeveKind } from '../splice/joint';
import { heaterProgramFor, programFor, type Machine } from './gear';

/** A program that is on and does not fit the splice at hand. */
export interface ProgramWarning {
  readonly what: 'program' | 'heater';
  readonly message: string;
  /** The machine's program that fits, or null where it has none. */
  readonly fitting: string | null;
  /** μm, of a splice program that fits; 125 otherwise. */
  readonly cladding: 125 | 400;
}

/**
 * What is set wrongly for a splice: a splice program for another fiber type, a heater program for another sleeve.
 * @param on names of the programs that are on; null: not known, nothing is said about it
 * @param sleeve null where none is heated
 */
export function programWarnings(
  machine: Machine,
  on: { readonly program: string | null; readonly heater: string | null },
  cables: readonly Pick<Cable, 'fiberType'>[],
  sleeve: SleeveKind | null,
): ProgramWarning[] {
  const warnings: ProgramWarning[] = [];
  const program = machine.programs.find((one) => one.name === on.program);
  const types = [...new Set(cables.map((cable) => fiberOf(cable).type.id as FiberTypeId))];
  const other = types.find((type) => program && !program.fiberTypes.includes(type));
  if (other) {
    const found = programFor(machine, other);
    const fitting = found?.name ?? null;
    warnings.push({
      what: 'program',
      fitting,
      cladding: found?.cladding ?? 125,
      message: `The program “${program!.name}” is on, and this fiber is ${fiberOf({ fiberType: other }).type.name}. ${
        fitting ? `Switch to “${fitting}”.` : 'The machine has no program for it on its list.'
      }`,
    });
  }
  const heater = machine.heaterPrograms.find((one) => one.name === on.heater);
  if (heater && sleeve && heater.sleeve !== sleeve) {
    const fitting = heaterProgramFor(machine, sleeve)?.name ?? null;
    warnings.push({
      what: 'heater',
      fitting,
      cladding: 125,
      message: `The heater is on “${heater.name}”, and this splice wears a ${sleeveWords[sleeve]}. ${
        fitting ? `Switch to “${fitting}”.` : 'The machine has no program for it on its list.'
      }`,
    });
  }
  return warnings;
}

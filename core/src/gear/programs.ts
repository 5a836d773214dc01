import { fiberOf, type FiberTypeId } from '../line/fiberType';
import type { Cable } from '../line/cable';
import type { SleeveKind } from '../splice/bench/joint';
import { heaterProgramFor, programFor, type Machine } from './gear';

/** A program that is on and does not fit the splice at hand. */
export type ProgramWarning = {
  /** Name of the one that is on. */
  readonly on: string;
  /** The machine's program that fits, or null where it has none. */
  readonly fitting: string | null;
  /** μm, of a splice program that fits; 125 otherwise. */
  readonly cladding: 125 | 400;
} & (
  | { readonly what: 'program'; readonly fiberType: FiberTypeId }
  | { readonly what: 'heater'; readonly sleeve: SleeveKind }
);

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
    warnings.push({
      what: 'program',
      on: program!.name,
      fiberType: other,
      fitting: found?.name ?? null,
      cladding: found?.cladding ?? 125,
    });
  }
  const heater = machine.heaterPrograms.find((one) => one.name === on.heater);
  if (heater && sleeve && heater.sleeve !== sleeve)
    warnings.push({
      what: 'heater',
      on: heater.name,
      sleeve,
      fitting: heaterProgramFor(machine, sleeve)?.name ?? null,
      cladding: 125,
    });
  return warnings;
}

import './withoutEval';
import { gearRefSchema, type GearRef, type UsedGear } from '@cordel/core';
import { z } from 'zod';
import { storedValue } from './stored';

/** What was picked for the night on this device. It stands on every attempt until the night is over. */
const tonightSchema = z.object({
  /** ms since 1970; 0: nothing was picked. */
  pickedAt: z.number().catch(0),
  machine: gearRefSchema.nullable().catch(null),
  cleaver: gearRefSchema.nullable().catch(null),
  stripper: gearRefSchema.nullable().catch(null),
  /** Names of the machine's programs that are on. */
  program: z.string().nullable().catch(null),
  heater: z.string().nullable().catch(null),
  cladding: z.literal([125, 400]).catch(125),
});
export type Tonight = z.infer<typeof tonightSchema>;

/** After that the next one begins, and gear is asked for again. ms */
const night = 14 * 3600 * 1000;

const nothing: Tonight = tonightSchema.parse({});
const tonight = storedValue('gear-tonight', tonightSchema, nothing);

/** Whether gear was picked, or somebody said that none is, for the night that goes on. */
export function isPicked({ pickedAt }: Tonight): boolean {
  return Date.now() - pickedAt < night;
}

/** Picks gear for the night. */
export function pickGear(picked: Partial<Omit<Tonight, 'pickedAt'>>): void {
  const before = isPicked(tonight.get()) ? tonight.get() : { ...nothing, pickedAt: Date.now() };
  tonight.set({ ...before, ...picked, pickedAt: before.pickedAt });
}

/** What stands on an attempt that is made now; undefined when no gear was picked. */
export function usedGear(): UsedGear | undefined {
  if (!isPicked(tonight.get())) return undefined;
  const { machine, cleaver, stripper, program, heater, cladding } = tonight.get();
  if (!machine && !cleaver && !stripper) return undefined;
  return {
    ...(machine ? { machine } : {}),
    ...(cleaver ? { cleaver } : {}),
    ...(stripper ? { stripper } : {}),
    ...(machine && program ? { program } : {}),
    ...(machine && heater ? { heater } : {}),
    ...(machine && cladding === 400 ? { cladding } : {}),
  };
}

/** "Single 1, Cleaver A" */
export function gearWordsOf(gear: { readonly [part: string]: GearRef | null | unknown }): string {
  return (['machine', 'cleaver', 'stripper'] as const)
    .flatMap((part) => (gear[part] as GearRef | null | undefined)?.label ?? [])
    .join(', ');
}

export const useTonight = tonight.use;
export const getTonight = tonight.get;

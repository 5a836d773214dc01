import './withoutEval';
import { gearRefSchema, type GearRef, type UsedGear } from '@cordel/core';
import { useSyncExternalStore } from 'react';
import { z } from 'zod';
import { keep, recall } from './stored';

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

const key = 'gear-tonight';
const nothing: Tonight = tonightSchema.parse({});
let current: Tonight = tonightSchema.catch(nothing).parse(recall(key) ?? {});
const listeners = new Set<() => void>();

function change(next: Tonight): void {
  current = next;
  keep(key, next);
  listeners.forEach((listener) => listener());
}

/** Whether gear was picked, or somebody said that none is, for the night that goes on. */
export function isPicked({ pickedAt }: Tonight): boolean {
  return Date.now() - pickedAt < night;
}

/** Picks gear for the night. */
export function pickGear(picked: Partial<Omit<Tonight, 'pickedAt'>>): void {
  const before = isPicked(current) ? current : nothing;
  change({ ...before, ...picked, pickedAt: isPicked(current) ? current.pickedAt : Date.now() });
}

/** What stands on an attempt that is made now; undefined when no gear was picked. */
export function usedGear(): UsedGear | undefined {
  if (!isPicked(current)) return undefined;
  const { machine, cleaver, stripper, program, heater, cladding } = current;
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

export function useTonight(): Tonight {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => current,
  );
}

import '../withoutEval';
import { idSchema, nameSchema } from '@cordel/core';
import { usualFaults, type FaultName, type StandInSettings } from '@cordel/core/machine';
import { z } from 'zod';
import { storedValue } from '../stored';

const faultNames = Object.keys(usualFaults) as [FaultName, ...FaultName[]];

const linkedSchema = z.object({
  where: z.enum(['page', 'server']),
  id: idSchema,
  name: nameSchema,
  simulated: z.boolean(),
  /** Which machine of the crews' gear it is; null: none of them. */
  gearId: idSchema.nullable(),
});
/** The machine that this device listens to. */
export type Linked = Readonly<z.infer<typeof linkedSchema>>;

const linked = storedValue<Linked | null>('linked-machine', linkedSchema, null);
export const useLinked = linked.use;
export const getLinked = linked.get;
export const linkTo = linked.set;

const practiceSchema = z.object({
  /** Times as fast as a real one. */
  speed: z.number().min(1).max(1000).catch(1),
  faults: z.array(z.enum(faultNames)).readonly().catch([]),
  /** The same number gives the same night; null: another one each time. */
  night: z.int().min(0).max(Number.MAX_SAFE_INTEGER).nullable().catch(null),
  /** What hands do at it is done by itself, as the bench says. */
  byItself: z.boolean().catch(true),
});
/** How one practises at a machine that is simulated. */
export type Practice = Readonly<z.infer<typeof practiceSchema>>;
const practice = storedValue<Practice>('practice', practiceSchema, practiceSchema.parse({}));
export const usePractice = practice.use;
export const getPractice = practice.get;

/** A stand-in as one practises at it. */
export function settingsOf({ speed, faults, night }: Practice): StandInSettings {
  return {
    seed: night ?? Math.floor(Math.random() * 2 ** 31),
    speed,
    faults: Object.fromEntries(faults.map((name) => [name, usualFaults[name]])),
    pausesBeforeArc: true,
  };
}
export const setPractice = (change: Partial<Practice>) => practice.set({ ...practice.get(), ...change });

/** Up to which event a machine was heard, so that what it does meanwhile is heard afterwards. */
const heard = storedValue('machine-heard', z.object({ id: z.string(), number: z.int() }), {
  id: '',
  number: 0,
});
export function heardOf(machineId: string): number | null {
  const { id, number } = heard.get();
  return id === machineId ? number : null;
}
export function keepHeard(id: string, number: number): void {
  try {
    heard.set({ id, number });
  } catch {
    // With no room it is asked once more after the page was opened anew.
  }
}

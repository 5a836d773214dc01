import { kitList, siteOf, type Closure, type Fact, type KitLine, type ProjectDefinition } from '@cordel/core';
import type { Schools } from '@cordel/core/prepare';
import { z } from 'zod';
import { cablesOf, planOf } from '../../data/ledger';
import { storedValue } from '../../data/stored';
import { knownAt } from './knownAt';

/** Spares in percent, as they are typed. */
export const spares = storedValue('kit-spare', z.string(), '10');

/** The share that is typed, and whether it is one. */
export function spareShare(text: string): { readonly spare: number; readonly valid: boolean } {
  const spare = Number(text.replace(',', '.'));
  const valid = text.trim() !== '' && Number.isFinite(spare) && spare >= 0 && spare <= 200;
  return { spare: valid ? spare : 0, valid };
}

/** What one closure's work takes. */
export interface ClosureKit {
  readonly closureId: string;
  readonly name: string;
  readonly lines: readonly KitLine[];
}

/** What is still to be brought to these closures. @param facts of each; null while they are not there: then all of it */
export function kitsOf(
  definition: ProjectDefinition,
  closures: readonly Closure[],
  facts: readonly (readonly Fact[])[] | null | undefined,
  sparePercent: number,
  schools: Schools,
): ClosureKit[] {
  const cables = cablesOf(definition);
  return closures.map((closure, index) => ({
    closureId: closure.id,
    name: siteOf(definition.sites, closure.siteId).name,
    lines: kitList(closure, planOf(closure, definition), cables, {
      sparePercent,
      schools,
      ...(facts ? knownAt(definition, closure, facts[index] ?? []) : {}),
    }),
  }));
}

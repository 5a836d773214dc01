import { z } from 'zod';
import { factSchema } from '../fact';
import { compareFacts } from '../factBase';
import { cableSchema } from '../line/cable';
import { projectSchema, siteSchema } from '../line/project';
import { closureSchema } from '../plan/closure';
import { timeSchema } from '../schemas';

/** Everything about a project that is edited in place. */
export const projectDefinitionSchema = z.strictObject({
  project: projectSchema,
  sites: z.array(siteSchema).max(10_000),
  cables: z.array(cableSchema).max(10_000),
  closures: z.array(closureSchema).max(10_000),
});
export type ProjectDefinition = z.infer<typeof projectDefinitionSchema>;

/** A fact with the time at which the server took it. */
export const storedFactSchema = z.strictObject({ receivedAt: timeSchema, fact: factSchema });
export type StoredFact = z.infer<typeof storedFactSchema>;

/** A whole project as one document. */
export const projectFileSchema = z.strictObject({
  format: z.literal('cordel-project', 'This is not a Cordel project file.'),
  formatVersion: z.literal(1, 'This file was written by a newer Cordel. Update this one first.'),
  ...projectDefinitionSchema.shape,
  facts: z.array(storedFactSchema).max(1_000_000),
});
export type ProjectFile = z.infer<typeof projectFileSchema>;

const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/**
 * The document as text. The same project gives the same bytes whatever order it was stored in: lists that have no order of their
 * own are sorted, and the schema puts the fields in its order.
 */
export function writeProjectFile(definition: ProjectDefinition, facts: readonly StoredFact[]): string {
  const file = projectFileSchema.parse({
    format: 'cordel-project',
    formatVersion: 1,
    project: definition.project,
    sites: [...definition.sites].sort(byId),
    cables: [...definition.cables].sort(byId),
    closures: [...definition.closures].sort(byId),
    facts: [...facts].sort((a, b) => compareFacts(a.fact, b.fact)),
  });
  return `${JSON.stringify(file, null, 2)}\n`;
}

export interface DocumentProblem {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

/** What a document gets wrong that no single field shows: things named twice, or named and not there. Empty when sound. */
export function referenceProblems(
  definition: ProjectDefinition,
  facts: readonly StoredFact[] = [],
): DocumentProblem[] {
  const problems: DocumentProblem[] = [];
  const say = (path: DocumentProblem['path'], message: string) => void problems.push({ path, message });

  const collect = (list: 'sites' | 'cables' | 'closures') => {
    const ids = new Set<string>();
    definition[list].forEach((item, index) => {
      if (ids.has(item.id)) say([list, index, 'id'], 'This identifier stands twice in the list.');
      ids.add(item.id);
    });
    return ids;
  };
  const sites = collect('sites');
  const cables = collect('cables');
  const closures = collect('closures');

  definition.sites.forEach((site, index) => {
    if (site.branchFrom === undefined) return;
    const from = definition.sites.find((other) => other.id === site.branchFrom);
    const at = ['sites', index, 'branchFrom'];
    if (!from) say(at, 'There is no site of this identifier.');
    // A branch leaves the route; branches of branches would have no place on the cord.
    else if (from.branchFrom !== undefined) say(at, 'A branch leaves the route itself, not another branch.');
  });
  definition.cables.forEach((cable, index) =>
    cable.siteIds.forEach((id, at) => {
      if (!sites.has(id)) say(['cables', index, 'siteIds', at], 'There is no site of this identifier.');
    }),
  );
  definition.closures.forEach((closure, index) => {
    const at = ['closures', index] as const;
    if (!sites.has(closure.siteId)) say([...at, 'siteId'], 'There is no site of this identifier.');
    closure.entries.forEach((entry, line) => {
      if (!cables.has(entry.cableId))
        say([...at, 'entries', line, 'cableId'], 'There is no cable of this identifier.');
    });
    closure.order.forEach((order, line) =>
      (['left', 'right'] as const).forEach((side) => {
        if (!cables.has(order[side].cableId))
          say([...at, 'order', line, side, 'cableId'], 'There is no cable of this identifier.');
      }),
    );
  });

  const factIds = new Set<string>();
  facts.forEach(({ fact }, index) => {
    if (factIds.has(fact.id)) say(['facts', index, 'fact', 'id'], 'This fact stands twice in the file.');
    factIds.add(fact.id);
    if (!closures.has(fact.closureId))
      say(['facts', index, 'fact', 'closureId'], 'There is no closure of this identifier.');
  });
  return problems;
}

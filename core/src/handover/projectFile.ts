import { z } from 'zod';
import {
  closureOf,
  compareFacts,
  factTimeTrouble,
  inWrittenOrder,
  readFact,
  type Fact,
  type UnknownFact,
} from '../facts';
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
export interface StoredFact {
  readonly receivedAt: string;
  readonly fact: Fact | UnknownFact;
}

/** The newest version that there is; files from the first version on are read. */
const projectFileVersion = 3;
/** Of a file without edits: it is read by every Cordel since. */
const versionWithoutEdits = 2;

const projectFileSchema = z.strictObject({
  format: z.literal('cordel-project', 'This is not a Cordel project file.'),
  formatVersion: z
    .int('The file does not say in which version of the format it is.')
    .superRefine((version, context) => {
      if (version > projectFileVersion)
        context.addIssue('This file was written by a newer Cordel. Update this one first.');
      else if (version < 1) context.addIssue('There never was a project file of this version.');
    }),
  ...projectDefinitionSchema.shape,
  /** Of version 3. What each says is read by `readEdit`. */
  edits: z.array(z.unknown()).max(10_000).optional(),
  // Read one by one, so that each problem is told where it is.
  facts: z.array(z.strictObject({ receivedAt: timeSchema, fact: z.unknown() })).max(1_000_000),
});

/** A whole project as one document. */
export interface ProjectFile extends ProjectDefinition {
  /** Edits in it that no server had when it was made on a device, in order: see `DocumentEdit`. */
  readonly edits: readonly unknown[];
  readonly facts: readonly StoredFact[];
}

const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/**
 * The document as text. The same project gives the same bytes whatever order it was stored in: lists that have no order of their
 * own are sorted, and the schemas put the fields in their order.
 * @param definition as it is shown, with the edits
 * @param edits those of it that no server has
 */
export function writeProjectFile(
  definition: ProjectDefinition,
  facts: readonly StoredFact[],
  edits: readonly unknown[] = [],
): string {
  return [...projectFileParts(definition, facts, edits)].join('');
}

/** The same piece by piece, a piece for every so many facts, so that whoever sends it can let others have their turn. */
export function* projectFileParts(
  definition: ProjectDefinition,
  facts: readonly StoredFact[],
  edits: readonly unknown[] = [],
): Generator<string> {
  const head = projectFileSchema.parse({
    format: 'cordel-project',
    formatVersion: edits.length > 0 ? projectFileVersion : versionWithoutEdits,
    project: definition.project,
    sites: [...definition.sites].sort(byId),
    cables: [...definition.cables].sort(byId),
    closures: [...definition.closures].sort(byId),
    ...(edits.length > 0 ? { edits: [...edits] } : {}),
    facts: [],
  });
  const text = JSON.stringify(head, null, 2);
  if (facts.length === 0) {
    yield `${text}\n`;
    return;
  }
  // The list of facts is the last field, so they are put between its brackets.
  yield `${text.slice(0, text.lastIndexOf(']'))}\n`;
  const inOrder = [...facts].sort((a, b) => compareFacts(a.fact, b.fact));
  for (let start = 0; start < inOrder.length; start += factsInPart)
    yield inOrder
      .slice(start, start + factsInPart)
      .map(({ receivedAt, fact }, index) => {
        const written = JSON.stringify({ receivedAt, fact: inWrittenOrder(fact) }, null, 2);
        const last = start + index === inOrder.length - 1;
        return `    ${written.replaceAll('\n', '\n    ')}${last ? '' : ','}\n`;
      })
      .join('');
  yield '  ]\n}\n';
}

const factsInPart = 250;

/** More problems than that are counted and not told. */
const mostProblems = 100;

/**
 * Reads a document of any version that there was; facts of older ones are brought up. Either the file, or what is wrong with it: the first 100, and
 * how many there are.
 * @param now ms since 1970 by the clock of who takes it; null where that is not to be trusted, or nothing is to be judged by it
 */
export function readProjectFile(
  raw: unknown,
  now: number | null = null,
):
  | { readonly file: ProjectFile; readonly problems?: undefined }
  | { readonly file?: undefined; readonly problems: readonly DocumentProblem[]; readonly count: number } {
  const parsed = projectFileSchema.safeParse(raw);
  if (!parsed.success) return schemaProblems(parsed.error);
  const { format: _, formatVersion: __, facts, edits = [], ...definition } = parsed.data;
  const problems: DocumentProblem[] = [];
  const stored: StoredFact[] = [];
  let wrong = 0;
  for (const [index, { receivedAt, fact }] of facts.entries()) {
    const read = readFact(fact);
    const trouble =
      read.status === 'wrong'
        ? { path: read.path as (string | number)[], message: read.message }
        : timeTrouble(read.fact, now);
    if (read.status !== 'wrong' && !trouble) {
      stored.push({ receivedAt, fact: read.fact });
      continue;
    }
    wrong += 1;
    if (problems.length < mostProblems)
      problems.push({ path: ['facts', index, 'fact', ...trouble!.path], message: trouble!.message });
  }
  if (wrong === 0) problems.push(...referenceProblems(definition, stored));
  if (problems.length > 0)
    return { problems: problems.slice(0, mostProblems), count: Math.max(wrong, problems.length) };
  return { file: { ...definition, edits, facts: stored } };
}

/** What a schema has against a document: the first problems, and how many there are. */
export function schemaProblems({ issues }: z.ZodError): {
  problems: DocumentProblem[];
  count: number;
} {
  return {
    problems: issues
      .slice(0, mostProblems)
      .map(({ path, message }) => ({ path: path as DocumentProblem['path'], message })),
    count: issues.length,
  };
}

function timeTrouble(fact: StoredFact['fact'], now: number | null): DocumentProblem | null {
  const message = factTimeTrouble(fact, now);
  return message === null ? null : { path: ['madeAt'], message };
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
  const occupied = new Set<string>();
  definition.closures.forEach((closure, index) => {
    const at = ['closures', index] as const;
    if (!sites.has(closure.siteId)) say([...at, 'siteId'], 'There is no site of this identifier.');
    if (occupied.has(closure.siteId)) say([...at, 'siteId'], 'There is another closure at this site.');
    occupied.add(closure.siteId);
    closure.entries.forEach((entry, line) => {
      if (!cables.has(entry.cableId))
        say([...at, 'entries', line, 'cableId'], 'There is no cable of this identifier.');
    });
    closure.order.forEach((order, line) =>
      (['left', 'right'] as const).forEach((side) => {
        const range = order[side];
        if (range && !cables.has(range.cableId))
          say([...at, 'order', line, side, 'cableId'], 'There is no cable of this identifier.');
      }),
    );
  });

  const factIds = new Set<string>();
  facts.forEach(({ fact }, index) => {
    if (factIds.has(fact.id)) say(['facts', index, 'fact', 'id'], 'This fact stands twice in the file.');
    factIds.add(fact.id);
    const closureId = closureOf(fact);
    if (closureId !== null && !closures.has(closureId))
      say(['facts', index, 'fact', 'subject', 'closureId'], 'There is no closure of this identifier.');
  });
  return problems;
}

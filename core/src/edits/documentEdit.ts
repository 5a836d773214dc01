import { z } from 'zod';
import { gearSchema, type Gear } from '../gear/gear';
import { cableSchema } from '../line/cable';
import { projectSettingsSchema, siteSchema } from '../line/project';
import { closureSchema, type Closure } from '../plan/closure';
import { closureModelSchema, type ClosureModel } from '../plan/models/closureModel';
import { projectDefinitionSchema, referenceProblems, type ProjectDefinition } from '../handover/projectFile';
import { idSchema, versionSchema } from '../schemas';
import { mergeDocuments } from './merge';

/** What a project says of itself, as one document; its version is `Project.version`. */
export const settingsDocumentSchema = projectSettingsSchema.extend({ version: versionSchema });
export type SettingsDocument = z.infer<typeof settingsDocumentSchema>;

/** A project's sites and cables, which are edited together; its version is `Project.lineVersion`. */
export const lineDocumentSchema = z.strictObject({
  version: versionSchema,
  sites: z.array(siteSchema).max(10_000),
  cables: z.array(cableSchema).max(10_000),
});
export type LineDocument = z.infer<typeof lineDocumentSchema>;

/** Everything that is edited in place, under versions. */
export interface DocumentKinds {
  /** A whole project that is being made. Afterwards its parts are edited. */
  project: ProjectDefinition;
  settings: SettingsDocument;
  line: LineDocument;
  closure: Closure;
  model: ClosureModel;
  gear: Gear;
}
export type DocumentKindName = keyof DocumentKinds;

const schemas = {
  project: projectDefinitionSchema,
  settings: settingsDocumentSchema,
  line: lineDocumentSchema,
  closure: closureSchema,
  model: closureModelSchema,
  gear: gearSchema,
} as const;

/** An edit of one document. */
export type DocumentEdit<K extends DocumentKindName = DocumentKindName> = {
  readonly [Kind in K]: {
    readonly kind: Kind;
    /** Of the closure, model or piece of gear; of the project for what a project has once. */
    readonly documentId: string;
    /** The stored one that the edit was made from; null: a new one. */
    readonly base: DocumentKinds[Kind] | null;
    /** What it is to be; null: it is to be deleted. */
    readonly mine: DocumentKinds[Kind] | null;
  };
}[K];

/** An edit as a device keeps it. */
export type KeptEdit = DocumentEdit & {
  /** What was sent since `base`: the server may have it, where the answer was lost. */
  readonly sent?: readonly NonNullable<DocumentEdit['mine']>[];
};

/** An edit that was kept, or came in a file: null where this Cordel cannot read it. Fields that older ones left out are filled in. */
export function readEdit(raw: unknown): DocumentEdit | null {
  const head = z
    .object({ kind: z.enum(Object.keys(schemas) as [DocumentKindName]), documentId: idSchema })
    .safeParse(raw);
  if (!head.success) return null;
  const body = z
    .object({ base: schemas[head.data.kind].nullable(), mine: schemas[head.data.kind].nullable() })
    .safeParse(raw);
  return body.success ? ({ ...head.data, ...body.data } as DocumentEdit) : null;
}

/** Whether two edits are of the same document. */
export function sameTarget(
  a: Pick<DocumentEdit, 'kind' | 'documentId'>,
  b: Pick<DocumentEdit, 'kind' | 'documentId'>,
): boolean {
  return a.kind === b.kind && a.documentId === b.documentId;
}

/** The part of a project that an edit of it is made from, as it is stored. */
export function settingsOf({ project }: Pick<ProjectDefinition, 'project'>): SettingsDocument {
  const { id: _, lineVersion: __, ...settings } = project;
  return settings;
}

/** See `settingsOf`. */
export function lineOf({ project, sites, cables }: ProjectDefinition): LineDocument {
  return { version: project.lineVersion, sites, cables };
}

/**
 * A project as it is with edits that the server does not have yet, in their order: what others stored since an edit was begun stands beside it, and the edit counts where both
 * changed the same. Edits of other documents, and of a project that is not given, change nothing. An edit that does not hold together with what others stored, say of a
 * closure whose site is gone, is left out: the server will refuse it, with words.
 * @param stored as the server has it; undefined: not at all, as far as is known
 */
export function withEdits(
  stored: ProjectDefinition | undefined,
  edits: readonly KeptEdit[],
): ProjectDefinition | undefined {
  const all = edits.reduce(withEdit, stored);
  if (!all || referenceProblems(all).length === 0) return all;
  return edits.reduce<ProjectDefinition | undefined>((before, edit) => {
    const after = withEdit(before, edit);
    return after && before && referenceProblems(after).length > 0 ? before : after;
  }, stored);
}

function withEdit(definition: ProjectDefinition | undefined, edit: KeptEdit): ProjectDefinition | undefined {
  if (edit.kind === 'project') return definition ?? edit.mine ?? undefined;
  if (!definition) return definition;
  switch (edit.kind) {
    case 'settings': {
      const settings = onTop(edit, settingsOf(definition));
      return settings ? { ...definition, project: { ...definition.project, ...settings } } : definition;
    }
    case 'line': {
      const line = onTop(edit, lineOf(definition));
      if (!line) return definition;
      const { version, sites, cables } = line;
      return { ...definition, project: { ...definition.project, lineVersion: version }, sites, cables };
    }
    case 'closure': {
      const there = definition.closures.find((one) => one.id === edit.documentId);
      const mine = there ? onTop(edit, there) : edit.mine;
      return { ...definition, closures: listWithEdit(definition.closures, { ...edit, mine }) };
    }
    default:
      return definition;
  }
}

/** What an edit makes of the document as it is there: on top of what somebody else stored after it was begun, and of what was sent from here before. */
function onTop<K extends 'settings' | 'line' | 'closure'>(
  { kind, base, mine, sent }: DocumentEdit<K> & Pick<KeptEdit, 'sent'>,
  there: DocumentKinds[K],
): DocumentKinds[K] | null {
  if (!base || !mine || there.version <= base.version) return mine as DocumentKinds[K] | null;
  const all = { base, mine, theirs: there, sent };
  return mergeDocuments<K>(kind as K, all as never, () => 'mine').merged;
}

/**
 * A project as it was before edits that it has: see `withEdits`.
 * @returns null where it was not there before them
 */
export function withoutEdits(
  shown: ProjectDefinition,
  edits: readonly DocumentEdit[],
): ProjectDefinition | null {
  return edits.reduceRight<ProjectDefinition | null>((definition, edit) => {
    if (edit.kind === 'project') return edit.base;
    // What others stored since it was begun stays.
    const before = { ...edit, base: edit.mine, mine: edit.base } as DocumentEdit;
    return definition && (withEdits(definition, [before]) ?? null);
  }, shown);
}

/** A list of documents as it is with edits of them. */
export function listWithEdits<K extends 'closure' | 'model' | 'gear'>(
  stored: readonly DocumentKinds[K][],
  edits: readonly DocumentEdit[],
  kind: K,
): DocumentKinds[K][] {
  return edits
    .filter((edit) => edit.kind === kind)
    .reduce<DocumentKinds[K][]>((list, edit) => listWithEdit(list, edit as never), [...stored]);
}

function listWithEdit<T extends { readonly id: string }>(
  list: readonly T[],
  { documentId, mine }: { readonly documentId: string; readonly mine: T | null },
): T[] {
  if (!mine) return list.filter((one) => one.id !== documentId);
  return list.some((one) => one.id === documentId)
    ? list.map((one) => (one.id === documentId ? mine : one))
    : [...list, mine];
}

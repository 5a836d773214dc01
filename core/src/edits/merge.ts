import type { DocumentEdit, DocumentKindName, DocumentKinds } from './documentEdit';

/**
 * Where in a document a field stands: names of fields, and in lists whose things have identifiers the identifier. "plan" of a closure is what only makes sense
 * together: its cables, trays, order and pins. Empty: the document as a whole.
 */
export type FieldPath = readonly string[];

/** A field that two people set to different values. undefined: not there. */
export interface FieldConflict {
  readonly path: FieldPath;
  /** Before either changed it; undefined also where that is not known. */
  readonly base: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}

/** Whose value a field gets. */
export type Side = 'mine' | 'theirs';

interface Shape {
  /** Fields that are objects whose own fields are decided one by one. */
  readonly inside?: readonly string[];
  /** Lists of things with identifiers. */
  readonly lists?: readonly string[];
  /** Fields that only make sense together, under one name. */
  readonly together?: { readonly [name: string]: readonly string[] };
}

const shapes: { readonly [K in Exclude<DocumentKindName, 'project'>]: Shape } = {
  settings: { inside: ['limits', 'nights'] },
  line: { lists: ['sites', 'cables'] },
  closure: { inside: ['lengths'], together: { plan: ['entries', 'trays', 'order', 'pins'] } },
  model: { inside: ['lengths'] },
  gear: { inside: ['rules', 'limits'] },
};

/** Not a person’s: the server counts versions, and identifiers stay. */
const ownFields = new Set(['id', 'version', 'lineVersion']);

type Fields = Readonly<Record<string, unknown>>;
type Listed = readonly Fields[];

/** Whether two values say the same, whatever the order of their fields; a field that is undefined is not there. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b))
    return (
      Array.isArray(a) &&
      Array.isArray(b) &&
      a.length === b.length &&
      a.every((one, index) => sameValue(one, b[index]))
    );
  const names = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...names].every((name) => sameValue((a as Fields)[name], (b as Fields)[name]));
}

/** Whether two documents of a kind say the same, in whatever versions. */
export function sameDocument(a: object | null, b: object | null): boolean {
  if (!a || !b) return a === b;
  const bare = (one: object) => ({ ...one, id: null, version: null, lineVersion: null });
  return sameValue(bare(a), bare(b));
}

/**
 * Brings together what two people made of one document. What only one changed is as they changed it; what both changed to different values is told, and decided
 * by `choose`. Where the common beginning is not known, every field in which they differ is told.
 * @param mine null: it is to be deleted
 * @param sent what was sent before, and may have been stored: what theirs has of it is nobody else's change
 * @returns the document in the version of `theirs`; null where it is to be deleted
 */
export function mergeDocuments<K extends Exclude<DocumentKindName, 'project'>>(
  kind: K,
  {
    base,
    mine,
    theirs,
    sent = [],
  }: Pick<DocumentEdit<K>, 'base' | 'mine'> & {
    readonly theirs: DocumentKinds[K];
    readonly sent?: readonly DocumentKinds[K][];
  },
  choose: (conflict: FieldConflict) => Side = () => 'theirs',
): { readonly merged: DocumentKinds[K] | null; readonly conflicts: readonly FieldConflict[] } {
  if (!mine) {
    if ([base, ...sent].some((one) => sameDocument(one, theirs))) return { merged: null, conflicts: [] };
    const conflict: FieldConflict = { path: [], base: base ?? undefined, mine: undefined, theirs };
    return { merged: choose(conflict) === 'mine' ? null : theirs, conflicts: [conflict] };
  }
  const shape = shapes[kind];
  const [before, now, other] = [base ?? {}, mine, theirs] as unknown as [Fields, Fields, Fields];
  const conflicts: FieldConflict[] = [];
  const merged = fieldPaths(shape, [other, now, before]).reduce((document, path) => {
    const conflict: FieldConflict = {
      path,
      base: read(shape, before, path),
      mine: read(shape, now, path),
      theirs: read(shape, other, path),
    };
    if (sameValue(conflict.mine, conflict.theirs)) return document;
    const was = (values: readonly unknown[]) => values.some((value) => sameValue(value, conflict.theirs));
    // Nobody else’s change: it came from here, or is as it was.
    if (was(sent.map((one) => read(shape, one as unknown as Fields, path))))
      return write(shape, document, path, conflict.mine);
    if (base !== null && sameValue(conflict.base, conflict.mine)) return document;
    if (base !== null && was([conflict.base])) return write(shape, document, path, conflict.mine);
    conflicts.push(conflict);
    return choose(conflict) === 'mine' ? write(shape, document, path, conflict.mine) : document;
  }, other);
  return { merged: merged as unknown as DocumentKinds[K], conflicts };
}

/** All fields that any of the documents has. A thing that one of them lacks is one field. */
function fieldPaths(
  { inside = [], lists = [], together = {} }: Shape,
  documents: readonly Fields[],
): FieldPath[] {
  const grouped = new Set(Object.values(together).flat());
  const names = namesIn(documents).filter((name) => !grouped.has(name));
  return [
    ...Object.keys(together).map((name) => [name]),
    ...names.flatMap((name): FieldPath[] => {
      const values = documents.flatMap((one) => (one[name] === undefined ? [] : [one[name]]));
      if (lists.includes(name)) return listPaths(name, values as unknown as readonly Listed[]);
      if (inside.includes(name))
        return namesIn(values as unknown as readonly Fields[]).map((field) => [name, field]);
      return [[name]];
    }),
  ];
}

function listPaths(name: string, lists: readonly Listed[]): FieldPath[] {
  const ids = [...new Set(lists.flatMap((list) => list.map((one) => String(one.id))))];
  return ids.flatMap((id): FieldPath[] => {
    const things = lists.flatMap((list) => list.filter((one) => one.id === id));
    if (things.length < lists.length) return [[name, id]];
    return namesIn(things).map((field) => [name, id, field]);
  });
}

const namesIn = (documents: readonly Fields[]) =>
  [...new Set(documents.flatMap((one) => Object.keys(one)))].filter((name) => !ownFields.has(name));

function read({ lists = [], together = {} }: Shape, document: Fields, [name, ...rest]: FieldPath): unknown {
  const group = together[name!];
  if (group) {
    const there = group.filter((field) => document[field] !== undefined);
    return there.length === 0
      ? undefined
      : Object.fromEntries(there.map((field) => [field, document[field]]));
  }
  const value = document[name!];
  if (rest.length === 0) return value;
  const [key, field] = rest;
  if (!lists.includes(name!)) return (value as Fields | undefined)?.[key!];
  const thing = (value as Listed | undefined)?.find((one) => one.id === key);
  return field === undefined ? thing : thing?.[field];
}

function write(shape: Shape, document: Fields, [name, ...rest]: FieldPath, value: unknown): Fields {
  const group = shape.together?.[name!];
  if (group)
    return group.reduce(
      (into, field) => withField(into, field, (value as Fields | undefined)?.[field]),
      document,
    );
  if (rest.length === 0) return withField(document, name!, value);
  const [key, field] = rest;
  if (!shape.lists?.includes(name!))
    return { ...document, [name!]: withField((document[name!] ?? {}) as Fields, key!, value) };
  const list = (document[name!] ?? []) as Listed;
  const changed = (thing: Fields) =>
    field === undefined ? ((value as Fields | undefined) ?? null) : withField(thing, field, value);
  const next = list.some((one) => one.id === key)
    ? list.flatMap((one) => (one.id === key ? (changed(one) ?? []) : [one]))
    : value === undefined
      ? list
      : [...list, value as Fields];
  return { ...document, [name!]: next };
}

function withField(document: Fields, name: string, value: unknown): Fields {
  const { [name]: _, ...others } = document;
  return value === undefined ? others : { ...document, [name]: value };
}

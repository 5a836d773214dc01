import type { DocumentEdit } from '@cordel/core/edits';
import type { NotKept, Store, StoredEntry } from './store';

/** What the engine needs of the server. */
export interface FactServer {
  /** Which of these the server has now, under which numbers, and which it will not take. Rejects where that is not known. */
  send(projectId: string, facts: readonly unknown[]): Promise<Receipt>;
  /** Facts of a project with numbers from `after` on, without a gap, in order; `last` is the number of the last. */
  page(projectId: string, after: number): Promise<FactPage>;
  /** Stores the picture of a photo, by the id of its fact. Resolves when the server has it. */
  sendPicture(projectId: string, id: string, bytes: ArrayBuffer): Promise<void>;
  /** A picture as the server keeps it, JPEG. Rejects where it has none. */
  picture(projectId: string, id: string, size: 'whole' | 'small'): Promise<ArrayBuffer>;
  /** The words with which it refused for good; null where it could not be reached, or is in trouble itself. */
  refusal(error: unknown): string | null;
}

export interface FactPage {
  readonly facts: readonly unknown[];
  readonly last: number;
  readonly more: boolean;
  /** In which numbering: another one than before, and a position in it means nothing. Servers of Cordel 0.1 do not say. */
  readonly numbering?: string;
  /** Number of the last fact that there is. */
  readonly end?: number;
}

export interface Receipt {
  readonly accepted: readonly { readonly id: string; readonly seq: number }[];
  readonly refused: readonly { readonly id: string; readonly message: string }[];
}

/** What became of an edit that was sent. */
export type EditAnswer =
  /** As the server has it now; null where it was deleted. */
  | { readonly stored: DocumentEdit['mine'] }
  /** Somebody else stored this first. */
  | { readonly theirs: NonNullable<DocumentEdit['mine']> }
  /** The words with which it refused for good. */
  | { readonly refused: string };

/** Where the engine runs. */
export interface Surroundings {
  /** The disk; or something in its place, and why the disk cannot be used. */
  readonly disk: Promise<{ readonly store: Store; readonly trouble: NotKept['why'] | null }>;
  readonly server: FactServer;
  /** Stores an edit of a document. Rejects where it is not known what became of it. */
  readonly sendEdit: (scope: string, edit: DocumentEdit) => Promise<EditAnswer>;
  /** The server has an edit: called before it is on its way no longer. */
  readonly onStored: (scope: string, edit: DocumentEdit, stored: DocumentEdit['mine']) => void;
  /** Runs work that only one tab of this device may do at a time. */
  readonly alone: (work: () => Promise<void>) => Promise<void>;
  /** To the other tabs of this device. `heard` of theirs is called with it. */
  readonly tell: (news: TabNews) => void;
  /** What an older version of the app left elsewhere on this device, to be moved over. `moved` is called when it is on the disk here. */
  readonly older: { readonly entries: () => readonly StoredEntry[]; readonly moved: () => void };
  /** Shows several changes at once. */
  readonly together: (work: () => void) => void;
  /** The server has something new of this device. */
  readonly onSent: (projectId: string) => void;
  /** ms since 1970. */
  readonly now: () => number;
}

/** Something changed on the disk: what was recorded or edited here, or what was read of a project. */
export type TabNews = { readonly entries: true } | { readonly edits: true } | { readonly project: string };

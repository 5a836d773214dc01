import { sameDocument, type DocumentEdit } from '@cordel/core/edits';
import type { EditAnswer } from '../src/sync/surroundings';
import { Unreachable } from './factServer';

type Document = NonNullable<DocumentEdit['mine']>;

/** A server that keeps documents under versions, as the real one does. */
export class DocumentServer {
  readonly stored = new Map<string, { readonly version: number; readonly document: Document }>();
  reachable = true;
  /** Stores, and its answer is lost. */
  losesAnswers = false;
  /** What it has against an edit. */
  against: (edit: DocumentEdit) => string | null = () => null;
  /** Between an edit's coming and its answer. */
  onCame: () => Promise<void> = () => Promise.resolve();
  /** Edits that came, in order. */
  readonly came: DocumentEdit[] = [];

  of<T extends Document>(documentId: string): T {
    return this.stored.get(documentId)!.document as T;
  }

  put(documentId: string, document: Document): void {
    const version = (this.stored.get(documentId)?.version ?? 0) + 1;
    this.stored.set(documentId, { version, document: { ...document, version } as Document });
  }

  readonly sendEdit = async (_scope: string, edit: DocumentEdit): Promise<EditAnswer> => {
    if (!this.reachable) throw new Unreachable();
    this.came.push(edit);
    const answer = this.answer(edit);
    await this.onCame();
    if (this.losesAnswers) throw new Unreachable();
    return answer;
  };

  private answer(edit: DocumentEdit): EditAnswer {
    const before = this.stored.get(edit.documentId);
    const refused = this.against(edit);
    if (refused !== null) return { refused };
    const version = edit.base && 'version' in edit.base ? edit.base.version : 0;
    if (before && (edit.base === null || version !== before.version))
      return sameDocument(before.document, edit.mine) && edit.kind === 'project'
        ? { stored: before.document }
        : { theirs: before.document };
    if (edit.mine) this.put(edit.documentId, edit.mine);
    else this.stored.delete(edit.documentId);
    return { stored: edit.mine && this.of(edit.documentId) };
  }
}

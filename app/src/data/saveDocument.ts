import type { DocumentEdit } from '@cordel/core/edits';
import { storeDocument } from '../sync/editServer';
import { engine, finalRefusal } from '../sync/here';
import { NotKept } from '../sync/store';
import { ProblemError } from './api';
import { Overtaken } from './bothTogether';
import { queryClient } from './client';
import { showStored } from './showStored';

/**
 * Saves an edit of a document: on the server where it answers; else, and behind edits of the same project that wait already, on the disk of this device, to be
 * sent. Rejects with the server's words where it refuses, and status 409 where somebody was quicker: then nothing is changed.
 * @param scope the project, or "" for what all projects share
 * @returns the document as it stands now
 */
export async function saveDocument<E extends DocumentEdit>(scope: string, edit: E): Promise<E['mine']> {
  const { edits } = engine();
  await edits.ready;
  const tried = edits.of(scope).length === 0;
  if (tried)
    try {
      const stored = await storeDocument(scope, edit);
      showStored(queryClient, scope, edit, stored);
      return stored;
    } catch (error) {
      // Where it was deleted there is nothing to bring it together with.
      if (error instanceof ProblemError && error.status === 409 && error.problem.current)
        throw new Overtaken(error, scope, edit);
      if (finalRefusal(error) !== null) throw error;
    }
  try {
    await engine().keepEdit(scope, edit, tried);
  } catch (error) {
    throw new Error(error instanceof NotKept && error.why === 'full' ? full : notKept, { cause: error });
  }
  return edit.mine;
}

const full =
  'Not saved: the server does not answer, and this device has no room left. What you typed is still here: make room, then save again.';
const notKept =
  'Not saved: the server does not answer, and this device could not keep it. What you typed is still here: try again when there is a network.';

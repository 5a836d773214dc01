import type { DocumentEdit } from '@cordel/core/edits';
import { sameTarget } from '@cordel/core/edits';
import { engine } from '../sync/here';
import { ProblemError } from './api';

/** Somebody else saved first. What was to be saved is told along, so that both can be brought together. */
export class Overtaken extends ProblemError {
  constructor(
    { message, status, problem }: ProblemError,
    readonly scope: string,
    readonly edit: DocumentEdit,
  ) {
    super(message, status, problem);
  }
}

/**
 * Keeps an edit that was overtaken, and brings it together with what was saved first. Resolves with the id of what the person has to decide; null where nobody changed
 * the same, so that both stand.
 */
export async function bringTogether({ scope, edit }: Overtaken): Promise<string | null> {
  await engine().keepEdit(scope, edit);
  await engine().push.tryNow();
  const kept = engine()
    .edits.of(scope)
    .find((one) => sameTarget(one, edit));
  return kept?.theirs ? kept.id : null;
}

import { Type } from '../ui/Type';
import type { Told } from './download';

/** What became of a document that was asked for. */
export function ToldWords({ told }: { told: Told | null }) {
  return told ? (
    <Type tone={told.failed ? 'accent' : 'ink'} role={told.failed ? 'alert' : 'status'}>
      {told.words}
    </Type>
  ) : null;
}

import { useEffect, useState } from 'react';
import { answerOf, api } from './api';
import { device } from './device';
import { engine } from '../sync/here';
import { getPreferences } from './preferences';

/** Somebody else who stands at a splice of this closure. */
export interface Other {
  readonly device: string;
  readonly by: string | null;
  readonly spliceId: string;
  /** UTC, when they came to it. */
  readonly since: string;
}

/** How long one stands at a splice before it is told, and how often it is told again. ms */
const settleMs = 300;
const againMs = 4000;

const nobody: readonly Other[] = [];

/**
 * Tells the server where one stands, and who else is at this closure and where. When somebody recorded something it is fetched at once. Quiet when
 * the network is away: then nobody is known of.
 */
export function useOthers(projectId: string, closureId: string, spliceId: string): readonly Other[] {
  const [others, setOthers] = useState(nobody);
  useEffect(() => {
    let gone = false;
    let timer: ReturnType<typeof setTimeout>;
    const tell = async () => {
      try {
        const answer = await answerOf<{ others: Other[]; last: number }>(
          api.projects[':projectId'].closures[':closureId'].here.$post({
            param: { projectId, closureId },
            json: { device, by: getPreferences().person.trim() || null, spliceId },
          }) as never,
        );
        if (gone) return;
        setOthers((before) =>
          JSON.stringify(before) === JSON.stringify(answer.others) ? before : answer.others,
        );
        if (answer.last > engine().pull.cursorOf(projectId)) void engine().pull.run(projectId);
      } catch {
        if (!gone) setOthers(nobody);
      }
      if (!gone) timer = setTimeout(() => void tell(), againMs);
    };
    timer = setTimeout(() => void tell(), settleMs);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [projectId, closureId, spliceId]);

  useEffect(
    () => () => {
      // Leaving the bench frees the splice for the others.
      void answerOf(
        api.projects[':projectId'].closures[':closureId'].here.$post({
          param: { projectId, closureId },
          json: { device, by: null, spliceId: null },
        }) as never,
      ).catch(() => undefined);
    },
    [projectId, closureId],
  );
  return others;
}

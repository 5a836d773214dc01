import { newNightsSetup, type NightsSetup, type Project, type ProjectDefinition } from '@cordel/core';
import { useState } from 'react';
import { Overtaken } from '../../data/bothTogether';
import { editedOf, useSaveSettings } from '../../data/projects';

/** Changes of what the nights are planned from that are saved at once, and can be taken back. */
export interface SetupChanges {
  readonly setup: NightsSetup;
  readonly saving: boolean;
  /** Why the last change was not kept. */
  readonly trouble: string | null;
  /** What was changed last, in words; null: nothing, or it was taken back. */
  readonly done: string | null;
  readonly change: (words: string, next: (setup: NightsSetup) => NightsSetup) => void;
  readonly undo: () => void;
}

interface Change {
  readonly words: string;
  readonly before: NightsSetup;
  readonly after: NightsSetup;
}

export function useSetupChanges({ project }: ProjectDefinition): SetupChanges {
  const save = useSaveSettings(project.id);
  const setup = project.nights ?? newNightsSetup;
  const [last, setLast] = useState<Change | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  /** Made on what is there; where somebody was quicker, once more on what they made. */
  const store = async (
    base: Project,
    next: (setup: NightsSetup) => NightsSetup,
    again = true,
  ): Promise<Omit<Change, 'words'>> => {
    const before = base.nights ?? newNightsSetup;
    const after = next(before);
    try {
      await save.mutateAsync({ base, settings: { ...editedOf(base), nights: after } });
      return { before, after };
    } catch (error) {
      const current = error instanceof Overtaken ? error.problem.current : null;
      if (!again || !current) throw error;
      return store(current as Project, next, false);
    }
  };
  const run = (next: (setup: NightsSetup) => NightsSetup, then: (made: Omit<Change, 'words'>) => void) => {
    setTrouble(null);
    store(project, next).then(then, (error: Error) => setTrouble(error.message));
  };
  return {
    setup,
    saving: save.isPending,
    trouble,
    done: last?.words ?? null,
    change: (words, next) => run(next, (made) => setLast({ words, ...made })),
    undo: () => {
      if (last)
        run(
          (now) => withoutChange(now, last),
          () => setLast(null),
        );
    },
  };
}

/** As it is now, with the fields that were changed as they were before: what others changed beside them stays. */
function withoutChange(now: NightsSetup, { before, after }: Change): NightsSetup {
  const fields = (Object.keys(after) as (keyof NightsSetup)[]).filter(
    (field) => after[field] !== before[field],
  );
  return { ...now, ...Object.fromEntries(fields.map((field) => [field, before[field]])) };
}

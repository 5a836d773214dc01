import { newNightsSetup, type NightsSetup, type ProjectDefinition } from '@cordel/core';
import { useState } from 'react';
import { useSaveSettings } from '../../data/projects';

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

export function useSetupChanges({ project }: ProjectDefinition): SetupChanges {
  const save = useSaveSettings(project.id);
  const setup = project.nights ?? newNightsSetup;
  const [last, setLast] = useState<{ readonly words: string; readonly before: NightsSetup } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const store = (nights: NightsSetup) => {
    const { id: _, version: __, lineVersion: ___, ...settings } = project;
    setTrouble(null);
    return save.mutateAsync({ base: project, settings: { ...settings, nights } }).then(
      () => true,
      (error: Error) => {
        setTrouble(error.message);
        return false;
      },
    );
  };
  return {
    setup,
    saving: save.isPending,
    trouble,
    done: last?.words ?? null,
    change: (words, next) =>
      void store(next(setup)).then((stored) => {
        if (stored) setLast({ words, before: setup });
      }),
    undo: () => {
      if (last)
        void store(last.before).then((stored) => {
          if (stored) setLast(null);
        });
    },
  };
}

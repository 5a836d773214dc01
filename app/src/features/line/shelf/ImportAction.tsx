import { router } from 'expo-router';
import { useState } from 'react';
import type { TakenHere } from '../../../data/handedFile';
import { useImportProject, type ImportProgress } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { FilePick } from '../../../ui/FilePick';
import { Sheet } from '../../../ui/Sheet';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { FileRefused } from '../../../shell/FileRefused';

/** Takes a project file: onto the server, or into the project that is here already; says line and field of what is not valid. */
export function ImportAction() {
  const [progress, setProgress] = useState<ImportProgress | null>(null);
  const importing = useImportProject(setProgress);
  const [failed, setFailed] = useState<Error | null>(null);
  const [taken, setTaken] = useState<TakenHere | null>(null);

  const take = async (file: File) => {
    try {
      const answer = await importing.mutateAsync(file);
      if ('records' in answer) setTaken(answer as TakenHere);
      else router.navigate(places.line(answer.id));
    } catch (error) {
      setFailed(error as Error);
    } finally {
      setProgress(null);
    }
  };
  return (
    <>
      <FilePick
        bench
        label="Import"
        spoken="Import a project file"
        accept=".json,application/json"
        what="Project file"
        busy={importing.isPending}
        {...(progress && progress.of > 0
          ? { busyWords: `${Math.round((100 * progress.done) / progress.of)} %` }
          : {})}
        onFile={(file) => void take(file)}
      />
      <FileRefused title="Not imported" error={failed} onClose={() => setFailed(null)} />
      <Sheet title={taken?.name ?? ''} open={taken !== null} onClose={() => setTaken(null)}>
        {taken ? <WhatCame taken={taken} /> : null}
      </Sheet>
    </>
  );
}

const counted = (count: number, one: string, many: string) =>
  `${count === 0 ? 'no' : count} ${count === 1 ? one : many}`;

function WhatCame({ taken: { id, fresh, records, changes, undecided } }: { taken: TakenHere }) {
  return (
    <>
      <Type>
        {fresh ? 'On this device now' : 'Brought together with what was here'}:{' '}
        {counted(records, 'record was new', 'records were new')},{' '}
        {counted(changes, 'change came along', 'changes came along')}. What the server does not have is sent
        from here too.
      </Type>
      {undecided > 0 ? (
        <>
          <Type tone="accent">
            {counted(undecided, 'thing was changed', 'things were changed')} on both devices. Neither is lost:
            decide.
          </Type>
          <Action bench label="Decide" onPress={() => router.navigate(places.waiting)} />
        </>
      ) : null}
      <Action bench kind="now" label="Open the project" onPress={() => router.navigate(places.line(id))} />
    </>
  );
}

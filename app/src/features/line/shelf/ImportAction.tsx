import { router } from 'expo-router';
import { useState } from 'react';
import { useImportProject, type ImportProgress } from '../../../data/projects';
import { FilePick } from '../../../ui/FilePick';
import { places } from '../../../shell/places';
import { FileRefused } from '../../../shell/FileRefused';

/** Takes a project file from this device to the server, and says line and field where it is not valid. */
export function ImportAction() {
  const [progress, setProgress] = useState<ImportProgress | null>(null);
  const importing = useImportProject(setProgress);
  const [failed, setFailed] = useState<Error | null>(null);

  const take = async (file: File) => {
    try {
      const { id } = await importing.mutateAsync(file);
      router.navigate(places.line(id));
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
    </>
  );
}

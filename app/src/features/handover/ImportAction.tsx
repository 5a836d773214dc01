import { router } from 'expo-router';
import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ProblemError } from '../../data/api';
import { useImportProject } from '../../data/projects';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { places } from '../line/places';

/** Takes a project file from this device to the server, and says line and field where it is not valid. */
export function ImportAction() {
  const input = useRef<HTMLInputElement>(null);
  const importing = useImportProject();
  const [failed, setFailed] = useState<Error | null>(null);

  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { id } = await importing.mutateAsync(await file.text());
      router.navigate(places.line(id));
    } catch (error) {
      setFailed(error as Error);
    }
  };

  const errors = failed instanceof ProblemError ? (failed.problem.errors ?? []) : [];
  return (
    <>
      <Action
        bench
        icon="upload"
        label={importing.isPending ? 'Reading …' : 'Import'}
        spoken="Import a project file"
        disabled={importing.isPending}
        onPress={() => input.current?.click()}
      />
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="Project file"
        style={{ display: 'none' }}
        onChange={(event) => {
          const file = event.target.files?.[0];
          // The same file can be picked again after it was mended.
          event.target.value = '';
          void take(file);
        }}
      />
      <Sheet title="Not imported" open={failed !== null} onClose={() => setFailed(null)}>
        <Type role="alert">{failed?.message ?? ''}</Type>
        {errors.length > 1 ? (
          <View style={styles.errors}>
            {errors.map((error, index) => (
              <Type key={index} look="small">
                {error.path}: {error.message}
              </Type>
            ))}
          </View>
        ) : null}
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({ errors: { gap: space.small } });

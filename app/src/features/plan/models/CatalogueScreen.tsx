import { shortened, shownNumber } from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { useDeleteModel, useImportModels, useModels, useSaveModel } from '../../../data/plan';
import { documents } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { FilePick } from '../../../ui/FilePick';
import { Screen } from '../../../shell/frame/Screen';
import { Sheet } from '../../../ui/Sheet';
import { Empty, Failed, Loading } from '../../../ui/States';
import { useCordelTheme } from '../../../ui/theme';
import { gutter, space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { download } from '../../../shell/download';
import { FileRefused } from '../../../shell/FileRefused';
import { places } from '../../../shell/places';

/** The catalogue of closure models: edited, copied, taken in and handed out as a file. A closure keeps its own copy. */
export function CatalogueScreen() {
  const { palette } = useCordelTheme();
  const models = useModels();
  const save = useSaveModel();
  const remove = useDeleteModel();
  const importing = useImportModels();
  const [removing, setRemoving] = useState<string | null>(null);
  const [failed, setFailed] = useState<Error | null>(null);
  const doomed = models.data?.find((model) => model.id === removing);

  const take = async (file: File) => {
    try {
      await importing.mutateAsync(file);
    } catch (error) {
      setFailed(error as Error);
    }
  };
  return (
    <Screen
      title="Closure models"
      subtitle="Generic and invented; change them to what you use"
      up={{ href: places.shelf, name: 'the shelf' }}
      foot={
        <View style={styles.foot}>
          <Action
            bench
            icon="add"
            label="New model"
            kind="now"
            onPress={() => router.navigate(places.model('new'))}
            style={styles.flex}
          />
        </View>
      }
    >
      <ScrollView contentContainerStyle={styles.list}>
        {models.error && !models.data ? (
          <Failed error={models.error} onRetry={() => void models.refetch()} />
        ) : !models.data ? (
          <Loading what="the models" />
        ) : models.data.length === 0 ? (
          <Empty title="No models" text="Make one, or take in a catalogue file." />
        ) : null}
        {models.data?.map((model) => (
          <View key={model.id} style={[styles.model, { borderColor: palette.hairline }]}>
            <Type look="heading">{model.name}</Type>
            <Type look="small" tone="soft">
              {model.kind} · {model.trays} {model.trays === 1 ? 'tray' : 'trays'} of {model.singleSlots}{' '}
              single or {model.ribbonSlots} ribbon sleeves ·{' '}
              {model.ports
                .map(
                  (port) =>
                    `${port.count} × ${port.name} ${shownNumber(port.from)} to ${shownNumber(port.to)} mm`,
                )
                .join(', ')}
            </Type>
            {model.about ? <Type look="small">{model.about}</Type> : null}
            <View style={styles.row}>
              <Action
                label="Edit"
                spoken={`Edit ${model.name}`}
                onPress={() => router.navigate(places.model(model.id))}
              />
              <Action
                label="Copy"
                spoken={`Copy ${model.name}`}
                onPress={() =>
                  save.mutate({
                    base: null,
                    model: {
                      ...model,
                      id: v7(),
                      name: `${shortened(model.name, 70)} (copy)`,
                      version: 1,
                    },
                  })
                }
              />
              <Action label="Delete" spoken={`Delete ${model.name}`} onPress={() => setRemoving(model.id)} />
            </View>
          </View>
        ))}
        <View style={styles.row}>
          <Action
            icon="download"
            label="Hand out (JSON)"
            onPress={() =>
              void download(documents.catalogue, null).then(
                (told) => told && setFailed(new Error(told.words)),
              )
            }
          />
          <FilePick
            label="Take in (JSON)"
            accept=".json,application/json"
            what="Catalogue file"
            busy={importing.isPending}
            onFile={(file) => void take(file)}
          />
        </View>
        {importing.data ? (
          <Type role="status">
            {importing.data.taken} {importing.data.taken === 1 ? 'model' : 'models'} taken in.
          </Type>
        ) : null}
      </ScrollView>
      <FileRefused title="Not taken in" error={failed} onClose={() => setFailed(null)} />
      <Sheet
        title={`Delete ${doomed?.name ?? ''}`}
        open={doomed !== undefined}
        onClose={() => setRemoving(null)}
      >
        <Type>Closures that were copied from it keep all they have.</Type>
        <Action
          kind="now"
          label="Delete it"
          onPress={() => remove.mutate(doomed!, { onSettled: () => setRemoving(null) })}
        />
      </Sheet>
    </Screen>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 860 },
  model: { gap: space.tight, borderBottomWidth: stroke.hair, paddingBottom: space.medium },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  foot: { padding: space.small, flexDirection: 'row', gap: space.small },
  flex: { flex: 1 },
});

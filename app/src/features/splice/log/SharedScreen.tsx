import { siteOf } from '@cordel/core';
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useProject, useShelf } from '../../../data/projects';
import { forgetShared, sharedLog } from '../../../data/shared';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import { Action } from '../../../ui/Action';
import { Picker } from '../../../ui/Picker';
import { Empty, Failed, Loading } from '../../../ui/States';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** A log that was shared to Cordel by another application: of which closure it is. */
export function SharedScreen() {
  const [name, setName] = useState<string | null | undefined>(undefined);
  useEffect(() => {
    void sharedLog().then(
      (file) => setName(file?.name ?? null),
      () => setName(null),
    );
  }, []);
  const { data, error, refetch } = useShelf();
  const [projectId, setProjectId] = useState<string | null>(null);
  const chosen = projectId ?? data?.shelf[0]?.project.id ?? null;
  return (
    <Screen title="A log that was shared" up={{ href: places.shelf, name: 'the shelf' }}>
      <ScrollView contentContainerStyle={styles.body} tabIndex={0}>
        {name === null ? (
          <Empty
            title="Nothing came"
            text="Share the log to Cordel once more, or pick it at the closure: Log, Pick the log. Before the first time Cordel has to be opened on this device."
          />
        ) : name === undefined || (!data && !error) ? (
          <Loading what="the log" />
        ) : error ? (
          <Failed error={error} onRetry={() => void refetch()} />
        ) : (
          <>
            <Type look="heading">{name}</Type>
            {chosen === null ? (
              <Type>There is no project on this device yet.</Type>
            ) : (
              <>
                <Picker
                  label="Project"
                  options={data!.shelf.map(({ project }) => ({ value: project.id, label: project.name }))}
                  value={chosen}
                  onChange={setProjectId}
                />
                <Closures projectId={chosen} />
              </>
            )}
            <Action
              label="Throw it away"
              onPress={() => void forgetShared().then(() => router.navigate(places.shelf))}
              style={styles.start}
            />
          </>
        )}
      </ScrollView>
    </Screen>
  );
}

function Closures({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  if (!definition)
    return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the project" />;
  return (
    <View style={styles.closures}>
      <Type look="smallStrong">Of which closure is it?</Type>
      {definition.closures.map((closure) => (
        <Action
          key={closure.id}
          bench
          label={siteOf(definition.sites, closure.siteId).name}
          onPress={() => router.navigate(places.log(projectId, closure.id, true))}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  body: { padding: space.large, gap: space.large },
  closures: { gap: space.small },
  start: { alignSelf: 'flex-start' },
});

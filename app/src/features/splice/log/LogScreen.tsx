import { siteOf } from '@cordel/core';
import type { MatchWhat } from '@cordel/core/machine';
import { useEffect, useMemo, useState } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { useClosure, type ClosureAtHand } from '../../../data/ledger';
import { sharedLog } from '../../../data/shared';
import { CordNav } from '../../../shell/frame/CordNav';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import { Action } from '../../../ui/Action';
import { Failed, Loading } from '../../../ui/States';
import { space } from '../../../ui/tokens';
import { useLatest } from '../../../ui/useLatest';
import { CompareRow } from './CompareRow';
import { MatchPart } from './MatchPart';
import { ReadPart } from './ReadPart';
import { SourcePart } from './SourcePart';
import { useLogImport } from './useLogImport';

/** Readings from a machine's log: how it is read, what it has beside what is on record, and what of it is recorded. */
export function LogScreen({
  projectId,
  closureId,
  shared,
}: {
  projectId: string;
  closureId: string;
  /** The log is the one that was shared to Cordel. */
  shared: boolean;
}) {
  const { atHand, error, retry } = useClosure(projectId, closureId);
  if (atHand) return <LogAt key={closureId} projectId={projectId} atHand={atHand} shared={shared} />;
  return (
    <Screen
      title="From a machine’s log"
      up={{ href: places.closure(projectId, closureId), name: 'the closure' }}
    >
      {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closure" />}
    </Screen>
  );
}

function LogAt({ projectId, atHand, shared }: { projectId: string; atHand: ClosureAtHand; shared: boolean }) {
  const { closure, definition, ledger } = atHand;
  const given = useLogImport(projectId, atHand);
  const open = useLatest(given.open);
  useEffect(() => {
    if (shared) void sharedLog().then((file) => file && open(file));
  }, [shared, open]);
  const [shown, setShown] = useState<MatchWhat | null>(null);
  const { matched, toStore, storing, left, taken, zone } = given;
  const rows = useMemo(
    () =>
      (matched?.matching.matches ?? [])
        .map((match, index) => ({ match, index }))
        .filter(({ match }) => shown === null || match.what === shown),
    [matched, shown],
  );
  const all = matched?.matching.matches.length ?? 0;
  return (
    <Panes cord={<CordNav definition={definition} closureId={closure.id} ledger={ledger} />}>
      <Screen
        title="From a machine’s log"
        subtitle={siteOf(definition.sites, closure.siteId).name}
        up={{ href: places.closure(projectId, closure.id), name: 'the closure' }}
        foot={
          matched ? (
            <View style={styles.foot}>
              <Action
                kind="now"
                bench
                label={
                  storing
                    ? 'Records it …'
                    : toStore === 0
                      ? 'Nothing to record'
                      : `Record ${toStore} of ${all}`
                }
                disabled={storing || toStore === 0}
                onPress={() => void given.store()}
              />
            </View>
          ) : undefined
        }
      >
        <FlatList
          data={rows}
          keyExtractor={({ index }) => String(index)}
          ListHeaderComponent={
            <View style={styles.head}>
              <SourcePart log={given} />
              <ReadPart log={given} />
              <MatchPart log={given} shown={shown} onShow={setShown} />
            </View>
          }
          initialNumToRender={12}
          contentContainerStyle={styles.body}
          renderItem={({ item: { match, index } }) => (
            <CompareRow
              match={match}
              log={matched!.log}
              ledger={ledger}
              zone={zone}
              left={left.has(index)}
              taken={taken.has(index)}
              onLeave={() => given.leave(index)}
              onTake={() => given.take(index)}
            />
          )}
        />
      </Screen>
    </Panes>
  );
}

const styles = StyleSheet.create({
  body: { padding: space.large },
  head: { gap: space.medium },
  foot: { padding: space.small },
});

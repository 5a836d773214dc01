import { findSplice, nextOnTray, siteOf, type TrayState } from '@cordel/core';
import { router } from 'expo-router';
import { useCallback } from 'react';
import { StyleSheet, View } from 'react-native';
import { useClosure, type ClosureAtHand } from '../../../data/ledger';
import { Action } from '../../../ui/Action';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { DeviceNotices } from '../../../shell/frame/SendStatus';
import { Empty, Failed, Loading } from '../../../ui/States';
import { space } from '../../../ui/tokens';
import { CordNav } from '../../../shell/frame/CordNav';
import { places } from '../../../shell/places';
import { TrayLedger } from './TrayLedger';
import { progressWords, waitingWords } from '../../../shell/words';

interface TrayScreenProps {
  projectId: string;
  closureId: string;
  tray: number;
}

/** A tray's whole cord: every slot with its fiber, loss and verdict, and the tray's numbers. */
export function TrayScreen({ projectId, closureId, tray }: TrayScreenProps) {
  const { atHand, error, retry } = useClosure(projectId, closureId);
  const up = { href: places.closure(projectId, closureId), name: 'the closure' };
  const state = atHand?.ledger.trays[tray - 1];
  if (!atHand)
    return (
      <Screen title={`Tray ${tray}`} up={up}>
        {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the tray" />}
      </Screen>
    );
  if (!state)
    return (
      <Screen title={`Tray ${tray}`} up={up}>
        <Empty
          title={`There is no tray ${tray}`}
          text={`This closure has ${atHand.ledger.trays.length} trays. Go up the cord and pick one.`}
        />
      </Screen>
    );
  return <TrayAt projectId={projectId} atHand={atHand} tray={state} />;
}

function TrayAt({ projectId, atHand, tray }: { projectId: string; atHand: ClosureAtHand; tray: TrayState }) {
  const { closure, definition, ledger } = atHand;
  const openSplice = useCallback(
    (spliceId: string) => {
      const { splice } = findSplice(ledger, spliceId)!;
      router.navigate(places.bench(projectId, closure.id, splice.tray, splice.slot));
    },
    [ledger, projectId, closure.id],
  );
  const next = nextOnTray(tray);
  return (
    <Panes cord={<CordNav definition={definition} closureId={closure.id} ledger={ledger} tray={tray.tray} />}>
      <Screen
        title={`Tray ${tray.tray}`}
        subtitle={[
          siteOf(definition.sites, closure.siteId).name,
          progressWords(tray.rollUp),
          waitingWords(tray.rollUp),
        ]
          .filter(Boolean)
          .join(' · ')}
        up={{ href: places.closure(projectId, closure.id), name: 'the closure' }}
        foot={
          next || tray.tally.read > 0 ? (
            <View style={styles.foot}>
              {tray.tally.read > 0 ? (
                <Action
                  bench
                  label="Measured losses"
                  style={styles.grow}
                  onPress={() => router.navigate(places.measure(projectId, closure.id, tray.tray))}
                />
              ) : null}
              {next ? (
                <Action
                  bench
                  kind="now"
                  style={styles.grow}
                  label={
                    next.verdict.mark === 'redo'
                      ? `Redo slot ${next.splice.slot}`
                      : `Splice slot ${next.splice.slot}`
                  }
                  onPress={() => openSplice(next.splice.id)}
                />
              ) : null}
            </View>
          ) : null
        }
      >
        <DeviceNotices />
        <TrayLedger atHand={atHand} tray={tray} onOpen={openSplice} />
      </Screen>
    </Panes>
  );
}

const styles = StyleSheet.create({
  foot: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small, padding: space.small },
  grow: { flexGrow: 1 },
});

import type { ClosureLedger, SpliceState, TrayState } from '@cordel/core';
import { useCallback, useEffect, useRef } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { Empty } from '../../../ui/States';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { RollUpTable } from '../../../shell/RollUpTable';
import { SpliceRow, stretchAfter } from './SpliceRow';
import { progressWords } from '../../../shell/words';

interface TrayLedgerProps {
  atHand: ClosureAtHand;
  tray: TrayState;
  /** The splice one stands on, where there is one. */
  hereId?: string;
  /** Who else stands at which splice. */
  others?: ReadonlyMap<string, string>;
  onOpen: (spliceId: string) => void;
  /** In the pane beside the bench it carries its own title. */
  titled?: boolean;
}

/** Every slot of a tray on its cord, and the tray's numbers below. */
export function TrayLedger({ atHand, tray, hereId, others, onOpen, titled = false }: TrayLedgerProps) {
  const { palette } = useCordelTheme();
  const list = useRef<FlatList<SpliceState>>(null);
  const { ledger, definition } = atHand;
  const cables = cablesOf(definition);
  const hereIndex = tray.splices.findIndex((state) => state.splice.id === hereId);

  useEffect(() => {
    if (hereIndex >= 0) list.current?.scrollToIndex({ index: hereIndex, viewPosition: 0.4, animated: false });
  }, [hereIndex]);

  const renderItem = useCallback(
    ({ item, index }: { item: SpliceState; index: number }) => (
      <SpliceRow
        state={item}
        cables={cables}
        limits={ledger.limits}
        above={index === 0 ? 'none' : stretchAfter(tray.splices[index - 1])}
        below={index === tray.splices.length - 1 ? 'none' : stretchAfter(item)}
        here={item.splice.id === hereId}
        other={others?.get(item.splice.id)}
        onPress={onOpen}
      />
    ),
    [cables, ledger.limits, tray, hereId, others, onOpen],
  );

  return (
    <View style={styles.ledger}>
      {titled ? (
        <View style={styles.title}>
          <Type look="title" role="heading" aria-level={2}>
            Tray {tray.tray}
          </Type>
          <Type tone="soft">{progressWords(tray.rollUp)}</Type>
        </View>
      ) : null}
      <FlatList
        ref={list}
        style={styles.list}
        data={tray.splices}
        keyExtractor={(state) => state.splice.id}
        renderItem={renderItem}
        initialNumToRender={24}
        windowSize={5}
        onScrollToIndexFailed={() => {}}
        ListEmptyComponent={
          <Empty
            title="Nothing on this tray"
            text="The order fills the trays before this one. Splices appear here when the order reaches it."
          />
        }
        ListFooterComponent={
          titled || tray.splices.length === 0 ? null : <RollUps ledger={ledger} tray={tray} />
        }
      />
      {titled ? (
        <View style={[styles.numbers, { borderTopColor: palette.ink }]}>
          <RollUps ledger={ledger} tray={tray} />
        </View>
      ) : null}
    </View>
  );
}

function RollUps({ ledger, tray }: { ledger: ClosureLedger; tray: TrayState }) {
  return (
    <View style={styles.rollUps}>
      <RollUpTable of="Tray" rollUp={tray.rollUp} ledger={ledger} />
    </View>
  );
}

const styles = StyleSheet.create({
  ledger: { flex: 1, minHeight: 0 },
  title: {
    flexDirection: 'row',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    padding: space.large,
    minHeight: 64,
  },
  list: { flex: 1 },
  numbers: { borderTopWidth: stroke.rule },
  rollUps: { paddingVertical: space.small },
});

import {
  fiberName,
  formatLoss,
  highestLoss,
  highestMeasured,
  lossLimit,
  markWords,
  type Cable,
  type Limits,
  type SpliceState,
} from '@cordel/core';
import { memo, useMemo } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { CordRow, type Stretch } from '../../../ui/Cord';
import { FiberToken, spokenFiber, UnitToken } from '../../../ui/FiberToken';
import { Knot } from '../../../ui/Knot';
import { LossBar } from '../../../ui/LossStrip';
import { useCordelTheme } from '../../../ui/theme';
import { space, touch } from '../../../ui/tokens';
import { SpokenOnly, Type } from '../../../ui/Type';
import { lossWords } from './words';

interface SpliceRowProps {
  state: SpliceState;
  cables: ReadonlyMap<string, Cable>;
  limits: Limits;
  above: Stretch;
  below: Stretch;
  here?: boolean;
  /** Who else stands here. */
  other?: string | undefined;
  onPress: (spliceId: string) => void;
}

/** A splice on its tray's cord: knot, fiber, loss against the limit, and the word. */
export const SpliceRow = memo(function SpliceRow({
  state,
  cables,
  limits,
  above,
  below,
  here = false,
  other,
  onPress,
}: SpliceRowProps) {
  const { palette, textScale } = useCordelTheme();
  const { splice, verdict } = state;
  const left = splice.left[0]!;
  const name = fiberName(cables.get(left.cableId)!, left.fiber);
  const loss = lossWords(state);
  const measured = highestMeasured(state.measured);
  const knot = useMemo(() => <Knot mark={verdict.mark} size={18} />, [verdict.mark]);
  const alarm = verdict.mark === 'redo';
  const word = other ? `${other} here` : here && verdict.mark === 'open' ? 'Now' : markWords[verdict.mark];
  return (
    <Pressable
      role="link"
      aria-current={here ? 'true' : undefined}
      onPress={() => onPress(splice.id)}
      style={here ? { backgroundColor: palette.sheet } : null}
    >
      <CordRow above={above} below={below} knot={knot} knotSize={18}>
        <View style={styles.row}>
          <View style={[styles.token, textScale > 1.2 && styles.tokenWide]}>
            {splice.kind === 'ribbon' && name.unitKind === 'ribbon' ? (
              <UnitToken unit={name.unit} color={name.unitColor} kind="ribbon" />
            ) : (
              <FiberToken name={name} />
            )}
          </View>
          {textScale > 1.2 ? (
            <View style={styles.spring} />
          ) : (
            <LossBar loss={highestLoss(state.readings)} limit={lossLimit(splice.kind, limits)} />
          )}
          <View style={styles.results}>
            <View style={styles.result}>
              {loss ? (
                <Type look="heading" tone={alarm ? 'accent' : 'ink'}>
                  {loss}
                </Type>
              ) : null}
              {loss ? (
                <Type look="small" tone="soft">
                  est.
                </Type>
              ) : null}
              <Type look="small" tone={alarm ? 'accent' : here ? 'ink' : 'soft'}>
                {word}
              </Type>
              <SpokenOnly text={`, slot ${splice.slot}, ${spokenFiber(name)}`} />
            </View>
            {measured === null ? null : <Type look="smallStrong">{`${formatLoss(measured)} meas.`}</Type>}
          </View>
        </View>
      </CordRow>
    </Pressable>
  );
});

/** The cord below a splice is inked when that splice is settled. */
export function stretchAfter(state: SpliceState | undefined): Stretch {
  if (!state) return 'none';
  return state.verdict.mark === 'open' || state.verdict.mark === 'redo' ? 'open' : 'done';
}

const styles = StyleSheet.create({
  row: {
    minHeight: touch.bench,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
  },
  token: { width: 132 },
  tokenWide: { width: 'auto', flexShrink: 1 },
  spring: { flex: 1 },
  results: { minWidth: 92, flexShrink: 1, alignItems: 'flex-end' },
  result: {
    flexShrink: 1,
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    justifyContent: 'flex-end',
    gap: space.small,
  },
});

import { fiberName, type Cable, type FiberEnd, type FiberName, type SpliceState } from '@cordel/core';
import { StyleSheet, View } from 'react-native';
import { FarText } from '../../../ui/FarText';
import { fiberLabel, FiberLength, HolderTokens, spokenFiber } from '../../../ui/FiberToken';
import { Knot } from '../../../ui/Knot';
import { far, space } from '../../../ui/tokens';
import { SpokenOnly, Type } from '../../../ui/Type';
import { RibbonStrip } from '../bench/RibbonStrip';

/** The names of what meets: of a ribbon its first fiber on each side. */
export function leftAndRight(
  { splice }: SpliceState,
  cables: ReadonlyMap<string, Cable>,
): { left: FiberName; right: FiberName } {
  const name = ({ cableId, fiber }: FiberEnd) => fiberName(cables.get(cableId)!, fiber);
  return { left: name(splice.left[0]!), right: name(splice.right[0]!) };
}

/** The pair that is laid in next, to be read at two meters: number and color in letters beside the glass. */
export function FarPair({
  state,
  cables,
  title,
}: {
  state: SpliceState;
  cables: ReadonlyMap<string, Cable>;
  title: string;
}) {
  const { splice, verdict } = state;
  const { left, right } = leftAndRight(state, cables);
  const ribbon = splice.left.length > 1;
  const ribbonOf = (ends: readonly FiberEnd[]) => `ribbon, fibers ${ends[0]!.fiber} to ${ends.at(-1)!.fiber}`;
  const label = (name: FiberName) =>
    ribbon ? `${name.unit} ${name.unitColor.code}` : `${name.fiber} ${name.fiberColor.code}`;
  const color = (name: FiberName) => (ribbon ? name.unitColor : name.fiberColor);
  return (
    <View
      role="group"
      aria-label={`${title}: ${spokenFiber(left)} to ${spokenFiber(right)}`}
      style={styles.pair}
    >
      <Type look="heading">{title}</Type>
      <View style={styles.row} aria-hidden>
        <View style={styles.holders}>
          {ribbon ? <Type look="small">{ribbonOf(splice.left)}</Type> : <HolderTokens name={left} />}
        </View>
        <View style={[styles.holders, styles.right]}>
          {ribbon ? <Type look="small">{ribbonOf(splice.right)}</Type> : <HolderTokens name={right} />}
        </View>
      </View>
      <View style={styles.row} aria-hidden>
        <View style={styles.side}>
          <FarText text={label(left)} most={far.pair} />
        </View>
        <View style={styles.side}>
          <FarText text={label(right)} most={far.pair} align="right" />
        </View>
      </View>
      <View style={styles.glass} aria-hidden>
        <FiberLength color={color(left)} side="left" />
        <Knot mark={verdict.mark} size={36} />
        <FiberLength color={color(right)} side="right" />
      </View>
      {ribbon ? (
        <RibbonStrip
          splice={splice}
          cables={cables}
          losses={state.readings.map((one) => one.loss)}
          fiber={0}
        />
      ) : (
        <View style={styles.row} aria-hidden>
          <Type look="small" tone="soft">
            {fiberLabel(left)}
          </Type>
          <Type look="small" tone="soft">
            {fiberLabel(right)}
          </Type>
        </View>
      )}
      <SpokenOnly text={ribbon ? `Ribbon of ${splice.left.length}` : ''} />
    </View>
  );
}

const styles = StyleSheet.create({
  pair: { gap: space.tight },
  row: { flexDirection: 'row', justifyContent: 'space-between', gap: space.medium },
  side: { flex: 1 },
  holders: { flexShrink: 1, flexDirection: 'row', flexWrap: 'wrap', columnGap: space.medium },
  right: { justifyContent: 'flex-end' },
  glass: { flexDirection: 'row', alignItems: 'center', gap: space.tight },
});

import {
  cleaveReasons,
  fiberName,
  formatAngle,
  markWords,
  type Cable,
  type Limits,
  type SpliceState,
} from '@cordel/core';
import { memo } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { FiberLength, fiberLabel, HolderTokens, spokenFiber } from '../../ui/FiberToken';
import { Knot } from '../../ui/Knot';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import type { Details } from './useBench';
import { RibbonStrip } from './RibbonStrip';
import { lossWords, nextTry, redosWords } from './words';

interface SpliceCardProps {
  state: SpliceState;
  cables: ReadonlyMap<string, Cable>;
  limits: Limits;
  details: Details;
  /** Losses of a ribbon's fibers that are read so far, dB. */
  read: readonly number[];
  /** Redos that the slack still allows; null while unknown. */
  redos: number | null;
  /** Somebody is asked how the ribbon lies: the answer is on the glass, and not on the screen. */
  asked: boolean;
  onHistory: () => void;
}

/** The splice at hand: which two fibers meet, and what stands against it so far. */
export const SpliceCard = memo(function SpliceCard({
  state,
  cables,
  limits,
  details,
  read,
  redos,
  asked,
  onHistory,
}: SpliceCardProps) {
  const { palette } = useCordelTheme();
  const { splice, facts, verdict } = state;
  const fiber = read.length;
  const ends = { left: splice.left[fiber]!, right: splice.right[fiber]! };
  const cable = { left: cables.get(ends.left.cableId)!, right: cables.get(ends.right.cableId)! };
  const name = {
    left: fiberName(cable.left, ends.left.fiber),
    right: fiberName(cable.right, ends.right.fiber),
  };
  const redo = verdict.mark === 'redo';
  const before = cleaveReasons(details, limits);
  return (
    <View
      role="group"
      aria-label={`Splice ${spokenFiber(name.left)} of ${cable.left.label} to ${spokenFiber(name.right)} of ${cable.right.label}`}
      style={[
        styles.card,
        { backgroundColor: palette.sheet, borderColor: redo ? palette.accent : palette.ink },
      ]}
    >
      {redo ? (
        <View style={[styles.redo, { backgroundColor: palette.accent }]}>
          <Type look="heading" tone="onAccent">
            Redo. {nextTry(state, limits)}
          </Type>
          {splice.kind === 'ribbon' ? (
            <Type look="small" tone="onAccent">
              The whole ribbon: new ends on both sides, and slack from all its fibers.
            </Type>
          ) : null}
          {redos === null ? null : (
            <Type look="small" tone="onAccent">
              {redosWords(redos)}
            </Type>
          )}
          {verdict.reasons.map((reason) => (
            <Type key={reason.code + reason.fiber} look="small" tone="onAccent">
              {reason.message}
            </Type>
          ))}
        </View>
      ) : null}
      <View style={styles.cables}>
        <Type look="small" tone="soft" style={styles.cable} numberOfLines={2}>
          {cable.left.label}
        </Type>
        <Type look="small" tone="soft" style={[styles.cable, styles.right]} numberOfLines={2}>
          {cable.right.label}
        </Type>
      </View>
      <View style={styles.cables}>
        <View style={styles.holders}>
          <HolderTokens name={name.left} />
        </View>
        <View style={[styles.holders, styles.holdersRight]}>
          <HolderTokens name={name.right} />
        </View>
      </View>
      {asked ? null : (
        <>
          <View style={styles.glass} aria-hidden>
            <FiberLength color={name.left.fiberColor} side="left" />
            <Knot mark={verdict.mark} size={28} />
            <FiberLength color={name.right.fiberColor} side="right" />
          </View>
          <View style={styles.cables}>
            <Type look="key">{fiberLabel(name.left)}</Type>
            <Type look="key" style={styles.right}>
              {fiberLabel(name.right)}
            </Type>
          </View>
          {splice.kind === 'ribbon' ? (
            <RibbonStrip
              splice={splice}
              cables={cables}
              losses={
                read.length > 0 || state.readings.length === 0 ? read : state.readings.map((one) => one.loss)
              }
              fiber={fiber}
            />
          ) : null}
        </>
      )}
      {before.map((reason) => (
        <Type key={reason.code} look="strong" tone="accent" role="alert">
          {reason.message}
        </Type>
      ))}
      <View style={styles.below}>
        <Type look="small" tone="soft" style={styles.grow}>
          {[
            splice.left.length > 1 ? `fiber ${fiber + 1} of ${splice.left.length} in the ribbon` : null,
            splice.circuit,
            details.cleaveLeft === null ? null : `left ${formatAngle(details.cleaveLeft)}`,
            details.cleaveRight === null ? null : `right ${formatAngle(details.cleaveRight)}`,
            details.proofTestFailed ? 'proof test failed' : null,
            details.sleeveForgotten ? 'sleeve forgotten' : null,
            details.note ? 'note added' : null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Type>
        {facts.length > 0 ? (
          <Pressable role="button" onPress={onHistory} style={styles.history}>
            <Type look="smallStrong" style={styles.link}>
              {verdict.tries > 0
                ? `${markWords[verdict.mark]}${lossWords(state) ? ` ${lossWords(state)} dB` : ''} · ${verdict.tries} ${verdict.tries === 1 ? 'try' : 'tries'}`
                : 'Taken back'}
            </Type>
          </Pressable>
        ) : null}
      </View>
    </View>
  );
});

const styles = StyleSheet.create({
  card: { borderWidth: stroke.rule, paddingBottom: space.tight, gap: space.small, overflow: 'hidden' },
  redo: { padding: space.medium, gap: space.hair },
  cables: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    alignItems: 'center',
    gap: space.medium,
    paddingHorizontal: space.medium,
    marginTop: space.tight,
  },
  cable: { flex: 1 },
  holders: { flexShrink: 1, flexDirection: 'row', flexWrap: 'wrap', columnGap: space.medium },
  holdersRight: { justifyContent: 'flex-end' },
  right: { textAlign: 'right' },
  glass: { flexDirection: 'row', alignItems: 'center', gap: space.tight },
  below: {
    flexDirection: 'row',
    alignItems: 'center',
    flexWrap: 'wrap',
    gap: space.small,
    paddingHorizontal: space.medium,
    minHeight: 20,
  },
  grow: { flex: 1 },
  history: { minHeight: touch.normal, justifyContent: 'center', flexShrink: 1 },
  link: { textDecorationLine: 'underline' },
});

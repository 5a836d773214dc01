import {
  adviceWords,
  fiberName,
  formatAngle,
  highestLoss,
  highestMeasured,
  markWords,
  reasonWords,
  sleeveWords,
  type Cable,
  type Joint,
  type Limits,
  type SpliceState,
} from '@cordel/core';
import { adviceLine, adviceShort, type SpliceAdvice } from '@cordel/core/advice';
import { programWarningWords, type ArcAdvice, type ProgramWarning } from '@cordel/core/gear';
import { memo, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { FiberLength, fiberLabel, HolderTokens, spokenFiber } from '../../../ui/FiberToken';
import { Knot } from '../../../ui/Knot';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { Details } from './types';
import { RibbonStrip } from './RibbonStrip';
import { lossTold } from '../../../shell/words';
import { nextTry, redosWords } from '../record/words';

interface SpliceCardProps {
  state: SpliceState;
  cables: ReadonlyMap<string, Cable>;
  limits: Limits;
  details: Details;
  /** What to do before the arc; null where nothing was looked at. */
  advice: ArcAdvice | null;
  /** Programs that are on and do not fit. */
  warnings: readonly ProgramWarning[];
  onSwitch: (warning: ProgramWarning) => void;
  /** Drops, pigtails and connectors: how this one is joined. */
  joint: Joint;
  /** What the hands need to know, in one line. */
  hands: string;
  /** Who else stands at this splice. */
  other: string | null;
  onPass: () => void;
  /** Losses of a ribbon's fibers that are read so far, dB. */
  read: readonly number[];
  /** Redos that the slack still allows; null while unknown. */
  redos: number | null;
  /** What to do with it, and the odds; null while that is not known. */
  advised: SpliceAdvice | null;
  onWhy: () => void;
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
  advice,
  warnings,
  onSwitch,
  joint,
  hands,
  other,
  onPass,
  read,
  redos,
  advised,
  onWhy,
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
  const told = lossTold(highestLoss(state.readings), highestMeasured(state.measured));
  const redo = verdict.mark === 'redo';
  const seen = details.before[fiber] ?? null;
  // Each alone has room; together they would push the glass out of sight.
  const crowded = (redo ? 1 : 0) + (other ? 1 : 0) + warnings.length + (advice ? 1 : 0) > 1;
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
        <RedoHead
          title={`Redo. ${nextTry(state, limits)}`}
          lines={[
            ...verdict.reasons.map(reasonWords),
            ...(advised ? [adviceLine(advised)] : redos === null ? [] : [redosWords(redos)]),
            ...(splice.kind === 'ribbon'
              ? ['The whole ribbon: new ends on both sides, and slack from all its fibers.']
              : []),
          ]}
          short={[...verdict.reasons.slice(0, 1).map(reasonWords), advised ? adviceShort(advised) : ''].join(
            ' ',
          )}
          folded={crowded}
        />
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
      {other ? (
        <Warning
          text={`${other} stands at this splice. Agree on who takes it.`}
          action="The next free one"
          folded={crowded}
          onPress={onPass}
        />
      ) : null}
      {warnings.map((warning) => (
        <Warning
          key={warning.what}
          text={programWarningWords(warning)}
          action={warning.fitting ? `Switched to “${warning.fitting}”` : null}
          folded={crowded}
          onPress={() => onSwitch(warning)}
        />
      ))}
      {advice ? (
        <View style={styles.line} role="alert">
          <Type look="strong" tone={advice.action === 'fuse' ? 'ink' : 'accent'}>
            {adviceWords(advice)}
          </Type>
        </View>
      ) : null}
      <View style={styles.below}>
        <Type look="small" tone="soft" style={styles.grow}>
          {[
            splice.left.length > 1 ? `fiber ${fiber + 1} of ${splice.left.length} in the ribbon` : null,
            splice.circuit,
            jointWords(joint),
            hands,
            seen?.cleaveLeft == null ? null : `left ${formatAngle(seen.cleaveLeft)}`,
            seen?.cleaveRight == null ? null : `right ${formatAngle(seen.cleaveRight)}`,
            details.sleeveConfirmed ? 'sleeve on' : null,
            details.proofTestFailed ? 'proof test failed' : null,
            details.sleeveForgotten ? 'sleeve forgotten' : null,
            details.note ? 'note added' : null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Type>
        {advised ? (
          <Pressable role="button" onPress={onWhy} style={styles.history}>
            <Type look="smallStrong" style={styles.link}>
              Why?
            </Type>
          </Pressable>
        ) : null}
        {facts.length > 0 ? (
          <Pressable role="button" onPress={onHistory} style={styles.history}>
            <Type look="smallStrong" style={styles.link}>
              {verdict.tries > 0
                ? `${markWords[verdict.mark]}${told ? ` ${told}` : ''} · ${verdict.tries} ${verdict.tries === 1 ? 'try' : 'tries'}`
                : 'Taken back'}
            </Type>
          </Pressable>
        ) : null}
      </View>
    </View>
  );
});

/** What differs from a splice of two cables. */
function jointWords({ kind, sleeve, small }: Joint): string | null {
  if (kind === 'mechanical') return 'mechanical connector';
  if (kind === 'fusion-connector') return `fused connector, ${sleeveWords.connector}`;
  return small && sleeve ? sleeveWords[sleeve] : null;
}

/** Why it is to be done again. Folded to one line it says the first reason and the odds; the rest with a tap. */
function RedoHead({
  title,
  lines,
  short,
  folded,
}: {
  title: string;
  lines: readonly string[];
  short: string;
  folded: boolean;
}) {
  const { palette } = useCordelTheme();
  const [open, setOpen] = useState(false);
  const all = !folded || open;
  const block = (
    <>
      <Type look="heading" tone="onAccent">
        {title}
      </Type>
      {all ? (
        lines.map((line) => (
          <Type key={line} look="small" tone="onAccent">
            {line}
          </Type>
        ))
      ) : (
        <Type look="small" tone="onAccent" numberOfLines={1}>
          {short}
        </Type>
      )}
    </>
  );
  const style = [styles.redo, { backgroundColor: palette.accent }];
  return folded ? (
    <Pressable role="button" aria-expanded={open} onPress={() => setOpen(!open)} style={style}>
      {block}
    </Pressable>
  ) : (
    <View style={style}>{block}</View>
  );
}

/** Folded it is one line, which opens to all of it and what can be done. */
function Warning({
  text,
  action,
  folded,
  onPress,
}: {
  text: string;
  action: string | null;
  folded: boolean;
  onPress: () => void;
}) {
  const { palette } = useCordelTheme();
  const [open, setOpen] = useState(false);
  if (folded && !open)
    return (
      <View role="alert">
        <Pressable
          role="button"
          aria-expanded={false}
          onPress={() => setOpen(true)}
          style={[styles.warning, styles.one, { borderColor: palette.accent }]}
        >
          <Type look="strong" tone="accent" numberOfLines={1} style={styles.oneLine}>
            {text}
          </Type>
        </Pressable>
      </View>
    );
  return (
    <View role="alert" style={[styles.warning, { borderColor: palette.accent }]}>
      <Type look="strong" tone="accent" style={styles.warningWords}>
        {text}
      </Type>
      {action ? <Action bench label={action} onPress={onPress} /> : null}
    </View>
  );
}

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
  line: { paddingHorizontal: space.medium },
  warning: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: space.small,
    marginHorizontal: space.small,
    padding: space.small,
    borderWidth: stroke.rule,
    borderStyle: 'dashed',
  },
  warningWords: { flexGrow: 1, flexBasis: 160 },
  one: { minHeight: touch.bench, flexWrap: 'nowrap' },
  oneLine: { flex: 1 },
  history: { minHeight: touch.bench, justifyContent: 'center', flexShrink: 1 },
  link: { textDecorationLine: 'underline' },
});

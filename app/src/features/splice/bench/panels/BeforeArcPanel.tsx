import { adviceWords, cleaveAngleRefusal, formatAngle, micrometers } from '@cordel/core';
import { nothingSeen, type ArcAdvice, type BeforeArc } from '@cordel/core/gear';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../../../ui/Action';
import { useCordelTheme } from '../../../../ui/theme';
import { space, stroke, touch } from '../../../../ui/tokens';
import { Type } from '../../../../ui/Type';

interface BeforeArcPanelProps {
  before: readonly (BeforeArc | undefined)[];
  fibers: number;
  advice: ArcAdvice | null;
  onChange: (before: readonly (BeforeArc | undefined)[]) => void;
  /** New ends were cut: so many of them. */
  onRecleaved: (ends: number) => void;
  onDone: () => void;
}

interface Measure {
  readonly name: keyof BeforeArc;
  readonly label: string;
  /** What the first tap sets, and how far the next ones move it. */
  readonly first: number;
  readonly step: number;
  readonly most: number;
  readonly words: (value: number) => string;
}

const measures: readonly (readonly Measure[])[] = [
  [
    { name: 'cleaveLeft', label: 'Cleave left', first: 0.5, step: 0.1, most: 45, words: formatAngle },
    { name: 'cleaveRight', label: 'Cleave right', first: 0.5, step: 0.1, most: 45, words: formatAngle },
  ],
  [
    { name: 'offset', label: 'Axis offset', first: 0.5, step: 0.1, most: 100, words: micrometers },
    { name: 'gap', label: 'Gap', first: 10, step: 1, most: 500, words: micrometers },
  ],
];

/** What the machine shows before the arc, fiber by fiber where it is given, and what to do about it. In the pad's place. */
export function BeforeArcPanel({
  before,
  fibers,
  advice,
  onChange,
  onRecleaved,
  onDone,
}: BeforeArcPanelProps) {
  const [fiber, setFiber] = useState(0);
  const seen = before[fiber] ?? nothingSeen;
  const put = (change: Partial<BeforeArc>) =>
    onChange(
      Array.from({ length: fibers }, (_, index) =>
        index === fiber ? { ...seen, ...change } : before[index],
      ),
    );
  const sides = recleaved(advice);
  const again = () => {
    onRecleaved(fibers * sides.length);
    // What was seen of the ends that are gone; and they lie anew.
    const gone = {
      ...(sides.includes('left') ? { cleaveLeft: null } : {}),
      ...(sides.includes('right') ? { cleaveRight: null } : {}),
      offset: null,
      gap: null,
    };
    onChange(before.map((one) => one && { ...one, ...gone }));
  };
  return (
    <View style={styles.panel}>
      {fibers > 1 ? (
        <View style={styles.row} role="group" aria-label="Fiber of the ribbon">
          <Action
            bench
            label="‹"
            spoken="The fiber before"
            disabled={fiber === 0}
            onPress={() => setFiber(fiber - 1)}
            style={styles.arrow}
          />
          <Type look="heading" aria-live="polite" style={styles.fiber}>
            Fiber {fiber + 1} of {fibers}
          </Type>
          <Action
            bench
            label="›"
            spoken="The next fiber"
            disabled={fiber === fibers - 1}
            onPress={() => setFiber(fiber + 1)}
            style={styles.arrow}
          />
          <Action
            bench
            label="Same for all"
            onPress={() => onChange(Array.from({ length: fibers }, () => seen))}
            style={styles.same}
          />
        </View>
      ) : null}
      {measures.map((pair) => (
        <View key={pair[0]!.name} style={styles.row}>
          {pair.map((measure) => (
            <Stepper
              key={measure.name}
              measure={measure}
              value={seen[measure.name]}
              onChange={(value) => put({ [measure.name]: value })}
            />
          ))}
        </View>
      ))}
      <View style={styles.row}>
        <View style={styles.advice} role="status" aria-live="polite">
          <Type look="strong" tone={advice && !isGood(advice) ? 'accent' : 'ink'}>
            {advice ? adviceWords(advice) : ''}
          </Type>
        </View>
        {sides.length > 0 ? (
          <Action
            bench
            label={`Recleaved ${sides.length === 2 ? 'both' : sides[0]}`}
            onPress={again}
            style={styles.done}
          />
        ) : null}
        <Action bench kind="now" label="Back to the pad" onPress={onDone} style={styles.done} />
      </View>
    </View>
  );
}

/** The sides that are to be cleaved again. */
function recleaved(advice: ArcAdvice | null): readonly ('left' | 'right')[] {
  switch (advice?.action) {
    case 'recleave-left':
      return ['left'];
    case 'recleave-right':
      return ['right'];
    case 'recleave-both':
      return ['left', 'right'];
    default:
      return [];
  }
}

const isGood = ({ action }: ArcAdvice) => action === 'fuse' || action === 'look';

function Stepper({
  measure: { name, label, first, step, most, words },
  value,
  onChange,
}: {
  measure: Measure;
  value: number | null;
  onChange: (value: number | null) => void;
}) {
  const { palette, textScale } = useCordelTheme();
  const move = (by: number) => {
    const next = value === null ? first : Math.round((value + by) * 10) / 10;
    const angle = name === 'cleaveLeft' || name === 'cleaveRight';
    if (next >= 0 && next <= most && (!angle || cleaveAngleRefusal(next) === null)) onChange(next);
  };
  const box = [styles.step, { borderColor: palette.ink, backgroundColor: palette.sheet }];
  return (
    <View role="group" aria-label={label} style={[styles.stepper, textScale > 1.2 && styles.alone]}>
      <Type look="smallStrong">{label}</Type>
      <View style={styles.keys}>
        <Pressable role="button" aria-label={`Less, ${label}`} style={box} onPress={() => move(-step)}>
          <Type look="key">−</Type>
        </Pressable>
        <Pressable
          role="button"
          aria-label={value === null ? `– ${label}, not looked at` : `${words(value)}, clear ${label}`}
          style={styles.value}
          onPress={() => onChange(value === null ? first : null)}
        >
          <Type look="strong">{value === null ? '–' : words(value)}</Type>
        </Pressable>
        <Pressable role="button" aria-label={`More, ${label}`} style={box} onPress={() => move(step)}>
          <Type look="key">+</Type>
        </Pressable>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.small },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
  arrow: { width: touch.bench },
  fiber: { flexGrow: 1, textAlign: 'center' },
  same: { flexGrow: 1 },
  stepper: { flexGrow: 1, flexBasis: 170, gap: space.hair },
  alone: { flexBasis: '100%' },
  keys: { flexDirection: 'row', alignItems: 'center', gap: space.tight },
  step: {
    width: touch.bench,
    minHeight: touch.bench,
    borderWidth: stroke.rule,
    alignItems: 'center',
    justifyContent: 'center',
  },
  value: {
    flexGrow: 1,
    minWidth: touch.bench,
    minHeight: touch.bench,
    alignItems: 'center',
    justifyContent: 'center',
  },
  advice: { flexGrow: 1, flexBasis: 170 },
  done: { flexGrow: 1, flexBasis: 130 },
});

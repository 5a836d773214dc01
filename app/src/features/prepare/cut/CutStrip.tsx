import {
  formatTape,
  isDone,
  tapeFigure,
  tickTargets,
  type Cable,
  type PrepareState,
  type Units,
} from '@cordel/core';
import { type CutMark, type CutSheet } from '@cordel/core/prepare';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { Line, Polyline, Rect, Text as SvgText } from 'react-native-svg';
import { Knot } from '../../../ui/Knot';
import { useCordelTheme } from '../../../ui/theme';
import { faces, space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { CableInStrip } from './CableInStrip';
import { spreadLabels, tapeStep } from './spreadLabels';

const pad = 16;
/** Height of the strip where the labels do not need more. */
const usualHeight = 560;

interface CutStripProps {
  sheet: CutSheet;
  cable: Cable;
  units: Units;
  state: PrepareState;
  selected: string | null;
  /** Where the two ends of the strip lead, for a cable that goes through. */
  toward?: { readonly low: string; readonly high: string } | undefined;
  onSelect: (markId: string) => void;
}

/** Where a mark's label hangs on: a cut where it is, a length in its middle. */
function anchorOf(mark: CutMark): number {
  return mark.to === undefined || mark.kind === 'outside' || mark.kind === 'ripcord'
    ? mark.at
    : (mark.at + mark.to) / 2;
}

/** Large enough for an arm's length: only the figure, since the tape beside it says from where. */
function measureWords(mark: CutMark, units: Units): string {
  const tape = (at: number) => formatTape(Math.abs(at), units);
  if (mark.id === 'whole') return '';
  return mark.to === undefined
    ? tape(mark.at)
    : `${tapeFigure(Math.abs(mark.at), units)} to ${tape(mark.to)}`;
}

/** The cable to scale with a tape beside it, and every mark with its label; a tap says why it is there. */
export function CutStrip({ sheet, cable, units, state, selected, toward, onSelect }: CutStripProps) {
  const { palette, textScale, size } = useCordelTheme();
  const [measured, setMeasured] = useState<ReadonlyMap<string, number>>(new Map());
  const { from, to } = sheet.drawn;
  const placed = sheet.marks
    .map((mark, index) => ({ mark, number: index + 1 }))
    .sort((a, b) => anchorOf(a.mark) - anchorOf(b.mark) || a.number - b.number);
  const heights = placed.map(({ mark }) => measured.get(mark.id) ?? 60 * textScale);
  const needed = heights.reduce((sum, height) => sum + height, 0);
  const height = Math.max(usualHeight, needed + 2 * pad);
  const y = (at: number) => pad + ((at - from) / (to - from)) * (height - 2 * pad);
  const { tops } = spreadLabels(
    placed.map(({ mark }) => y(anchorOf(mark))),
    heights,
    height,
  );

  const tape = 18 + 28 * textScale;
  const cableAt = tape + 16;
  const cableWidth = 40;
  const leader = 26;
  const width = cableAt + cableWidth + leader;
  const step = tapeStep(to - from, Math.floor(height / (34 * textScale)), units);
  const figures: number[] = [];
  for (let at = Math.ceil(from / step) * step; at <= to; at += step) figures.push(at);
  const minor = step / (units === 'mm' ? 5 : 4);
  const ticks: number[] = [];
  for (let at = Math.ceil(from / minor) * minor; at <= to; at += minor) ticks.push(at);

  const remember = (id: string, next: number) => {
    // Many are measured at once, so each adds to what the others found.
    setMeasured((before) =>
      Math.abs((before.get(id) ?? 0) - next) > 0.5 ? new Map(before).set(id, next) : before,
    );
  };

  return (
    <View>
      {toward ? <Type look="small">↑ {toward.low}</Type> : null}
      <View id="as-drawn" style={[styles.strip, { height }]}>
        <View aria-hidden style={{ width, height }}>
          <Svg width={width} height={height}>
            <Rect
              x={1}
              y={pad}
              width={tape}
              height={height - 2 * pad}
              fill={palette.sheet}
              stroke={palette.ink}
              strokeWidth={stroke.rule}
            />
            {ticks.map((at) => (
              <Line
                key={at}
                x1={tape - 7}
                x2={tape}
                y1={y(at)}
                y2={y(at)}
                stroke={palette.ink}
                strokeWidth={1}
              />
            ))}
            {figures.map((at) => (
              <Line
                key={at}
                x1={tape - 13}
                x2={tape}
                y1={y(at)}
                y2={y(at)}
                stroke={palette.ink}
                strokeWidth={stroke.rule}
              />
            ))}
            {figures.map((at) =>
              y(at) > pad + 8 && y(at) < height - pad - 4 ? (
                <SvgText
                  key={at}
                  x={tape - 15}
                  y={y(at) + 4}
                  textAnchor="end"
                  fontFamily={faces.sans}
                  fontSize={size('small') * 0.8}
                  fill={palette.ink}
                >
                  {tapeFigure(Math.abs(at), units).replace(/\u00a0/g, '')}
                </SvgText>
              ) : null,
            )}
            <CableInStrip sheet={sheet} cable={cable} x={cableAt} width={cableWidth} y={y} />
            {placed.map(({ mark }, index) => {
              const at = y(anchorOf(mark));
              const middle = tops[index]! + Math.min(heights[index]!, 40) / 2;
              const right = cableAt + cableWidth;
              return (
                <Polyline
                  key={mark.id}
                  points={`${right},${at} ${right + 8},${at} ${width - 6},${middle} ${width},${middle}`}
                  fill="none"
                  stroke={mark.id === selected ? palette.accent : palette.ink}
                  strokeWidth={mark.id === selected ? 2.4 : 1.4}
                />
              );
            })}
          </Svg>
        </View>
        <View role="list" aria-label="Marks along the tape" style={styles.labels}>
          {placed.map(({ mark, number }, index) => {
            const done = isDone(state, tickTargets.mark(sheet.cableId, mark.id));
            return (
              <View
                role="listitem"
                key={mark.id}
                onLayout={({ nativeEvent }) => remember(mark.id, nativeEvent.layout.height)}
                style={[styles.label, { top: tops[index]! }]}
              >
                <Pressable
                  role="button"
                  aria-pressed={mark.id === selected}
                  onPress={() => onSelect(mark.id)}
                  style={styles.press}
                >
                  <View style={styles.knot}>
                    <Knot mark={done ? 'holds' : 'open'} size={20} />
                  </View>
                  <View style={styles.words}>
                    <Type look="strong" tone={mark.id === selected ? 'accent' : 'ink'}>
                      {number} · {mark.title}
                    </Type>
                    <Type look={mark.id === 'whole' ? 'small' : 'reading'}>
                      {measureWords(mark, units)}
                      {done ? <Type look="small">{mark.id === 'whole' ? 'made' : ' made'}</Type> : null}
                    </Type>
                  </View>
                </Pressable>
              </View>
            );
          })}
        </View>
      </View>
      {toward ? <Type look="small">↓ {toward.high}</Type> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { flexDirection: 'row' },
  labels: { flex: 1, position: 'relative' },
  label: { position: 'absolute', left: 0, right: 0 },
  press: {
    minHeight: 44,
    flexDirection: 'row',
    gap: space.small,
    paddingVertical: space.tight,
    alignItems: 'flex-start',
  },
  knot: { paddingTop: 8 },
  words: { flex: 1, minWidth: 0 },
});

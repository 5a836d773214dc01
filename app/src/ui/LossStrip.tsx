import { exceeds } from '@cordel/core';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import { useCordelTheme } from './theme';

/** A loss that reaches the top of a strip or the end of a bar, in limits: what is far over need not be told apart. */
const fullScale = 1.6;

interface LossStripProps {
  /** One per splice in slot order; null where there is no reading yet. dB. */
  losses: readonly (number | null)[];
  limit: number;
  /** Says in words what the picture shows. */
  spoken: string;
  height?: number;
}

/** A tray at a glance: one column a splice, its loss against the limit. Over the limit it breaks through the line and is cut open at the top. */
export const LossStrip = memo(function LossStrip({ losses, limit, spoken, height = 36 }: LossStripProps) {
  const { palette } = useCordelTheme();
  const width = losses.length * 10;
  const y = (loss: number) => 40 * (1 - Math.min(loss / limit, fullScale) / fullScale);
  return (
    <View role="img" aria-label={spoken}>
      <Svg width="100%" height={height} viewBox={`0 0 ${width} 40`} preserveAspectRatio="none">
        {losses.map((loss, index) => {
          if (loss === null)
            return (
              <Rect
                key={index}
                x={index * 10 + 1.5}
                y={37.5}
                width={7}
                height={2.5}
                fill={palette.hairline}
              />
            );
          const over = exceeds(loss, limit);
          const top = Math.min(y(loss), 37);
          return (
            <Rect
              key={index}
              x={index * 10 + 1.5}
              y={top}
              width={7}
              height={40 - top}
              fill={over ? palette.accent : palette.ink}
            />
          );
        })}
        <Line
          x1={0}
          x2={width}
          y1={y(limit)}
          y2={y(limit)}
          stroke={palette.soft}
          strokeWidth={1.2}
          strokeDasharray="5 4"
        />
      </Svg>
    </View>
  );
});

/** One splice's loss against its limit: a bar, and a tick where the limit is. Left out on narrow rows by the caller. */
export const LossBar = memo(function LossBar({ loss, limit }: { loss: number | null; limit: number }) {
  const { palette } = useCordelTheme();
  const at = (value: number) => `${(100 * Math.min(value / limit, fullScale)) / fullScale}%` as const;
  return (
    <View style={styles.bar} aria-hidden>
      <View style={[styles.line, { backgroundColor: palette.hairline }]} />
      {loss === null ? null : (
        <View
          style={[
            styles.fill,
            { width: at(loss), backgroundColor: exceeds(loss, limit) ? palette.accent : palette.ink },
          ]}
        />
      )}
      <View style={[styles.tick, { left: at(limit), backgroundColor: palette.ink }]} />
    </View>
  );
});

const styles = StyleSheet.create({
  bar: { height: 18, flex: 1, minWidth: 24, justifyContent: 'center', position: 'relative' },
  line: { position: 'absolute', left: 0, right: 0, height: 1 },
  fill: { position: 'absolute', left: 0, height: 10, minWidth: 3 },
  tick: { position: 'absolute', width: 2, top: 0, bottom: 0 },
});

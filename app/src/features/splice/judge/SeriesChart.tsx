import type { Saw } from '@cordel/core/advice';
import { formatLoss } from '@cordel/core';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Line, Rect } from 'react-native-svg';
import { ChartText } from '../../../ui/ChartText';
import { Numbers } from '../../../ui/Numbers';
import { useCordelTheme } from '../../../ui/theme';
import { ticksTo } from '../../../ui/ticks';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { useChartWidth } from '../../../ui/useChartWidth';

const height = 150;
const margin = { left: 34, right: 8, top: 8, bottom: 8 };

/** Just those splices that a rule speaks of, in the order of time: filled what it is about, hollow what that is held against, and a rule at the mean of each. */
export const SeriesChart = memo(function SeriesChart({ saw, spoken }: { saw: Saw; spoken: string }) {
  const { palette } = useCordelTheme();
  const [width, onLayout] = useChartWidth('sheet');
  const { points, mean, other, unit } = saw;
  const orders = [...new Set(points.map(({ attempt }) => attempt))];
  const placeOf = new Map(orders.map((attempt, index) => [attempt, index]));
  const span = width - margin.left - margin.right - 12;
  const x = (place: number) => margin.left + 6 + (span * place) / Math.max(1, orders.length - 1);
  const top = points.reduce((highest, { value }) => Math.max(highest, value), unit === '°' ? 1 : 0.05);
  const ticks = ticksTo(top, 4);
  const y = (value: number) =>
    height - margin.bottom - ((height - margin.top - margin.bottom) * value) / ticks.at(-1)!;
  const write = (value: number) => (unit === 'dB' ? formatLoss(value) : String(value));
  return (
    <View style={styles.whole}>
      <View
        role="img"
        aria-label={spoken}
        onLayout={onLayout}
        style={[styles.frame, { borderColor: palette.hairline }]}
      >
        <Svg width="100%" height={height} viewBox={`0 0 ${width} ${height}`}>
          {ticks.map((tick) => (
            <Line
              key={tick}
              x1={margin.left}
              x2={width - margin.right}
              y1={y(tick)}
              y2={y(tick)}
              stroke={palette.hairline}
              strokeWidth={1}
            />
          ))}
          {ticks.map((tick) => (
            <ChartText key={`t${tick}`} x={margin.left - 4} y={y(tick) + 4} anchor="end">
              {write(tick)}
            </ChartText>
          ))}
          {points
            .filter(({ mine }) => !mine)
            .map(({ attempt, value }, index) => (
              <Circle
                key={index}
                cx={x(placeOf.get(attempt)!)}
                cy={y(value)}
                r={3}
                fill="none"
                stroke={palette.soft}
                strokeWidth={1.2}
              />
            ))}
          {points
            .filter(({ mine }) => mine)
            .map(({ attempt, value }, index) => (
              <Rect
                key={index}
                x={x(placeOf.get(attempt)!) - 4}
                y={y(value) - 4}
                width={8}
                height={8}
                fill={palette.accent}
              />
            ))}
          <Mean at={y(mean)} width={width} color={palette.accent} />
          {other === null ? null : <Mean at={y(other)} width={width} color={palette.soft} />}
        </Svg>
      </View>
      <Type look="small" tone="soft">
        {`Filled: what it is about, ${unit === '°' ? 'degrees' : unit === 'dB' ? 'dB' : '1 where it happened'}. Hollow: what that is held against. Dashed: the mean of each.`}
      </Type>
      <Numbers
        title="Splices of the chart"
        rows={orders.map((attempt, index) => [String(index + 1), numbersOf(points, attempt, write)])}
      />
    </View>
  );
});

/** "0.10; beside it 0.02, 0.03" */
function numbersOf(points: Saw['points'], attempt: string, write: (value: number) => string): string {
  const own = points.filter((point) => point.attempt === attempt);
  const list = (mine: boolean) =>
    own
      .filter((point) => point.mine === mine)
      .map(({ value }) => write(Math.round(value * 1000) / 1000))
      .join(', ');
  return [list(true), list(false)].filter(Boolean).join(own.every(({ mine }) => !mine) ? '' : '; beside it ');
}

function Mean({ at, width, color }: { at: number; width: number; color: string }) {
  return (
    <Line
      x1={margin.left}
      x2={width - margin.right}
      y1={at}
      y2={at}
      stroke={color}
      strokeWidth={1.6}
      strokeDasharray="6 4"
    />
  );
}

const styles = StyleSheet.create({
  whole: { gap: space.tight },
  frame: { borderWidth: stroke.hair, padding: space.hair },
});

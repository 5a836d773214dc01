import { formatLoss, formatMean } from '@cordel/core';
import type { Distribution } from '@cordel/core/losses';
import { scaleLinear } from 'd3-scale';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import { ChartText } from '../../ui/ChartText';
import { Numbers } from '../../ui/Numbers';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { useChartWidth } from '../../ui/useChartWidth';

const height = 170;
const margin = { left: 34, right: 10, top: 10, bottom: 22 };

/** How many fibers read what: bars; what a crew in good order reads as a stepped line; limits as dashed rules. */
export const DistributionChart = memo(function DistributionChart({
  of,
  limits,
  measured,
}: {
  of: Distribution;
  measured: boolean;
  /** dB */
  limits: readonly number[];
}) {
  const { palette } = useCordelTheme();
  const [width, onLayout] = useChartWidth('losses');
  const { bins } = of;
  const last = bins.length;
  const x = scaleLinear([0, last], [margin.left, width - margin.right]);
  const most = bins.reduce((top, { count, expected }) => Math.max(top, count, expected ?? 0), 1);
  const y = scaleLinear([0, most], [height - margin.bottom, margin.top]).nice(3);
  const limit = bins.findIndex(({ to }) => limits[0] !== undefined && to > limits[0] + 0.005);
  const words = [
    `${of.count} fibers`,
    of.mean === null ? null : `mean ${formatMean(of.mean)} dB`,
    of.median === null ? null : `half are at most ${formatLoss(Math.round(of.median * 1000) / 1000)}`,
    of.p95 === null ? null : `95 % at most ${formatLoss(Math.round(of.p95 * 1000) / 1000)}`,
    of.over > 0 ? `${of.over} over their limit` : 'none over its limit',
    of.broken > 0 ? `${of.broken} broke` : null,
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <View style={styles.whole}>
      <Type look="strong">{`${words}.`}</Type>
      <View
        role="img"
        aria-label={`How many fibers read what: ${words}.`}
        onLayout={onLayout}
        style={[styles.frame, { borderColor: palette.hairline }]}
      >
        <Svg width="100%" height={height} viewBox={`0 0 ${width} ${height}`}>
          {y
            .ticks(3)
            .filter(Number.isInteger)
            .map((tick) => (
              <ChartText key={tick} x={margin.left - 4} y={y(tick) + 4} anchor="end">
                {tick}
              </ChartText>
            ))}
          {bins.map(({ from, count }, index) => (
            <Rect
              key={from}
              x={x(index) + 1}
              y={y(count)}
              width={Math.max(1, x(1) - x(0) - 2)}
              height={y(0) - y(count)}
              fill={limit >= 0 && index >= limit ? palette.accent : palette.ink}
            />
          ))}
          {bins.map(({ from, expected }, index) =>
            expected === null ? null : (
              <Line
                key={`e${from}`}
                x1={x(index)}
                x2={x(index + 1)}
                y1={y(expected)}
                y2={y(expected)}
                stroke={palette.soft}
                strokeWidth={2}
              />
            ),
          )}
          {limit >= 0 ? (
            <Line
              x1={x(limit)}
              x2={x(limit)}
              y1={margin.top}
              y2={height - margin.bottom}
              stroke={palette.accent}
              strokeWidth={1.6}
              strokeDasharray="6 4"
            />
          ) : null}
          {bins.map(({ from }, index) =>
            index % 5 === 0 ? (
              <ChartText key={`x${from}`} x={x(index) + (x(1) - x(0)) / 2} y={height - 6} anchor="middle">
                {formatLoss(from)}
              </ChartText>
            ) : null,
          )}
          <Line
            x1={margin.left}
            x2={width - margin.right}
            y1={y(0)}
            y2={y(0)}
            stroke={palette.ink}
            strokeWidth={1.4}
          />
        </Svg>
      </View>
      <Type look="small" tone="soft">
        {`Bars: fibers by loss in dB, the last with all above. Lines: what a crew in good order reads.${limit >= 0 ? ` Dashed: the limit of ${formatLoss(limits[0]!)} dB.` : ''} ${measured ? 'All were measured.' : 'All are the machines’ estimates.'}`}
      </Type>
      <Numbers
        title="Fibers by loss"
        rows={bins.map(({ from, to, count, expected }) => [
          to === Infinity ? `${formatLoss(from)} dB and above` : `${formatLoss(from)} dB`,
          `${count}${expected === null ? '' : `, expected ${Math.round(expected)}`}`,
        ])}
      />
    </View>
  );
});

const styles = StyleSheet.create({
  whole: { gap: space.tight },
  frame: { borderWidth: stroke.hair, padding: space.hair },
});

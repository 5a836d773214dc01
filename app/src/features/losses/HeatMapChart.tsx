import { formatLoss, formatMean } from '@cordel/core';
import type { HeatMap } from '@cordel/core/losses';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import { ChartText } from '../../ui/ChartText';
import { Numbers } from '../../ui/Numbers';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { useChartWidth } from '../../ui/useChartWidth';

/** So many ribbons are drawn, the last ones. */
const most = 48;
const cell = 22;
const left = 44;

/** Ribbons by positions: the stronger the higher, over the limit in the accent, and the mean of each position above. */
export const HeatMapChart = memo(function HeatMapChart({ map, limit }: { map: HeatMap; limit: number }) {
  const { palette } = useCordelTheme();
  const [width, onLayout] = useChartWidth('losses');
  const ribbons = map.ribbons.slice(-most);
  const { means } = map;
  const wide = Math.min(cell * 1.6, (width - left - 4) / means.length);
  const height = (ribbons.length + 2) * cell;
  const highest = means.reduce<number>(
    (best, mean, at) => ((mean ?? -1) > (means[best] ?? -1) ? at : best),
    0,
  );
  const words = `Position ${highest + 1} has the highest mean, ${formatMean(means[highest] ?? 0)} dB, over ${map.ribbons.length} ribbons.`;
  return (
    <View style={styles.whole}>
      <Type look="strong">{words}</Type>
      <View
        role="img"
        aria-label={`Ribbons by positions. ${words}`}
        onLayout={onLayout}
        style={[styles.frame, { borderColor: palette.hairline }]}
      >
        <Svg width="100%" height={height} viewBox={`0 0 ${width} ${height}`}>
          {means.map((_, at) => (
            <ChartText
              key={`p${at}`}
              x={left + (at + 0.5) * wide}
              y={cell - 6}
              anchor="middle"
              bold
              color={at === highest ? palette.accent : palette.ink}
            >
              {at + 1}
            </ChartText>
          ))}
          {[{ tray: 0, slot: 0, losses: means }, ...ribbons].map(({ tray, slot, losses }, row) => (
            <RibbonRow
              key={row}
              label={row === 0 ? 'mean' : `${tray}.${slot}`}
              y={(row + 1) * cell}
              wide={wide}
              losses={losses}
              limit={limit}
            />
          ))}
        </Svg>
      </View>
      <Type look="small" tone="soft">
        {`One row a ribbon, by tray and slot${map.ribbons.length > most ? `, the last ${most}` : ''}; the first row is the mean of each position. The stronger the higher; over ${formatLoss(limit)} dB in red-orange with a cut.`}
      </Type>
      <Numbers
        title="Mean of each position"
        rows={means.map((mean, at) => [
          `Position ${at + 1}`,
          mean === null ? 'not read' : `${formatMean(mean)} dB`,
        ])}
      />
    </View>
  );
});

function RibbonRow({
  label,
  y,
  wide,
  losses,
  limit,
}: {
  label: string;
  y: number;
  wide: number;
  losses: readonly (number | null)[];
  limit: number;
}) {
  const { palette } = useCordelTheme();
  return (
    <>
      <ChartText x={left - 6} y={y + 15} anchor="end">
        {label}
      </ChartText>
      {losses.map((loss, at) => {
        const over = loss !== null && loss > limit + 1e-9;
        return (
          <Rect
            key={at}
            x={left + at * wide + 1}
            y={y + 1}
            width={wide - 2}
            height={cell - 2}
            fill={loss === null ? 'none' : over ? palette.accent : palette.ink}
            fillOpacity={loss === null ? 0 : over ? 1 : 0.06 + 0.94 * Math.min(1, loss / limit)}
            stroke={palette.hairline}
            strokeWidth={1}
            {...(over ? { strokeDasharray: '3 2' } : {})}
          />
        );
      })}
    </>
  );
}

const styles = StyleSheet.create({
  whole: { gap: space.tight },
  frame: { borderWidth: stroke.hair, padding: space.hair },
});

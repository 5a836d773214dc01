import { formatLoss } from '@cordel/core';
import type { PlaceCell, PlaceRow } from '@cordel/core/losses';
import { memo, useMemo, useState } from 'react';
import { Pressable, StyleSheet, View, type GestureResponderEvent } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { Action } from '../../ui/Action';
import { ChartText } from '../../ui/ChartText';
import { Numbers } from '../../ui/Numbers';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { useChartWidth } from '../../ui/useChartWidth';

const label = 34;
const rowHeight = 16;

/** Tenths of a px are enough, and short to write. */
const tenths = (px: number) => Math.round(px * 10) / 10;
const widest = 13;

/** Strengths of the ink below the limit, from nothing read to just at it. */
const strengths = [0.16, 0.36, 0.58, 0.8, 1];

interface PlacesChartProps {
  rows: readonly PlaceRow[];
  site: (closureId: string) => string;
  /** What was measured is shown, in place of the estimates. */
  measured: boolean;
  onOpen: (closureId: string, tray: number, slot: number) => void;
}

/** Every fiber in its place against its limit, trays as rows: thousands at once. */
export const PlacesChart = memo(function PlacesChart({ rows, site, measured, onOpen }: PlacesChartProps) {
  const { palette } = useCordelTheme();
  const [width, onLayout] = useChartWidth('losses, places');
  const [tapped, setTapped] = useState<{ row: PlaceRow; cell: PlaceCell } | null>(null);
  const closures = useMemo(() => {
    const by = new Map<string, PlaceRow[]>();
    for (const row of rows) by.set(row.closureId, [...(by.get(row.closureId) ?? []), row]);
    return [...by];
  }, [rows]);
  const read = rows.reduce((sum, row) => sum + row.read, 0);
  const over = rows.reduce((sum, row) => sum + row.over, 0);
  const trays = rows.filter((row) => row.read > 0).length;
  const words = `${read} fibers on ${trays} ${trays === 1 ? 'tray' : 'trays'}, ${over === 0 ? 'none' : over} over the limit.`;
  return (
    <View style={styles.whole}>
      <Type look="strong">{words}</Type>
      <View onLayout={onLayout}>
        {closures.map(([closureId, own]) => (
          <ClosurePlaces
            key={closureId}
            name={site(closureId)}
            rows={own}
            width={width}
            onTap={(row, one) => setTapped({ row, cell: one })}
          />
        ))}
      </View>
      {tapped ? (
        <View role="status" style={[styles.tapped, { borderColor: palette.ink }]}>
          <Type look="strong">
            {`${site(tapped.row.closureId)}, tray ${tapped.row.tray}, slot ${tapped.cell.slot}${tapped.row.cells.some(({ position }) => position > 1) ? `, fiber ${tapped.cell.position}` : ''}: ${cellWords(tapped.cell, measured)}`}
          </Type>
          <Action
            bench
            label="To the bench"
            onPress={() => onOpen(tapped.row.closureId, tapped.row.tray, tapped.cell.slot)}
          />
        </View>
      ) : null}
      <Type look="small" tone="soft">
        {`One row a tray, one mark a fiber, in the order of the slots. The stronger the nearer to its limit; over it in red-orange and taller; ${measured ? 'a line: not measured' : 'a cross: it broke; a line: not spliced'}. What is not chosen is a dot. Tap a mark to see what it is.`}
      </Type>
      <Numbers
        title="Trays"
        rows={() => rows.map((row) => [`${site(row.closureId)}, tray ${row.tray}`, rowWords(row)])}
      />
    </View>
  );
});

function cellWords({ state, loss, share }: PlaceCell, measured: boolean): string {
  if (state === 'open') return measured ? 'not measured.' : 'not spliced.';
  if (loss === null) return 'broke.';
  return `${formatLoss(loss)} dB, ${Math.round(share * 100)} % of its limit.`;
}

/** "24 fibers, 1 over, worst 0.12 dB at slot 5" */
function rowWords({ cells, read, over }: PlaceRow): string {
  if (read === 0) return 'none';
  const worst = cells.reduce((high, cell) =>
    cell.chosen && (cell.loss ?? -1) > (high.loss ?? -1) ? cell : high,
  );
  return `${read} fibers, ${over} over, worst ${formatLoss(worst.loss ?? 0)} dB at slot ${worst.slot}`;
}

/** One drawing a closure: a few paths with all marks of one look in each, whatever their number. */
const ClosurePlaces = memo(function ClosurePlaces({
  name,
  rows,
  width,
  onTap,
}: {
  name: string;
  rows: readonly PlaceRow[];
  width: number;
  onTap: (row: PlaceRow, cell: PlaceCell) => void;
}) {
  const { palette } = useCordelTheme();
  const paths = useMemo(() => pathsOf(rows, width), [rows, width]);
  const height = rows.length * rowHeight;
  const tap = ({ nativeEvent, currentTarget }: GestureResponderEvent) => {
    const box = (currentTarget as unknown as Element).getBoundingClientRect();
    const { clientX, clientY } = nativeEvent as unknown as MouseEvent;
    const row = rows[Math.floor((clientY - box.top) / rowHeight)];
    const one = row?.cells[Math.floor((clientX - box.left - label) / cellOf(row, width))];
    if (row && one) onTap(row, one);
  };
  return (
    <View style={styles.closure}>
      <Type look="smallStrong">{name}</Type>
      <Pressable
        role="img"
        aria-label={`${name}, trays ${rows.map(({ tray }) => tray).join(', ')}: fibers in their places. Their numbers are in the list below.`}
        focusable={false}
        tabIndex={-1}
        onPress={tap}
      >
        <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`}>
          {rows.map(({ tray }, index) =>
            // Of many trays every fifth has its number.
            rows.length > 40 && tray % 5 !== 0 ? null : (
              <ChartText key={tray} x={label - 8} y={index * rowHeight + 12} anchor="end">
                {tray}
              </ChartText>
            ),
          )}
          <Path d={paths.open} fill={palette.hairline} />
          <Path d={paths.aside} fill={palette.hairline} />
          {strengths.map((strength, index) => (
            <Path key={strength} d={paths.ink[index]!} fill={palette.ink} fillOpacity={strength} />
          ))}
          <Path d={paths.over} fill={palette.accent} />
          <Path d={paths.broke} stroke={palette.accent} strokeWidth={1.4} fill="none" />
        </Svg>
      </Pressable>
    </View>
  );
});

/** Each tray fills the width as far as it has fibers for it. px */
const cellOf = ({ cells }: PlaceRow, width: number) => Math.min(widest, (width - label) / cells.length);

/** Paths with all marks of one look in each. px */
function pathsOf(rows: readonly PlaceRow[], width: number) {
  const ink: string[][] = strengths.map(() => []);
  const [open, aside, over, broke]: string[][] = [[], [], [], []];
  const box = (x: number, top: number, wide: number, tall: number) =>
    `M${tenths(x)} ${top}h${tenths(wide)}v${tall}h-${tenths(wide)}z`;
  rows.forEach((tray, row) => {
    const { cells } = tray;
    const top = row * rowHeight;
    const cell = cellOf(tray, width);
    const mark = cell < 4 ? cell : cell - 1;
    cells.forEach((one, index) => {
      const x = label + index * cell;
      if (!one.chosen) aside!.push(box(x, top + 7, Math.min(2, mark), 2));
      else if (one.state === 'open') open!.push(box(x, top + 11, mark, 1.5));
      else if (one.loss === null)
        broke!.push(`M${tenths(x)} ${top + 4}l${tenths(mark)} 8m0 -8l-${tenths(mark)} 8`);
      else if (one.over) over!.push(box(x, top + 1, mark, rowHeight - 2));
      else
        ink[Math.min(strengths.length - 1, Math.floor(one.share * strengths.length))]!.push(
          box(x, top + 4, mark, 9),
        );
    });
  });
  return {
    ink: ink.map((parts) => parts.join('')),
    open: open!.join(''),
    aside: aside!.join(''),
    over: over!.join(''),
    broke: broke!.join(''),
  };
}

const styles = StyleSheet.create({
  whole: { gap: space.tight },
  closure: { paddingVertical: space.tight },
  tapped: { borderWidth: stroke.rule, padding: space.small, gap: space.small },
});

import { useState } from 'react';
import { useWindowDimensions, type LayoutChangeEvent } from 'react-native';
import { gutter, space } from './tokens';

/** What charts were last wide, by where they stand. */
const known = new Map<string, number>();

const narrowest = 200;

/**
 * The width of a chart, px. To draw thousands of marks twice takes twice as long, so it begins with what it was there the last time, or with what a phone has beside the cord.
 * @param place where the chart stands: charts of one column are equally wide
 */
export function useChartWidth(
  place: string,
): readonly [width: number, onLayout: (event: LayoutChangeEvent) => void] {
  const screen = useWindowDimensions().width;
  const [width, setWidth] = useState(
    () => known.get(place) ?? Math.max(narrowest, Math.min(600, screen - gutter.width - space.large)),
  );
  return [
    width,
    ({ nativeEvent }) => {
      const found = Math.max(narrowest, Math.round(nativeEvent.layout.width));
      known.set(place, found);
      setWidth(found);
    },
  ];
}

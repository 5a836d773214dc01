import {
  branchSites,
  fiberCount,
  formatChainage,
  routeSites,
  type Cable,
  type ProjectDefinition,
  type Site,
} from '@cordel/core';
import { memo, useState } from 'react';
import { View, type LayoutChangeEvent } from 'react-native';
import Svg, { Circle, Line, Path, Text as SvgText } from 'react-native-svg';
import { useCordelTheme } from '../../../ui/theme';
import { faces, space, stroke } from '../../../ui/tokens';

/**
 * The whole route to scale, across the screen: sites at their distances, and below the cord every cable as a line of its own from end to
 * end, so that one sees which go through a site and which are cut there. A branch hangs down from its site.
 */
export const RouteSchematic = memo(function RouteSchematic({
  definition,
}: {
  definition: ProjectDefinition;
}) {
  const { palette, size } = useCordelTheme();
  const [width, setWidth] = useState(0);
  const { sites, cables, closures, project } = definition;
  const route = routeSites(sites);
  const length = Math.max(1, ...route.map((site) => site.chainage));
  if (route.length < 2) return null;

  const margin = 14;
  const small = size('small') * 0.85;
  const lane = 11;
  const top = small * 2.4;
  const x = (site: Site) => margin + (site.chainage / length) * (width - 2 * margin);
  const onRoute = cables.filter(
    (cable) => cable.siteIds.filter((id) => route.some((site) => site.id === id)).length > 1,
  );
  const lanes = inLanes(onRoute, route);
  const laneCount = Math.max(1, ...lanes.map((one) => one.lane + 1));
  const bottom = top + 16 + laneCount * lane;
  const branches = route.flatMap((site) =>
    branchSites(sites, site.id).map((one) => ({ from: site, site: one })),
  );
  const height = bottom + (branches.length > 0 ? small * 2.2 : 6);
  const hasClosure = (site: Site) => closures.some((closure) => closure.siteId === site.id);
  const spoken = `Route of ${formatChainage(length, project.units)} with ${route.length} sites; cables: ${cables
    .map((cable) => `${cable.label}, ${fiberCount(cable.construction)} fibers`)
    .join('; ')}`;
  return (
    <View
      role="img"
      aria-label={spoken}
      style={{ paddingHorizontal: space.small, paddingTop: space.small }}
      onLayout={({ nativeEvent }: LayoutChangeEvent) => setWidth(nativeEvent.layout.width - 2 * space.small)}
    >
      {width > 0 ? (
        <Svg width={width} height={height}>
          <Line
            x1={margin}
            x2={width - margin}
            y1={top}
            y2={top}
            stroke={palette.ink}
            strokeWidth={stroke.cord}
          />
          {lanes.map(({ cable, from, to, lane: row }) => {
            const y = top + 18 + row * lane;
            const gap = 4;
            return (
              <Path
                key={cable.id}
                d={`M${x(from) + gap} ${y - 3}v6M${x(from) + gap} ${y}H${x(to) - gap}M${x(to) - gap} ${y - 3}v6`}
                stroke={palette.soft}
                strokeWidth={stroke.rule}
                fill="none"
              />
            );
          })}
          {branches.map(({ from, site }) => (
            <Path
              key={site.id}
              d={`M${x(from)} ${top}V${bottom}`}
              stroke={palette.ink}
              strokeWidth={stroke.heavy}
              strokeDasharray="3 3"
              fill="none"
            />
          ))}
          {branches.map(({ from, site }) => (
            <SvgText
              key={`${site.id} name`}
              x={Math.min(Math.max(x(from), 40), width - 40)}
              y={bottom + small * 1.3}
              textAnchor="middle"
              fontSize={small}
              fontFamily={faces.sans}
              fill={palette.ink}
            >
              {shortName(site)}
            </SvgText>
          ))}
          {route.map((site) => (
            <Circle
              key={site.id}
              cx={x(site)}
              cy={top}
              r={hasClosure(site) ? 7 : 4.5}
              fill={hasClosure(site) ? palette.sheet : palette.ink}
              stroke={palette.ink}
              strokeWidth={stroke.heavy}
            />
          ))}
          {route.map((site, index) => (
            <SvgText
              key={`${site.id} name`}
              x={index === 0 ? 2 : index === route.length - 1 ? width - 2 : x(site)}
              y={small * 1.1}
              textAnchor={index === 0 ? 'start' : index === route.length - 1 ? 'end' : 'middle'}
              fontSize={small}
              fontFamily={faces.sansBold}
              fill={palette.ink}
            >
              {shortName(site)}
            </SvgText>
          ))}
        </Svg>
      ) : null}
    </View>
  );
});

/** "U2" of "U2 Curva do Rio", the whole of "Moinho": what fits above a knot. */
function shortName(site: Site): string {
  const [first = ''] = site.name.split(' ');
  return /\d/.test(first) ? first : site.name.slice(0, 10);
}

/** Each cable in the first lane that is free over its stretch. */
function inLanes(cables: readonly Cable[], route: readonly Site[]) {
  const ends: number[] = [];
  return cables
    .map((cable) => {
      const own = route.filter((site) => cable.siteIds.includes(site.id));
      return { cable, from: own[0]!, to: own.at(-1)! };
    })
    .sort((a, b) => a.from.chainage - b.from.chainage || b.to.chainage - a.to.chainage)
    .map((one) => {
      let lane = ends.findIndex((end) => end <= one.from.chainage);
      if (lane < 0) lane = ends.length;
      ends[lane] = one.to.chainage;
      return { ...one, lane };
    });
}

import { memo } from 'react';
import { View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import type { PlannedNight } from '@cordel/core/schedule';
import { ChartText } from '../../ui/ChartText';
import { useCordelTheme } from '../../ui/theme';
import { clockTime, type ShownZone } from '../../ui/times';
import { stroke } from '../../ui/tokens';
import { useChartWidth } from '../../ui/useChartWidth';

const height = 74;
const cordAt = 30;
const bar = 22;
const side = 8;
const hour = 3_600_000;

interface CrewStripProps {
  night: PlannedNight;
  /** Ends of the axis, ms. */
  from: number;
  to: number;
  /** ms, where it lies in the night. */
  now: number | null;
  zone: ShownZone;
  /** The least chance that was asked for. */
  reserve: number;
  name: (closureId: string) => string;
  /** What it shows, in a sentence. */
  words: string;
}

/** One crew's night on its cord: closures as bars, the way between them as the cord, and behind the last one what the reserve adds. The rule is where the night closes. */
export const CrewStrip = memo(function CrewStrip({
  night,
  from,
  to,
  now,
  zone,
  reserve,
  name,
  words,
}: CrewStripProps) {
  const { palette } = useCordelTheme();
  const [width, onLayout] = useChartWidth('nights');
  const x = (time: number) =>
    side + ((Math.min(to, Math.max(from, time)) - from) / (to - from)) * (width - 2 * side);
  const first = night.stops[0]!;
  const last = night.stops.at(-1)!;
  const hours = Array.from(
    { length: Math.ceil((to - from) / hour) + 1 },
    (_, at) => Math.ceil(from / hour) * hour + at * hour,
  ).filter((time) => time <= to);
  const every = (width - 2 * side) / hours.length < 34 ? 2 : 1;
  return (
    <View role="img" aria-label={words} onLayout={onLayout}>
      <Svg width="100%" height={height} viewBox={`0 0 ${width} ${height}`}>
        {hours.map((time, index) => (
          <Line
            key={time}
            x1={x(time)}
            x2={x(time)}
            y1={cordAt + bar / 2 + 4}
            y2={cordAt + bar / 2 + (index % every === 0 ? 10 : 7)}
            stroke={palette.soft}
            strokeWidth={stroke.hair}
          />
        ))}
        {hours.map((time, index) =>
          index % every === 0 && x(time) > 14 && x(time) < width - 14 ? (
            <ChartText key={time} x={x(time)} y={height - 6} anchor="middle">
              {clockTime(time, zone).slice(0, 5)}
            </ChartText>
          ) : null,
        )}
        <Line
          x1={x(first.begins)}
          x2={x(night.ends)}
          y1={cordAt}
          y2={cordAt}
          stroke={palette.ink}
          strokeWidth={stroke.cord}
        />
        {night.endsAtLatest > last.ends ? (
          <Path
            d={hatch(x(last.ends), x(night.endsAtLatest))}
            stroke={palette.soft}
            strokeWidth={stroke.hair}
            fill="none"
          />
        ) : null}
        {night.stops.map((stop) => {
          const [left, right] = [x(stop.begins), x(stop.ends)];
          const late = stop.chance < reserve;
          const room = right - left;
          const label = name(stop.closureId);
          return [
            <Rect
              key={`${stop.job} bar`}
              x={left}
              y={cordAt - bar / 2}
              width={Math.max(3, room - 2)}
              height={bar}
              fill={late ? palette.ground : palette.ink}
              stroke={late ? palette.accent : palette.ink}
              strokeWidth={stroke.rule}
            />,
            room > 44 ? (
              <ChartText
                key={`${stop.job} name`}
                x={left + 6}
                y={cordAt + 4}
                bold
                color={late ? palette.ink : palette.ground}
              >
                {label.slice(0, Math.max(2, Math.floor((room - 10) / 6.4)))}
              </ChartText>
            ) : (
              <ChartText
                key={`${stop.job} name`}
                x={Math.min(left, width - side - 20)}
                y={cordAt - bar / 2 - 5}
                anchor={left > width - 80 ? 'end' : 'start'}
                bold
                color={palette.ink}
              >
                {label.split(' ')[0]!}
              </ChartText>
            ),
            stop.backBy === null ? null : (
              <Path
                key={`${stop.job} back`}
                d={`M${x(stop.backBy)} ${cordAt - bar / 2 - 4} l-4 -7 h8 z`}
                fill={late ? palette.accent : palette.ink}
              />
            ),
          ];
        })}
        {now !== null && now > from && now < to ? (
          <Line
            x1={x(now)}
            x2={x(now)}
            y1={6}
            y2={cordAt + bar / 2 + 8}
            stroke={palette.accent}
            strokeWidth={stroke.rule}
          />
        ) : null}
        <Line
          x1={x(night.closes)}
          x2={x(night.closes)}
          y1={4}
          y2={cordAt + bar / 2 + 8}
          stroke={palette.ink}
          strokeWidth={stroke.rule}
          strokeDasharray="5 3"
        />
      </Svg>
    </View>
  );
});

/** Strokes that lean, between two places along the cord. */
function hatch(from: number, to: number): string {
  let path = `M${from} ${cordAt - 7} H${to} M${from} ${cordAt + 7} H${to} M${to} ${cordAt - 7} V${cordAt + 7}`;
  for (let at = from; at < to; at += 6)
    path += ` M${at} ${cordAt + 7} L${Math.min(to, at + 6)} ${cordAt + 7 - 14 * Math.min(1, (to - at) / 6)}`;
  return path;
}

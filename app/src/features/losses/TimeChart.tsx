import { formatLoss, type Units } from '@cordel/core';
import { formatTemperature } from '@cordel/core/seal';
import type { AfterCalibration, InTime, TimeMark, TimePoint } from '@cordel/core/losses';
import { scaleLinear, scalePow } from 'd3-scale';
import { memo, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import { ChartText } from '../../ui/ChartText';
import { Numbers } from '../../ui/Numbers';
import { useCordelTheme } from '../../ui/theme';
import { dayAndTime, dayOf, type ShownZone } from '../../ui/times';
import { space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { useChartWidth } from '../../ui/useChartWidth';

const height = 230;
const margin = { left: 34, right: 10, top: 20, bottom: 46 };

/** Tenths of a px are enough, and short to write. */
const tenths = (px: number) => Math.round(px * 10) / 10;

const ruleWords = {
  'beyond-3': 'one beyond three deviations',
  'two-of-three': 'two of three beyond two deviations',
  'four-of-five': 'four of five beyond one deviation',
  eight: 'eight in a row on one side of the middle',
} as const;

interface TimeChartProps {
  of: InTime;
  units: Units;
  zone: ShownZone;
  place: (point: TimePoint) => string;
  machine: (id: string) => string;
}

/** Every try in the order of time: squares ribbons, circles single fibers; lines at the middle and three deviations; what happened at the gear from above, people and days below. */
export const TimeChart = memo(function TimeChart({ of, units, zone, place, machine }: TimeChartProps) {
  const { palette } = useCordelTheme();
  const [width, onLayout] = useChartWidth('losses');
  const { points, limits, calibrations } = of;
  const marks = useMemo(() => of.marks.filter(({ before }) => before > 0 && before < of.points.length), [of]);
  const { x, y, top } = useMemo(() => {
    const highest = points.reduce((high, { loss }) => Math.max(high, loss), 0.1);
    return {
      top: highest,
      x: scaleLinear([0, Math.max(1, points.length - 1)], [margin.left + 6, width - margin.right - 6]),
      // Good losses lie evenly on this scale; a straight one would press them all to the foot.
      y: scalePow([0, highest], [height - margin.bottom, margin.top]).exponent(0.5),
    };
  }, [points, width]);
  const flagged = useMemo(() => points.filter(standsOut), [points]);
  const drawn = useMemo(() => pathsOf(points, x, y), [points, x, y]);
  const words = `${points.length} tries, ${flagged.length === 0 ? 'none of them stands out above' : `${flagged.length} stand out above`}.`;
  const stretches = useMemo(() => peopleOf(points), [points]);
  const days = useMemo(() => daysOf(points, zone), [points, zone]);
  return (
    <View style={styles.whole}>
      <Type look="strong">{words}</Type>
      <View
        role="img"
        aria-label={`Losses in the order of time. ${words}`}
        onLayout={onLayout}
        style={[styles.frame, { borderColor: palette.hairline }]}
      >
        <Svg width="100%" height={height} viewBox={`0 0 ${width} ${height}`}>
          {[0, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2]
            .filter((tick) => tick <= top)
            .map((tick) => (
              <Tick key={tick} at={y(tick)} width={width} text={formatLoss(tick)} />
            ))}
          {marks.map(({ before, event }, index) => (
            <MarkLine
              key={index}
              at={(x(before - 1) + x(before)) / 2}
              text={markLetters[event.what]}
              color={palette.ink}
            />
          ))}
          {limits.map(({ kind, middle, upper }) =>
            [middle, upper].map((value, index) => (
              <Line
                key={`${kind} ${index}`}
                x1={margin.left}
                x2={width - margin.right}
                y1={y(Math.min(top, value))}
                y2={y(Math.min(top, value))}
                stroke={index === 0 ? palette.soft : palette.accent}
                strokeWidth={1.3}
                {...(kind === 'ribbon'
                  ? { strokeDasharray: '2 3' }
                  : index === 1
                    ? { strokeDasharray: '6 4' }
                    : {})}
              />
            )),
          )}
          <Path d={drawn.singles} fill={palette.ink} />
          <Path d={drawn.ribbons} fill={palette.ground} stroke={palette.ink} strokeWidth={1.2} />
          <Path d={drawn.flagged} fill="none" stroke={palette.accent} strokeWidth={1.6} />
          {stretches.map(({ from, to, person }, index) => (
            <Stretch
              key={index}
              from={x(from) - 2}
              to={x(to) + 2}
              text={person ?? 'not said'}
              y={height - margin.bottom + 14}
              tone={index % 2 === 0 ? palette.ink : palette.soft}
            />
          ))}
          {days.map(({ from, day }, index) =>
            index > 0 && x(from) - x(days[index - 1]!.from) < 70 ? null : (
              <ChartText key={day} x={x(from)} y={height - 6}>
                {day}
              </ChartText>
            ),
          )}
        </Svg>
      </View>
      <Type look="small" tone="soft">
        {`Circles: single fibers; squares: ribbons, by their middle. Solid: the middle; dashed: three deviations above it, finely for ribbons. ${marks.length > 0 ? 'C: calibrated, W: weather written down, B: blade turned. ' : ''}Ringed: what stands out above by the Western Electric rules. They point at about 1 of 180 tries where nothing is wrong, so look before you act.`}
      </Type>
      {calibrations.map((one) => (
        <Type key={`${one.at} ${one.kind}`}>{calibrationWords(one, zone, machine)}</Type>
      ))}
      {flagged.length > 0 ? (
        <Numbers
          title="Tries that stand out"
          rows={() =>
            flagged.map((point) => [
              `${place(point)}, ${dayAndTime(point.at, zone)}`,
              `${formatLoss(round(point.loss))} dB, ${point.rules.map((rule) => ruleWords[rule]).join(', ')}`,
            ])
          }
        />
      ) : null}
      <Numbers title="Tries in the order of time" rows={() => rowsOf(of, units, zone, place, machine)} />
    </View>
  );
});

/** Above the middle: what reads low needs nobody. */
const standsOut = ({ rules, z }: TimePoint) => rules.length > 0 && z > 0;

/** One path for all marks of a look, whatever their number. */
function pathsOf(points: readonly TimePoint[], x: (at: number) => number, y: (loss: number) => number) {
  const many = points.length > 600;
  const r = many ? 1.4 : 3;
  const circle = (cx: number, cy: number, radius: number) =>
    `M${tenths(cx - radius)} ${tenths(cy)}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 -${2 * radius} 0`;
  const square = (cx: number, cy: number, half: number) =>
    `M${tenths(cx - half)} ${tenths(cy - half)}h${2 * half}v${2 * half}h-${2 * half}z`;
  const [singles, ribbons, flagged]: string[][] = [[], [], []];
  points.forEach((point, index) => {
    const [cx, cy] = [x(index), y(point.loss)];
    // Among hundreds a circle is a dot anyway, and a square is a third of the way to draw.
    if (point.kind === 'single') singles!.push(many ? square(cx, cy, r) : circle(cx, cy, r));
    else ribbons!.push(square(cx, cy, r));
    if (standsOut(point)) flagged!.push(circle(cx, cy, r + 3));
  });
  return { singles: singles!.join(''), ribbons: ribbons!.join(''), flagged: flagged!.join('') };
}

const round = (loss: number) => Math.round(loss * 1000) / 1000;

const markLetters: Readonly<Record<TimeMark['event']['what'], string>> = {
  calibrated: 'C',
  weather: 'W',
  'blade-turned': 'B',
  answered: '',
};

/** "After the calibration at 23:10 of Ribbon 1 its single fibers read lower than before: half at most 0.02 dB (20), before 0.04 (20)." */
function calibrationWords(
  { at, machine: id, kind, before, after, says, chance }: AfterCalibration,
  zone: ShownZone,
  machine: (id: string) => string,
): string {
  const what = kind === 'single' ? 'single fibers' : 'ribbons';
  const told = {
    better: 'read lower than before',
    worse: 'read higher than before',
    'no-difference': 'read no different from before that chance would not make',
  }[says];
  const odds =
    says === 'no-difference'
      ? ''
      : chance < 0.001
        ? ' Chance alone: less than 1 in 1000.'
        : ` Chance alone: about 1 in ${Math.round(1 / chance)}.`;
  const todo =
    says === 'worse'
      ? ' Look at the electrodes and the ends that were used for it, and calibrate once more.'
      : '';
  return `After the calibration of ${machine(id)}, ${dayAndTime(at, zone)}, ${what} ${told}: half at most ${formatLoss(round(after.median))} dB (${after.count}), before ${formatLoss(round(before.median))} (${before.count}).${odds}${todo}`;
}

function rowsOf(
  { points, marks }: InTime,
  units: Units,
  zone: ShownZone,
  place: (point: TimePoint) => string,
  machine: (id: string) => string,
): (readonly [string, string])[] {
  const rows: (readonly [string, string])[] = [];
  let next = 0;
  points.forEach((point, index) => {
    for (; next < marks.length && marks[next]!.before <= index; next += 1)
      rows.push([dayAndTime(marks[next]!.event.at, zone), eventWords(marks[next]!, units, machine)]);
    rows.push([
      `${place(point)}, ${dayAndTime(point.at, zone)}${point.person ? `, ${point.person}` : ''}`,
      `${formatLoss(round(point.loss))} dB`,
    ]);
  });
  return rows;
}

function eventWords({ event }: TimeMark, units: Units, machine: (id: string) => string): string {
  switch (event.what) {
    case 'calibrated':
      return `${machine(event.machine)} calibrated${event.temperature === null ? '' : ` at ${formatTemperature(event.temperature, units)}`}`;
    case 'weather':
      return `weather: ${[event.temperature === null ? null : formatTemperature(event.temperature, units), event.humidity === null ? null : `${event.humidity} % humidity`].filter(Boolean).join(', ') || 'written down'}`;
    case 'blade-turned':
      return 'blade turned';
    case 'answered':
      return '';
  }
}

/** Who made which tries, one after the other; short stretches are left to the list. */
function peopleOf(points: readonly TimePoint[]): { from: number; to: number; person: string | null }[] {
  const stretches: { from: number; to: number; person: string | null }[] = [];
  points.forEach(({ person }, index) => {
    const last = stretches.at(-1);
    if (last && last.person === person) last.to = index;
    else stretches.push({ from: index, to: index, person });
  });
  return stretches.length > 60 ? [] : stretches;
}

function daysOf(points: readonly TimePoint[], zone: ShownZone): { from: number; day: string }[] {
  const days: { from: number; day: string }[] = [];
  points.forEach(({ at }, index) => {
    const day = dayOf(at, zone);
    if (days.at(-1)?.day !== day) days.push({ from: index, day });
  });
  return days;
}

function Tick({ at, width, text }: { at: number; width: number; text: string }) {
  const { palette } = useCordelTheme();
  return (
    <>
      <Line
        x1={margin.left}
        x2={width - margin.right}
        y1={at}
        y2={at}
        stroke={palette.hairline}
        strokeWidth={1}
      />
      <ChartText x={margin.left - 4} y={at + 4} anchor="end">
        {text}
      </ChartText>
    </>
  );
}

function MarkLine({ at, text, color }: { at: number; text: string; color: string }) {
  return (
    <>
      <Line
        x1={at}
        x2={at}
        y1={margin.top - 4}
        y2={height - margin.bottom}
        stroke={color}
        strokeWidth={1}
        strokeDasharray="1 3"
      />
      <ChartText x={at} y={12} anchor="middle" bold color={color}>
        {text}
      </ChartText>
    </>
  );
}

function Stretch({
  from,
  to,
  text,
  y,
  tone,
}: {
  from: number;
  to: number;
  text: string;
  y: number;
  tone: string;
}) {
  return (
    <>
      <Line x1={from} x2={to} y1={y - 10} y2={y - 10} stroke={tone} strokeWidth={3} />
      {to - from > text.length * 6 ? (
        <ChartText x={(from + to) / 2} y={y + 3} anchor="middle" color={tone}>
          {text}
        </ChartText>
      ) : null}
    </>
  );
}

const styles = StyleSheet.create({
  whole: { gap: space.tight },
  frame: { borderWidth: stroke.hair, padding: space.hair },
});

import { crossSection, fiberUnits, schemeOf, colorAt, type Cable } from '@cordel/core';
import { memo } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Ellipse, G, Rect, Text as SvgText } from 'react-native-svg';
import { useCordelTheme } from './theme';
import { faces, glass } from './tokens';

interface CrossSectionProps {
  cable: Cable;
  /** Tube or ribbon that is marked, by its number. */
  chosen: number | null;
  onChoose: (unit: number) => void;
  size: number;
}

/**
 * A cable cut across: its tubes and ribbons in their place, fillers empty. For the eye and the mouse; beside it stands a list of the same
 * tubes for the keyboard and the screen reader.
 */
export const CrossSection = memo(function CrossSection({ cable, chosen, onChoose, size }: CrossSectionProps) {
  const { palette } = useCordelTheme();
  const { construction } = cable;
  const picture = crossSection(construction);
  const scheme = schemeOf(cable);
  const units = fiberUnits(construction);
  const ribbons = picture.ribbons.length > 0;
  const fillOf = (unit: number) => glass[colorAt(scheme, units[unit - 1]?.inTube ?? unit).base];
  const tracerOf = (unit: number) => {
    const { tracer } = colorAt(scheme, units[unit - 1]?.inTube ?? unit);
    return tracer ? glass[tracer] : null;
  };
  const many = picture.tubes.length > 40;
  const line = 0.012;
  return (
    <View aria-hidden>
      <Svg width={size} height={size} viewBox="-1.32 -1.42 2.64 2.64">
        {picture.outline === 'flat' ? (
          <Ellipse cx={0} cy={0} rx={1} ry={0.45} fill={palette.ink} />
        ) : (
          <Circle cx={0} cy={0} r={1} fill={palette.ink} />
        )}
        {picture.outline === 'flat' ? (
          <Ellipse cx={0} cy={0} rx={0.94} ry={0.39} fill={palette.ground} />
        ) : (
          <Circle cx={0} cy={0} r={0.95} fill={palette.ground} />
        )}
        {picture.rods.map((rod, index) => (
          <Circle
            key={index}
            cx={rod.x}
            cy={rod.y}
            r={rod.r}
            fill={palette.hairline}
            stroke={palette.soft}
            strokeWidth={line}
          />
        ))}
        {picture.extras.map((extra) => (
          <Circle
            key={extra.what}
            cx={extra.x}
            cy={extra.y}
            r={extra.r}
            fill={palette.soft}
            stroke={palette.ink}
            strokeWidth={line}
          />
        ))}
        {picture.tubes.map(({ x, y, r, place, tube }) => {
          // A tube around ribbons, a filler and a drop's tube have no color of their own to show here.
          const plain = tube === null || ribbons || units[0]!.kind === 'bundle';
          return (
            <G key={place} {...(tube !== null && !ribbons ? { onPress: () => onChoose(tube) } : {})}>
              <Circle
                cx={x}
                cy={y}
                r={r}
                fill={plain ? palette.sheet : fillOf(tube)}
                stroke={palette.ink}
                strokeWidth={!ribbons && tube !== null && tube === chosen ? 0.05 : line}
                {...(tube === null && !ribbons ? { strokeDasharray: '0.05 0.04' } : {})}
              />
              {!plain && tracerOf(tube) ? (
                <Rect
                  x={x - r * 0.12}
                  y={y - r * 0.9}
                  width={r * 0.24}
                  height={r * 1.8}
                  fill={tracerOf(tube)!}
                />
              ) : null}
              {!plain && !many ? (
                <>
                  <Circle cx={x} cy={y} r={r * 0.52} fill={palette.sheet} />
                  <SvgText
                    x={x}
                    y={y + r * 0.24}
                    fontSize={r * 0.7}
                    fontFamily={faces.sansBold}
                    fill={palette.ink}
                    textAnchor="middle"
                  >
                    {tube}
                  </SvgText>
                </>
              ) : null}
            </G>
          );
        })}
        {picture.ribbons.map(({ unit, x, y, width, height }) => (
          <G key={unit} onPress={() => onChoose(unit)}>
            <Rect
              x={x}
              y={y}
              width={width}
              height={height}
              fill={fillOf(unit)}
              stroke={palette.ink}
              strokeWidth={unit === chosen ? 0.035 : 0.006}
            />
            {tracerOf(unit) ? (
              <Rect x={x + width * 0.45} y={y} width={width * 0.1} height={height} fill={tracerOf(unit)!} />
            ) : null}
          </G>
        ))}
      </Svg>
    </View>
  );
});

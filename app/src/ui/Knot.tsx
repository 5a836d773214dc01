import type { Mark } from '@cordel/core';
import { memo } from 'react';
import Svg, { Circle, Line, Path, Rect } from 'react-native-svg';
import { useCordelTheme } from './theme';

/**
 * A verdict's mark on the cord. Tied: holds. Loose ring: open. Frayed: redo. Tagged: the owner's, with a bar once allowed. Shape
 * carries the meaning, color only supports it, and the word always stands beside it.
 */
export const Knot = memo(function Knot({ mark, size = 20 }: { mark: Mark; size?: number }) {
  const { palette } = useCordelTheme();
  return (
    <Svg width={size} height={size} viewBox="0 0 20 20" aria-hidden>
      {mark === 'open' ? (
        <Circle cx={10} cy={10} r={7} fill={palette.ground} stroke={palette.ink} strokeWidth={2.2} />
      ) : null}
      {mark === 'holds' ? (
        <>
          <Circle cx={10} cy={10} r={8} fill={palette.ink} />
          <Line x1={6} y1={7} x2={14} y2={13} stroke={palette.ground} strokeWidth={2.4} />
        </>
      ) : null}
      {mark === 'redo' ? (
        <Path d={frayed} fill={palette.accent} stroke={palette.ground} strokeWidth={1} />
      ) : null}
      {mark === 'owner' || mark === 'allowed' ? (
        <>
          <Path
            d="M10 1 L19 10 L10 19 L1 10 Z"
            fill={mark === 'owner' ? palette.ground : palette.ink}
            stroke={palette.ink}
            strokeWidth={2}
          />
          {mark === 'owner' ? (
            <Circle cx={10} cy={10} r={2.4} fill={palette.ink} />
          ) : (
            <Rect x={5.5} y={8.8} width={9} height={2.4} fill={palette.ground} />
          )}
        </>
      ) : null}
    </Svg>
  );
});

/** Eight loose strands. */
const frayed = Array.from({ length: 16 }, (_, index) => {
  const radius = index % 2 === 0 ? 9.5 : 3.8;
  const angle = (index * Math.PI) / 8;
  const point = `${(10 + radius * Math.sin(angle)).toFixed(2)} ${(10 - radius * Math.cos(angle)).toFixed(2)}`;
  return `${index === 0 ? 'M' : 'L'}${point}`;
})
  .join(' ')
  .concat(' Z');

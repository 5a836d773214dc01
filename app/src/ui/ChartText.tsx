import { Text } from 'react-native-svg';
import { useCordelTheme } from './theme';
import { faces } from './tokens';

/** A number or a word in a chart, as small as such may be. */
export function ChartText({
  x,
  y,
  anchor = 'start',
  bold = false,
  color,
  children,
}: {
  x: number;
  y: number;
  anchor?: 'start' | 'middle' | 'end';
  bold?: boolean;
  /** Soft where none is given. */
  color?: string;
  children: string | number;
}) {
  const { palette } = useCordelTheme();
  return (
    <Text
      x={x}
      y={y}
      textAnchor={anchor}
      fontFamily={bold ? faces.sansBold : faces.sans}
      fontSize={11}
      fill={color ?? palette.soft}
    >
      {children}
    </Text>
  );
}

import { memo, useState } from 'react';
import { Text, useWindowDimensions, View } from 'react-native';
import { useCordelTheme } from './theme';
import { faces, far, gutter, type Palette } from './tokens';

/** How wide a character of the slab serif is, of its size; the widest words are measured. */
const character = 0.58;

/** Words that are read at two meters: as large as the width allows, and never cut. */
export const FarText = memo(function FarText({
  text,
  most = far.word,
  tone = 'ink',
  align = 'left',
}: {
  /** Lines are broken where it has blanks. */
  text: string;
  /** px */
  most?: number;
  tone?: keyof Palette;
  align?: 'left' | 'right';
}) {
  const { palette } = useCordelTheme();
  const window = useWindowDimensions();
  const [width, setWidth] = useState(Math.min(window.width, 600) - gutter.width);
  const longest = Math.max(...text.split(' ').map((word) => word.length));
  const fontSize = Math.min(most, Math.floor(width / (longest * character)));
  return (
    <View onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}>
      <Text
        style={{
          color: palette[tone],
          fontFamily: faces.slab,
          fontSize,
          lineHeight: fontSize * 1.02,
          fontVariant: ['lining-nums', 'tabular-nums'],
          textAlign: align,
        }}
      >
        {text}
      </Text>
    </View>
  );
});

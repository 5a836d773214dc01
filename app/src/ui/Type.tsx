import { memo } from 'react';
import { StyleSheet, Text, type TextProps, type TextStyle } from 'react-native';
import { useCordelTheme, type CordelTheme } from './theme';
import { faces, type Palette, type sizes } from './tokens';

type Look = 'huge' | 'title' | 'heading' | 'reading' | 'key' | 'body' | 'strong' | 'small' | 'smallStrong';

const looks: Record<Look, { size: keyof typeof sizes; face: keyof typeof faces; line: number }> = {
  huge: { size: 'huge', face: 'slab', line: 1.1 },
  key: { size: 'key', face: 'slab', line: 1.1 },
  title: { size: 'title', face: 'slab', line: 1.2 },
  heading: { size: 'heading', face: 'slab', line: 1.25 },
  reading: { size: 'reading', face: 'slab', line: 1.2 },
  body: { size: 'body', face: 'sans', line: 1.35 },
  strong: { size: 'body', face: 'sansBold', line: 1.35 },
  small: { size: 'small', face: 'sans', line: 1.35 },
  smallStrong: { size: 'small', face: 'sansBold', line: 1.35 },
};

export interface TypeProps extends TextProps {
  look?: Look;
  tone?: keyof Palette;
}

/** All text: a slab serif for titles and readings, a legible sans for the rest, figures lined up. */
export const Type = memo(function Type({ look = 'body', tone = 'ink', style, ...props }: TypeProps) {
  const theme = useCordelTheme();
  return <Text {...props} style={[lookOf(theme, look, tone), style]} />;
});

const made = new WeakMap<CordelTheme, Map<string, TextStyle>>();

/** Made once for each theme: a style that is known beforehand is set by its name, not property by property, and text is everywhere. */
function lookOf(theme: CordelTheme, look: Look, tone: keyof Palette): TextStyle {
  let known = made.get(theme);
  if (!known) made.set(theme, (known = new Map<string, TextStyle>()));
  const key = `${look} ${tone}`;
  let style = known.get(key);
  if (!style) {
    const { size, face, line } = looks[look];
    const fontSize = theme.size(size);
    ({ style } = StyleSheet.create({
      style: {
        color: theme.palette[tone],
        fontFamily: faces[face],
        fontSize,
        lineHeight: fontSize * line,
        // Without both, the slab's digits stand at different heights and widths and dance as they change.
        fontVariant: ['lining-nums', 'tabular-nums'],
      },
    }));
    known.set(key, style);
  }
  return style;
}

/** Words for a screen reader that the picture beside them says to the eye. */
export const SpokenOnly = memo(function SpokenOnly({ text }: { text: string }) {
  return <Text style={styles.spoken}>{text}</Text>;
});

const styles = StyleSheet.create({
  spoken: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});

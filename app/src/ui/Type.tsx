import { StyleSheet, Text, type TextProps } from 'react-native';
import { useCordelTheme } from './theme';
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
export function Type({ look = 'body', tone = 'ink', style, ...props }: TypeProps) {
  const theme = useCordelTheme();
  const { size, face, line } = looks[look];
  const fontSize = theme.size(size);
  return (
    <Text
      {...props}
      style={[
        styles.figures,
        {
          color: theme.palette[tone],
          fontFamily: faces[face],
          fontSize,
          lineHeight: fontSize * line,
        },
        style,
      ]}
    />
  );
}

/** Words for a screen reader that the picture beside them says to the eye. */
export function SpokenOnly({ text }: { text: string }) {
  return <Text style={styles.spoken}>{text}</Text>;
}

const styles = StyleSheet.create({
  spoken: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
  // Without both, the slab's digits stand at different heights and widths and dance as they change.
  figures: { fontVariant: ['lining-nums', 'tabular-nums'] },
});

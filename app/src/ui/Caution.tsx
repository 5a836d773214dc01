import { StyleSheet, View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { useCordelTheme } from './theme';
import { space, stroke } from './tokens';
import { Type } from './Type';

/** A caution at the step where the risk is, with a block-print sign. Local code and the owner's rules come first. */
export function Caution({ text }: { text: string }) {
  const { palette } = useCordelTheme();
  return (
    <View role="note" aria-label={`Caution: ${text}`} style={[styles.caution, { borderColor: palette.ink }]}>
      <Svg width={30} height={30} viewBox="0 0 30 30" aria-hidden>
        <Path d="M15 2 L29 27 L1 27 Z" fill={palette.ink} />
        <Rect x={13.4} y={10} width={3.2} height={9} fill={palette.sheet} />
        <Rect x={13.4} y={21} width={3.2} height={3.2} fill={palette.sheet} />
      </Svg>
      <Type look="small" style={styles.words}>
        {text}
      </Type>
    </View>
  );
}

const styles = StyleSheet.create({
  caution: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.medium,
    borderWidth: stroke.rule,
    padding: space.small,
  },
  words: { flex: 1 },
});

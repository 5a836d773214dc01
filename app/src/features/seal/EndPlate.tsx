import { endPlate, openingWords, sealKey, type Opening } from '@cordel/core/seal';
import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { Circle, Rect } from 'react-native-svg';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke } from '../../ui/tokens';
import { SpokenOnly, Type } from '../../ui/Type';

/** What is drawn of an opening: done and good, bubbling, or nothing yet. */
export type SpotState = 'good' | 'bubbles' | 'open';

/** A drawing of the end plate with its openings, to be tapped; a plug is drawn thin. Color is never the only sign: a bubbling one has its bubbles. */
export function EndPlate({
  openings,
  stateOf,
  wordOf,
  chosen,
  onPress,
}: {
  openings: readonly Opening[];
  stateOf: (opening: Opening) => SpotState;
  /** What its state is called, for a screen reader. */
  wordOf: (opening: Opening) => string;
  /** Key of the seal that is next or picked. */
  chosen: string | null;
  onPress: (opening: Opening) => void;
}) {
  const { palette } = useCordelTheme();
  const { spots, height, ring } = endPlate(openings);
  const share = (value: number): `${number}%` => `${Math.round(value * 1e5) / 1e3}%`;
  return (
    <View
      role="group"
      aria-label="End plate"
      style={[styles.plate, { aspectRatio: 1 / height, borderColor: palette.ink }, ring ? null : styles.rows]}
    >
      <View style={StyleSheet.absoluteFill} aria-hidden>
        <Svg width="100%" height="100%" viewBox={`0 0 100 ${100 * height}`}>
          {ring ? (
            <>
              <Circle cx={50} cy={50} r={49} fill={palette.sheet} stroke={palette.ink} strokeWidth={1.2} />
              <Rect x={48.4} y={0.4} width={3.2} height={4} fill={palette.ink} />
              <Circle cx={50} cy={50} r={4} fill="none" stroke={palette.soft} strokeWidth={0.8} />
            </>
          ) : null}
          {spots.map(({ opening, x, y, r }) =>
            stateOf(opening) === 'bubbles' ? (
              <Bubbles
                key={sealKey(opening.seal)}
                x={x * 100}
                y={y * 100}
                r={r * 100}
                color={palette.accent}
              />
            ) : null,
          )}
        </Svg>
      </View>
      {spots.map(({ opening, x, y, r }) => {
        const key = sealKey(opening.seal);
        const state = stateOf(opening);
        const here = key === chosen;
        const plug = opening.guests.length === 0;
        return (
          <Pressable
            key={key}
            role="button"
            aria-pressed={here}
            hitSlop={6}
            onPress={() => onPress(opening)}
            style={[
              styles.spot,
              {
                left: share(x - r),
                top: share((y - r) / height),
                width: share(2 * r),
                height: share((2 * r) / height),
                borderColor: here || state === 'bubbles' ? palette.accent : palette.ink,
                borderWidth: here ? 5 : plug ? stroke.hair : stroke.heavy,
                backgroundColor: state === 'good' ? palette.ink : palette.ground,
              },
            ]}
          >
            <View style={styles.label}>
              <Type look={plug ? 'small' : 'heading'} tone={state === 'good' ? 'ground' : 'ink'}>
                {opening.number ?? '?'}
              </Type>
              {plug ? null : (
                <Type look="small" tone={state === 'good' ? 'ground' : 'ink'}>
                  {opening.guests.map(({ seat }) => seat.key).join(' ')}
                </Type>
              )}
              <SpokenOnly text={` ${openingWords(opening)}, ${wordOf(opening)}`} />
            </View>
          </Pressable>
        );
      })}
    </View>
  );
}

/** Three bubbles that rise from the edge of an opening. */
function Bubbles({ x, y, r, color }: { x: number; y: number; r: number; color: string }) {
  return (
    <>
      {[
        [0.75, -0.95, 0.2],
        [1.12, -0.62, 0.13],
        [0.32, -1.25, 0.12],
        [-0.9, -0.9, 0.14],
      ].map(([dx, dy, size], index) => (
        <Circle
          key={index}
          cx={x + dx! * r}
          cy={y + dy! * r}
          r={size! * r}
          fill="none"
          stroke={color}
          strokeWidth={1}
        />
      ))}
    </>
  );
}

const styles = StyleSheet.create({
  plate: { width: '100%', maxWidth: 360, position: 'relative', alignSelf: 'center' },
  rows: { borderWidth: stroke.rule, maxWidth: 480, marginBottom: space.small },
  label: { alignItems: 'center' },
  spot: { position: 'absolute', borderRadius: 999, alignItems: 'center', justifyContent: 'center' },
});

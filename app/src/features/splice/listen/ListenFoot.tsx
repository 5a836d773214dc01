import { useEffect, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import type { Linked } from '../../../data/machine/linked';
import { Action } from '../../../ui/Action';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { Bench } from '../bench/types';
import type { Heating, Listening } from './useListening';

export interface BigKey {
  readonly label: string;
  readonly detail?: string;
  readonly onPress: () => void;
}

/** Under the thumb: one big key for whatever is next, and what is seldom needed. */
export function ListenFoot({
  big,
  linked,
  listening,
  bench,
  onAgain,
  onByHand,
  onMachine,
}: {
  big: BigKey;
  linked: Linked | null;
  listening: Listening;
  bench: Bench;
  onAgain: () => void;
  onByHand: (() => void) | null;
  onMachine: () => void;
}) {
  const { palette } = useCordelTheme();
  return (
    <View style={styles.foot}>
      <Pressable
        role="button"
        onPress={big.onPress}
        style={(state) => [
          styles.big,
          { backgroundColor: palette.sheet, borderColor: palette.ink },
          state.pressed && styles.pressed,
        ]}
      >
        <Type look="huge">{big.label}</Type>
        {big.detail ? <Type look="small">{big.detail}</Type> : null}
      </Pressable>
      <View style={styles.row}>
        <Action bench label="Again" onPress={onAgain} style={styles.flex} />
        {onByHand ? <Action bench label="By hand" onPress={onByHand} style={styles.flex} /> : null}
        <Action bench label="Machine" onPress={onMachine} style={styles.flex} />
        {bench.last?.takeBack ? (
          <Action bench label="Take back" onPress={bench.takeBack} style={styles.flex} />
        ) : null}
      </View>
      <View style={styles.state}>
        <Type look="small" tone="soft">
          {linked
            ? `${linked.name}${linked.simulated ? ': no glass is involved' : ''}`
            : 'No machine is linked'}
          {listening.link?.is === 'listening' ? ' · linked' : ''}
        </Type>
        {listening.heating.map((one) => (
          <HeaterClock key={one.since} heating={one} />
        ))}
      </View>
    </View>
  );
}

function HeaterClock({ heating }: { heating: Heating }) {
  const [now, setNow] = useState(heating.since);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const left = Math.max(0, Math.ceil(heating.seconds - (now - heating.since) / 1000));
  return (
    <Type look="small" tone="soft">
      Heater “{heating.program}” {left} s
    </Type>
  );
}

const styles = StyleSheet.create({
  foot: { padding: space.small, gap: space.small },
  big: {
    minHeight: 96,
    borderWidth: stroke.cord,
    alignItems: 'center',
    justifyContent: 'center',
    padding: space.small,
  },
  pressed: { opacity: 0.6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  flex: { flexGrow: 1, flexShrink: 1, paddingHorizontal: space.tight, minWidth: touch.bench },
  state: { flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-between', columnGap: space.medium },
});

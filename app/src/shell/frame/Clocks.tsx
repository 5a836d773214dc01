import { memo, useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { clockWords, secondsLeft, stopTimer, useNow, useTimers, type Timer } from '../../data/timers';
import { Action } from '../../ui/Action';
import { buzz } from '../../ui/buzz';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';

/** The clocks that run, on every screen; a clock that is done says so until it is put away. */
export const Clocks = memo(function Clocks() {
  const timers = useTimers();
  const now = useNow(timers);
  return timers.map((timer) => <Clock key={timer.id} timer={timer} left={secondsLeft(timer, now)} />);
});

function Clock({ timer, left }: { timer: Timer; left: number }) {
  const { palette } = useCordelTheme();
  const done = left === 0;
  useEffect(() => {
    if (done) buzz([200, 100, 200]);
  }, [done]);
  return (
    <View style={[styles.clock, { backgroundColor: palette.sheet, borderBottomColor: palette.ink }]}>
      <View style={styles.words} role={done ? 'alert' : 'timer'}>
        <Type look="strong" tone={done ? 'accent' : 'ink'}>
          {done ? `${timer.label}: done` : `${timer.label}: ${clockWords(left)}`}
        </Type>
      </View>
      <Action
        label={done ? 'Put away' : 'Stop'}
        spoken={`${done ? 'Put away' : 'Stop'} the clock: ${timer.label}`}
        onPress={() => stopTimer(timer.id)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  clock: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.medium,
    padding: space.tight,
    paddingLeft: gutter.width,
    borderBottomWidth: stroke.rule,
  },
  words: { flex: 1 },
});

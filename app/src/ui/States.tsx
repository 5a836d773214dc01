import { StyleSheet, View } from 'react-native';
import { Action } from './Action';
import { gutter, space } from './tokens';
import { Type } from './Type';

/** An empty place says what belongs there and offers the first step. */
export function Empty({
  title,
  text,
  children,
}: {
  title: string;
  text: string;
  children?: React.ReactNode;
}) {
  return (
    <View style={styles.box}>
      <Type look="heading">{title}</Type>
      <Type>{text}</Type>
      {children}
    </View>
  );
}

/** What could not be loaded, and the way to try again. */
export function Failed({ error, onRetry }: { error: Error; onRetry: () => void }) {
  return (
    <View style={styles.box} role="alert">
      <Type look="heading">This did not load</Type>
      <Type>{error.message}</Type>
      <Action label="Try again" onPress={onRetry} />
    </View>
  );
}

export function Loading({ what }: { what: string }) {
  return (
    <View style={styles.box} role="status">
      <Type tone="soft">Loading {what} …</Type>
    </View>
  );
}

const styles = StyleSheet.create({
  box: {
    padding: space.wide,
    paddingLeft: gutter.width,
    gap: space.medium,
    alignItems: 'flex-start',
    maxWidth: 640,
  },
});

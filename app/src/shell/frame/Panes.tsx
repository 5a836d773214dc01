import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme, useWide } from '../../ui/theme';
import { stroke } from '../../ui/tokens';

/** Cord, work and ledger side by side on a wide screen; on a phone the work alone. */
export function Panes({
  cord,
  ledger,
  children,
}: {
  cord: ReactNode;
  ledger?: ReactNode;
  children: ReactNode;
}) {
  const { palette } = useCordelTheme();
  if (!useWide()) return children;
  return (
    <View style={styles.panes}>
      <View
        role="navigation"
        aria-label="Cord"
        style={[styles.cord, { borderRightColor: palette.ink, backgroundColor: palette.sheet }]}
      >
        {cord}
      </View>
      <View style={styles.work}>{children}</View>
      {ledger ? (
        <View
          role="complementary"
          aria-label="Ledger"
          style={[styles.ledger, { borderLeftColor: palette.ink, backgroundColor: palette.ground }]}
        >
          {ledger}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  panes: { flex: 1, flexDirection: 'row' },
  cord: { width: 300, borderRightWidth: stroke.rule },
  work: { flex: 1, minWidth: 0 },
  ledger: { width: 380, borderLeftWidth: stroke.rule },
});

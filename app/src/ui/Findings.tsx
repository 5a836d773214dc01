import type { Finding } from '@cordel/core';
import { StyleSheet, View } from 'react-native';
import { space } from './tokens';
import { Type } from './Type';

/** What is wrong, errors first, each in words that say what to do. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  const sorted = [...findings].sort(
    (a, b) => Number(b.severity === 'error') - Number(a.severity === 'error'),
  );
  return (
    <View style={styles.list} aria-live="polite">
      {sorted.map(({ code, severity, message }, index) => (
        <View key={`${code}${index}`}>
          <Type look="smallStrong" tone={severity === 'error' ? 'accent' : 'ink'}>
            {severity === 'error' ? 'Wrong' : 'Mind'}
          </Type>
          <Type look="small">{message}</Type>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ list: { gap: space.small } });

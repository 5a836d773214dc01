import type { Finding } from '@cordel/core';
import { StyleSheet, View } from 'react-native';
import { space } from './tokens';
import { Type } from './Type';

/** What is wrong, errors first, each in the words of its stage, which say what to do. */
export function Findings<F extends Finding>({
  findings,
  words,
}: {
  findings: readonly F[];
  words: (finding: F) => string;
}) {
  if (findings.length === 0) return null;
  const sorted = [...findings].sort(
    (a, b) => Number(b.severity === 'error') - Number(a.severity === 'error'),
  );
  return (
    <View style={styles.list} aria-live="polite">
      {sorted.map((finding, index) => (
        <View key={`${finding.code}${index}`}>
          <Type look="smallStrong" tone={finding.severity === 'error' ? 'accent' : 'ink'}>
            {finding.severity === 'error' ? 'Wrong' : 'Mind'}
          </Type>
          <Type look="small">{words(finding)}</Type>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ list: { gap: space.small } });

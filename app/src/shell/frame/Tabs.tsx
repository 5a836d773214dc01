import { router, type Href } from 'expo-router';
import { Pressable, StyleSheet, View } from 'react-native';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';

export interface Tab {
  readonly label: string;
  readonly href: Href;
  readonly here: boolean;
}

/** The project's few places, at the foot of the phone. */
export function Tabs({ tabs }: { tabs: readonly Tab[] }) {
  const { palette } = useCordelTheme();
  return (
    <View role="navigation" aria-label="Project" style={styles.tabs}>
      {tabs.map((tab) => (
        <Pressable
          key={tab.label}
          role="link"
          aria-label={tab.label}
          aria-current={tab.here ? 'page' : undefined}
          onPress={() => router.navigate(tab.href)}
          style={[styles.tab, { borderTopColor: tab.here ? palette.ink : 'transparent' }]}
        >
          <Type look={tab.here ? 'strong' : 'body'}>{tab.label}</Type>
        </Pressable>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  tabs: { flexDirection: 'row', flexWrap: 'wrap' },
  tab: {
    flexGrow: 1,
    minWidth: 64,
    minHeight: touch.bench,
    alignItems: 'center',
    justifyContent: 'center',
    borderTopWidth: stroke.cord,
    padding: space.tight,
  },
});

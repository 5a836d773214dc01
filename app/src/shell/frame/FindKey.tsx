import { router, usePathname } from 'expo-router';
import { memo, useEffect } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import { Icon } from '../../ui/Icon';
import { useCordelTheme } from '../../ui/theme';
import { gutter, touch } from '../../ui/tokens';
import { places } from '../places';

const ofProject = /^\/p\/([^/]+)/;

/** Leads to the search field from every page, by a tap or by the key “/”. At the bench only the key: its head is full. */
export const FindKey = memo(function FindKey({
  shown,
  onCord = false,
}: {
  shown: boolean;
  /** In the gutter, centered on the cord. */
  onCord?: boolean;
}) {
  const { palette, size } = useCordelTheme();
  const path = usePathname();
  const there = path === '/find';
  const projectId = ofProject.exec(path)?.[1];
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event;
      const typing =
        target instanceof HTMLElement &&
        (target.isContentEditable || /^(INPUT|TEXTAREA)$/.test(target.tagName));
      if (event.key !== '/' || typing || there || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      router.navigate(places.find(projectId));
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [projectId, there]);
  if (!shown || there) return null;
  return (
    <Pressable
      role="link"
      aria-label="Find"
      onPress={() => router.navigate(places.find(projectId))}
      style={[styles.key, onCord && [styles.onCord, { backgroundColor: palette.ground }]]}
    >
      <Icon name="find" size={size('title')} color={palette.ink} />
    </Pressable>
  );
});

const styles = StyleSheet.create({
  key: { width: touch.normal, minHeight: touch.normal, alignItems: 'center', justifyContent: 'center' },
  onCord: { marginLeft: gutter.cord - touch.normal / 2 },
});

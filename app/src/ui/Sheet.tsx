import type { ReactNode } from 'react';
import { Modal, Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Icon } from './Icon';
import { useCordelTheme } from './theme';
import { space, stroke, touch } from './tokens';
import { Type } from './Type';

/** A sheet of paper laid over the page; Escape, its cross or a tap beside it puts it away. */
export function Sheet({
  title,
  open,
  onClose,
  children,
}: {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  const { palette, size } = useCordelTheme();
  return (
    <Modal visible={open} transparent onRequestClose={onClose} aria-label={title}>
      <View style={styles.over}>
        <Pressable aria-hidden tabIndex={-1} style={styles.beside} onPress={onClose} />
        <View style={[styles.sheet, { backgroundColor: palette.sheet, borderColor: palette.ink }]}>
          <View style={[styles.head, { borderBottomColor: palette.hairline }]}>
            <Type look="title" role="heading" aria-level={2} style={styles.title}>
              {title}
            </Type>
            <Pressable role="button" aria-label="Close" onPress={onClose} style={styles.close}>
              <Icon name="close" size={size('title')} color={palette.ink} />
            </Pressable>
          </View>
          <ScrollView contentContainerStyle={styles.body}>{children}</ScrollView>
        </View>
      </View>
    </Modal>
  );
}

const styles = StyleSheet.create({
  over: { flex: 1, justifyContent: 'flex-end', alignItems: 'center' },
  beside: { position: 'absolute', inset: 0, backgroundColor: 'rgba(0, 0, 0, 0.55)' },
  sheet: { width: '100%', maxWidth: 560, maxHeight: '88%', borderWidth: stroke.heavy, marginBottom: 0 },
  head: {
    flexDirection: 'row',
    alignItems: 'center',
    borderBottomWidth: stroke.hair,
    paddingLeft: space.large,
  },
  title: { flex: 1, paddingVertical: space.medium },
  close: { width: touch.bench, height: touch.bench, alignItems: 'center', justifyContent: 'center' },
  body: { padding: space.large, gap: space.large },
});

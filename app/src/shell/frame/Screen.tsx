import { router, usePathname, type Href } from 'expo-router';
import { memo, useEffect, useRef, type ReactNode } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Clocks } from './Clocks';
import { PressureStrip } from './PressureStrip';
import { FindKey } from './FindKey';
import { Icon } from '../../ui/Icon';
import { NotKeptNotice, SendWords } from './SendStatus';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';

interface ScreenProps {
  title: string;
  subtitle?: string | undefined;
  /** Where the cord leads upward; absent at its beginning. */
  up?: { href: Href; name: string };
  /** At the bench everything is as large as a glove asks for. */
  bench?: boolean;
  /** At the right end of the header. */
  corner?: ReactNode;
  /** Stays below the scrolling part, under the thumb. */
  foot?: ReactNode;
  children: ReactNode;
}

/** A page: its name at the head of the cord, its body, and the action of the moment at the foot. */
export function Screen({ title, subtitle, up, bench = false, corner, foot, children }: ScreenProps) {
  const { palette, textScale } = useCordelTheme();
  const heading = useRef<View>(null);
  const path = usePathname();
  // Large names want the whole width; the key stands on the cord then.
  const large = textScale > 1.2;

  useEffect(() => {
    document.title = `${title} · Cordel`;
  }, [title]);

  // After a move a keyboard or a screen reader starts at the new page's name, not somewhere on the old one. Who opened a sheet meanwhile stays in it: the bench's address
  // follows a moment after a move.
  useEffect(() => {
    if (!document.activeElement?.closest('[aria-modal]')) heading.current?.focus();
  }, [path]);

  return (
    <View style={[styles.screen, { backgroundColor: palette.ground }]}>
      <View role="banner" style={[styles.head, { borderBottomColor: palette.ink }]}>
        <View style={styles.gutter}>
          <View
            aria-hidden
            style={[styles.cord, { backgroundColor: palette.ink, top: up ? undefined : '50%' }]}
          />
          {up ? <UpTheCord href={up.href} name={up.name} side={bench ? touch.bench : touch.normal} /> : null}
          {large ? <FindKey shown={!bench} onCord /> : null}
        </View>
        <View ref={heading} tabIndex={-1} style={styles.names}>
          <Type look="title" role="heading" aria-level={1}>
            {title}
          </Type>
          <SendWords after={subtitle} linked={!bench} />
        </View>
        {large ? null : <FindKey shown={!bench} />}
        {corner}
      </View>
      <Clocks />
      <PressureStrip />
      <NotKeptNotice />
      <View role="main" style={styles.body}>
        {children}
      </View>
      {!foot ? null : bench && large ? (
        // At large text it is longer than the window: it scrolls, and leaves room for what is worked on.
        <ScrollView tabIndex={0} style={[styles.foot, styles.large, { borderTopColor: palette.ink }]}>
          {foot}
        </ScrollView>
      ) : (
        <View style={[styles.foot, { borderTopColor: palette.ink }]}>{foot}</View>
      )}
    </View>
  );
}

const UpTheCord = memo(function UpTheCord({
  href,
  name,
  side,
}: NonNullable<ScreenProps['up']> & { side: number }) {
  const { palette, size } = useCordelTheme();
  return (
    <Pressable
      role="link"
      aria-label={`Up to ${name}`}
      onPress={() => router.navigate(href)}
      style={[
        styles.up,
        { width: side, height: side, marginLeft: gutter.cord - side / 2, backgroundColor: palette.ground },
      ]}
    >
      <Icon name="back" size={size('title')} color={palette.ink} />
    </Pressable>
  );
});

const styles = StyleSheet.create({
  screen: { flex: 1 },
  head: {
    flexDirection: 'row',
    alignItems: 'stretch',
    minHeight: 64,
    borderBottomWidth: stroke.rule,
    paddingRight: space.medium,
    gap: space.tight,
  },
  gutter: { width: gutter.width, position: 'relative', justifyContent: 'center', alignItems: 'flex-start' },
  cord: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    left: gutter.cord - stroke.cord / 2,
    width: stroke.cord,
  },
  up: {
    alignItems: 'center',
    justifyContent: 'center',
  },
  names: { flex: 1, justifyContent: 'center', paddingVertical: space.small },
  body: { flex: 1, minHeight: 0 },
  foot: { borderTopWidth: stroke.rule },
  large: { flexGrow: 0, maxHeight: '62%' },
});

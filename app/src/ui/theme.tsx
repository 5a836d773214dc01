import { useEffect, useMemo, type ReactNode } from 'react';
import { useColorScheme, useWindowDimensions } from 'react-native';
import {
  MD3DarkTheme,
  MD3LightTheme,
  PaperProvider,
  configureFonts,
  useTheme,
  type MD3Theme,
} from 'react-native-paper';
import { usePreferences } from '../data/preferences';
import { PaperIcon } from './Icon';
import { day, faces, night, sizes, wideFrom, type Palette } from './tokens';

export type CordelTheme = MD3Theme & {
  readonly palette: Palette;
  /** Font size at the person's text size. */
  readonly size: (name: keyof typeof sizes) => number;
  readonly textScale: number;
};

/** Day and night, text size and faces, carried by Paper's theme. Follows the system unless the person chose. */
export function CordelThemeProvider({ children }: { children: ReactNode }) {
  const { appearance, textSize } = usePreferences();
  const system = useColorScheme();
  const dark = appearance === 'system' ? system === 'dark' : appearance === 'night';
  const textScale = textSize * browserTextScale();

  const theme = useMemo((): CordelTheme => {
    const palette = dark ? night : day;
    const base = dark ? MD3DarkTheme : MD3LightTheme;
    return {
      ...base,
      roundness: 0,
      fonts: configureFonts({ config: { fontFamily: faces.sans } }),
      colors: {
        ...base.colors,
        primary: palette.ink,
        onPrimary: palette.ground,
        background: palette.ground,
        onBackground: palette.ink,
        surface: palette.sheet,
        onSurface: palette.ink,
        surfaceVariant: palette.sheet,
        onSurfaceVariant: palette.soft,
        outline: palette.ink,
        error: palette.accent,
        elevation: {
          level0: 'transparent',
          level1: palette.sheet,
          level2: palette.sheet,
          level3: palette.sheet,
          level4: palette.sheet,
          level5: palette.sheet,
        },
        backdrop: 'rgba(0, 0, 0, 0.55)',
      },
      palette,
      textScale,
      size: (name) => sizes[name] * textScale,
    };
  }, [dark, textScale]);

  useEffect(() => {
    const { style } = document.documentElement;
    style.setProperty('--ground', theme.palette.ground);
    style.setProperty('--ink', theme.palette.ink);
    style.setProperty('color-scheme', dark ? 'dark' : 'light');
  }, [theme, dark]);

  return (
    <PaperProvider theme={theme} settings={{ icon: PaperIcon }}>
      {children}
    </PaperProvider>
  );
}

/** A person who set larger text in the browser gets it here too. */
function browserTextScale(): number {
  const root = Number.parseFloat(getComputedStyle(document.documentElement).fontSize);
  return Number.isFinite(root) && root > 0 ? root / 16 : 1;
}

export const useCordelTheme = () => useTheme<CordelTheme>();

export function useWide(): boolean {
  return useWindowDimensions().width >= wideFrom;
}

import { AtkinsonHyperlegibleNext_400Regular } from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular';
import { AtkinsonHyperlegibleNext_700Bold } from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold';
import { ZillaSlab_600SemiBold } from '@expo-google-fonts/zilla-slab/600SemiBold';
import { QueryClientProvider } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useEffect } from 'react';
import { queryClient } from '../data/client';
import { useDecimalSign } from '../data/preferences';
import { engine } from '../sync/here';
import { keepOnDevice } from '../shell/version/keepOnDevice';
import { CordelThemeProvider } from '../ui/theme';

export default function Layout() {
  // Nothing waits for the fonts: until they are there the system's stand in.
  useFonts({ ZillaSlab_600SemiBold, AtkinsonHyperlegibleNext_400Regular, AtkinsonHyperlegibleNext_700Bold });
  // Written anew everywhere, where it changes.
  const decimalSign = useDecimalSign();
  // What waits here is sent, whatever screen is opened.
  useEffect(() => void engine(), []);
  useEffect(keepOnDevice, []);
  return (
    <QueryClientProvider client={queryClient}>
      <CordelThemeProvider>
        <Slot key={decimalSign} />
      </CordelThemeProvider>
    </QueryClientProvider>
  );
}

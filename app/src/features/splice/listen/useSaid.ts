import { useEffect, useRef } from 'react';
import { getPreferences } from '../../../data/preferences';
import { buzz } from '../../../ui/buzz';
import { speak } from '../../../ui/speak';
import { buzzOf, sound, type Tone } from '../../../ui/tones';

/** Says something once, as tone, words and buzz, where those are switched on. @param key what it is about; null: nothing is to be said */
export function useSaid(key: string | null, tone: Tone, words: string): void {
  const newest = useRef({ tone, words });
  useEffect(() => {
    newest.current = { tone, words };
  });
  useEffect(() => {
    if (key === null) return;
    const { tones, voice, buzzes } = getPreferences();
    if (tones) sound(newest.current.tone);
    if (voice) speak(newest.current.words);
    if (buzzes) buzz(buzzOf(newest.current.tone));
  }, [key]);
}

import { useEffect, useRef } from 'react';
import { getPreferences } from '../../../data/preferences';
import { readyToSound } from '../../../ui/tones';

interface ListenKeys {
  /** A sheet or a form has the keyboard. */
  readonly enabled: boolean;
  /** The big key: whatever is next. Any key does it that means nothing else, as those of a foot switch do. */
  readonly onNext: () => void;
  readonly onAgain: () => void;
  readonly onSkip: () => void;
  readonly onByHand: () => void;
}

/** Keys with a meaning of their own in every browser. */
const ownMeaning =
  /^(Tab|Escape|Shift|Control|Alt|AltGraph|Meta|CapsLock|NumLock|ScrollLock|ContextMenu|Dead|Process|Unidentified|F5|F12|Audio.*|Media.*|Volume.*)$/;

/** A foot switch, or any keyboard. */
export function useListenKeys(keys: ListenKeys): void {
  const newest = useRef(keys);
  useEffect(() => {
    newest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const now = newest.current;
      const { key, target } = event;
      readyToSoundIfOn();
      if (
        !now.enabled ||
        event.repeat ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        ownMeaning.test(key)
      )
        return;
      const control =
        target instanceof HTMLElement
          ? target.closest('button, a, input, textarea, select, [role="button"], [role="link"]')
          : null;
      // A control that has the focus keeps the keys that press it.
      if (control && (key === 'Enter' || key === ' ' || /^(INPUT|TEXTAREA|SELECT)$/.test(control.tagName)))
        return;
      const { next, again, skip } = getPreferences().listenKeys;
      event.preventDefault();
      event.stopPropagation();
      if (key === again) now.onAgain();
      else if (key === skip) now.onSkip();
      else if (key !== next && /^[0-9.,]$/.test(key)) now.onByHand();
      else now.onNext();
    };
    window.addEventListener('keydown', onKey, true);
    window.addEventListener('pointerdown', readyToSoundIfOn, true);
    return () => {
      window.removeEventListener('keydown', onKey, true);
      window.removeEventListener('pointerdown', readyToSoundIfOn, true);
    };
  }, []);
}

function readyToSoundIfOn(): void {
  if (getPreferences().tones) readyToSound();
}

import { shownNumber } from '@cordel/core';
import { useEffect, useRef, useState } from 'react';

interface BenchKeys {
  /** Enters a loss in dB. */
  onReading: (loss: number) => void;
  onMove: (by: -1 | 1) => void;
  onSkip: () => void;
  onTakeBack: () => void;
  onHelp: () => void;
  /** False while a sheet or a form has the keyboard, or where no reading is awaited. */
  enabled: boolean;
  entering: boolean;
}

/**
 * The keyboard at a wide bench: digits are hundredths (7 is 0.07, 14 is 0.14), a point starts a plain decimal, Enter confirms.
 * Returns what has been typed so far, in dB, or null.
 */
export function useBenchKeys(keys: BenchKeys): string | null {
  const [typed, setTyped] = useState('');
  // The listener is set once; it reads the newest handlers here.
  const newest = useRef({ keys, typed });
  useEffect(() => {
    newest.current = { keys, typed };
  });

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { keys: now, typed: text } = newest.current;
      if (!now.enabled || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const used = act(event, now, text, setTyped);
      if (!used) return;
      event.preventDefault();
      event.stopPropagation();
    };
    // On its way down: else Enter would press the key of the pad that was clicked last, and enter its reading in place of the one that was typed.
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);

  return typed === '' ? null : shownNumber(lossOfKeys(typed).toFixed(typed.includes('.') ? 3 : 2));
}

function act(
  event: KeyboardEvent,
  keys: BenchKeys,
  typed: string,
  setTyped: (text: string) => void,
): boolean {
  const { key } = event;
  if (/^[0-9.,]$/.test(key)) {
    if (!keys.entering) return false;
    const next = typed + (key === ',' ? '.' : key);
    if (/^\d{1,4}$|^\d{0,2}\.\d{0,3}$/.test(next)) setTyped(next);
    return true;
  }
  switch (key) {
    case 'Enter':
      // With nothing typed, Enter presses whatever has the focus.
      if (typed === '') return false;
      setTyped('');
      keys.onReading(lossOfKeys(typed));
      return true;
    case 'Backspace':
      setTyped(typed.slice(0, -1));
      return typed !== '';
    case 'Escape':
      setTyped('');
      return typed !== '';
    case 'ArrowUp':
      keys.onMove(-1);
      return true;
    case 'ArrowDown':
      keys.onMove(1);
      return true;
    case 's':
      keys.onSkip();
      return true;
    case 'u':
      keys.onTakeBack();
      return true;
    case '?':
      keys.onHelp();
      return true;
    default:
      return false;
  }
}

/** dB of typed keys: "7" is 0.07, "14" is 0.14, "0.145" is itself. */
export function lossOfKeys(typed: string): number {
  return typed.includes('.') ? Number(`0${typed}`) : Number(typed) / 100;
}

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
}

import { useRef } from 'react';
import { Action } from './Action';

interface FilePickProps {
  label: string;
  spoken?: string;
  /** What the browser's dialog offers, like ".csv,text/csv". */
  accept: string;
  /** Name of the field for a screen reader. */
  what: string;
  busy?: boolean;
  /** How far it is, while it is busy. */
  busyWords?: string;
  bench?: boolean;
  onFile: (file: File) => void;
}

/** Picks a file of this device. */
export function FilePick({
  label,
  spoken,
  accept,
  what,
  busy = false,
  busyWords = 'Reading …',
  bench = false,
  onFile,
}: FilePickProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Action
        bench={bench}
        icon="upload"
        label={busy ? busyWords : label}
        {...(spoken ? { spoken } : {})}
        disabled={busy}
        onPress={() => input.current?.click()}
      />
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={what}
        style={{ display: 'none' }}
        onChange={(event) => {
          const file = event.target.files?.[0];
          // The same file can be picked again after it was mended.
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}

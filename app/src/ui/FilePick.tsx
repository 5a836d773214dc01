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
  bench = false,
  onFile,
}: FilePickProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Action
        bench={bench}
        icon="upload"
        label={busy ? 'Reading …' : label}
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

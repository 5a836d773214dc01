import { useSyncExternalStore } from 'react';

let printing = false;

function subscribe(onChange: () => void): () => void {
  const told = (event: Event) => {
    printing = event.type === 'beforeprint';
    onChange();
  };
  window.addEventListener('beforeprint', told);
  window.addEventListener('afterprint', told);
  return () => {
    window.removeEventListener('beforeprint', told);
    window.removeEventListener('afterprint', told);
  };
}

/** Whether the page goes to paper just now, by whatever way somebody asked for it: for what is too much for the screen and belongs on paper. */
export function usePrinting(): boolean {
  return useSyncExternalStore(
    subscribe,
    () => printing,
    () => false,
  );
}

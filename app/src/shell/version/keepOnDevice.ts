import { whenQuiet } from '../whenQuiet';
import { sayRenewed, watchForNewer } from './newerVersion';

/** How long the first screen, and after it every tap, has the device to itself: fetching some sixty files holds it up. ms */
const restMs = 1500;

/**
 * Keeps the application itself on this device, once its first screen stands: from then on every screen opens with no network, also after a reload or a
 * restart. A newer one is fetched while the older one runs: see `newerVersion`. `scripts/build.mjs` makes the service worker. Returns what calls it off.
 */
export function keepOnDevice(): () => void {
  // Browsers have it at https addresses, and on this very machine.
  if (!('serviceWorker' in navigator)) return () => undefined;
  const { serviceWorker } = navigator;
  let unwatch = () => undefined as void;
  let over = false;
  const watch = (registration: ServiceWorkerRegistration | undefined) => {
    if (!registration || over) return;
    unwatch();
    unwatch = watchForNewer(registration);
  };
  // With no network it is tried at the next start. A browser that keeps nothing refuses; Cordel runs without.
  const register = () => void serviceWorker.register('/sw.js').then(watch, () => undefined);
  const stop = whenQuiet(register, restMs);
  // One that was fetched before is taken at once: nobody has entered anything yet.
  serviceWorker.getRegistration().then(watch, () => undefined);
  sayRenewed();
  return () => {
    over = true;
    stop();
    unwatch();
  };
}

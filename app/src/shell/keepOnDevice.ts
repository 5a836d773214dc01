/** How long the first screen has the device to itself. ms */
const restMs = 1500;

/**
 * Keeps the application itself on this device, once its first screen stands: from then on every screen opens with no network, also after a reload or a
 * restart. A newer one is fetched while the older one runs, and taken at the next start, when nobody has entered anything yet. `scripts/build.mjs`
 * makes the service worker. Returns what calls it off.
 */
export function keepOnDevice(): () => void {
  // Browsers have it at https addresses, and on this very machine.
  if (!('serviceWorker' in navigator)) return () => undefined;
  const { serviceWorker } = navigator;
  const takeNewer = (registration: ServiceWorkerRegistration | undefined) => {
    if (!registration?.waiting) return;
    serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true });
    registration.waiting.postMessage({ type: 'SKIP_WAITING' });
  };
  // A browser that keeps nothing refuses both; Cordel runs without.
  serviceWorker.getRegistration().then(takeNewer, () => undefined);
  // With no network it is tried at the next start.
  const timer = setTimeout(() => void serviceWorker.register('/sw.js').catch(() => undefined), restMs);
  return () => clearTimeout(timer);
}

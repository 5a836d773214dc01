/** A machine's log that another application on this device shared to Cordel: `public/share.js`, in the service worker, keeps it until it was read. */
const cache = 'cordel-shared';
const key = '/shared-log';

/** null: nothing was shared, or it was read already. */
export async function sharedLog(): Promise<File | null> {
  if (!('caches' in globalThis)) return null;
  const kept = await (await caches.open(cache)).match(key);
  if (!kept) return null;
  const name = decodeURIComponent(kept.headers.get('X-Name') ?? 'log');
  return new File([await kept.blob()], name, { type: 'text/plain' });
}

export async function forgetShared(): Promise<void> {
  await (await caches.open(cache)).delete(key);
}

/* global self, caches */
/* Part of the service worker: a machine's log that is shared to Cordel is kept on the device, and the page that asks where it belongs is opened. */

self.addEventListener('fetch', (event) => {
  const { method, url } = event.request;
  if (method === 'POST' && new URL(url).pathname === '/share') event.respondWith(keepShared(event.request));
});

/** Names and keys are those of `src/data/shared.ts`. */
async function keepShared(request) {
  try {
    const file = (await request.formData()).get('log');
    const kept = await caches.open('cordel-shared');
    const headers = { 'Content-Type': 'text/plain', 'X-Name': encodeURIComponent(file.name) };
    await kept.put('/shared-log', new Response(file, { headers }));
  } catch {
    // With no room, or nothing that is a file: the page says that nothing came.
  }
  return Response.redirect('/share', 303);
}

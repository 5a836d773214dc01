import type { CDPSession, Page } from 'puppeteer-core';

/**
 * What the network does to a page. By the page's own session: puppeteer's own ways ask it of the page's workers too, which do not know it.
 */

const sessions = new WeakMap<Page, Promise<CDPSession>>();

function sessionOf(page: Page): Promise<CDPSession> {
  let session = sessions.get(page);
  if (!session) sessions.set(page, (session = page.createCDPSession()));
  return session;
}

/** As if nothing of this had ever been done to the page. */
export async function leaveNetworkAlone(page: Page): Promise<void> {
  const session = sessions.get(page);
  sessions.delete(page);
  await (await session)?.detach();
}

export async function setOffline(page: Page, offline: boolean): Promise<void> {
  const session = await sessionOf(page);
  await session.send('Network.enable');
  await session.send('Network.emulateNetworkConditions', {
    offline,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
}

/**
 * Answers in the server's place when the page sends records.
 * @param refusal why they are refused, by how often it was asked before; null: nobody answers
 */
export async function refuseRecords(page: Page, refusal: (before: number) => string | null): Promise<void> {
  const session = await sessionOf(page);
  let asked = 0;
  session.on('Fetch.requestPaused', ({ requestId, request }) => {
    // The page may be gone meanwhile.
    const send: CDPSession['send'] = (...given) => session.send(...given).catch(() => undefined as never);
    if (request.method !== 'POST') return void send('Fetch.continueRequest', { requestId });
    const message = refusal(asked);
    asked += 1;
    if (message === null) return void send('Fetch.failRequest', { requestId, errorReason: 'Failed' });
    const { facts } = JSON.parse(request.postData!) as { facts: { id: string }[] };
    const answer = { accepted: [], refused: facts.map(({ id }) => ({ id, message })) };
    void send('Fetch.fulfillRequest', {
      requestId,
      responseCode: 200,
      responseHeaders: [{ name: 'Content-Type', value: 'application/json' }],
      body: Buffer.from(JSON.stringify(answer)).toString('base64'),
    });
  });
  await session.send('Fetch.enable', { patterns: [{ urlPattern: '*/facts' }] });
}

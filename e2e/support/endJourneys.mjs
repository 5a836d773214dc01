import endPostgres from '../../scripts/endPostgres.mjs';

/** Ends the browsers and the cluster of the journeys. */
export default async function endJourneys() {
  for (const browser of globalThis.cordelBrowsers ?? []) await browser.close().catch(() => undefined);
  endPostgres();
}

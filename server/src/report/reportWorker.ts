import type { StoredFact } from '@cordel/core';
import { asBuilt, geoJson, type AsBuiltPicture } from '@cordel/core/asBuilt';
import { labelsFor, labelSizes } from '@cordel/core/labels';
import { parentPort } from 'node:worker_threads';
import { canonical, fingerprint } from './canonical';
import { csv, labelsCsv } from './csv';
import type { FromReport, ReportOrder, ToReport } from './messages';
import { labelSheet } from './pdf/labels';
import { pdfReport } from './pdf/report';
import { xlsx } from './xlsx';

/** Makes a report off the server's own thread, so that however large it is nobody else waits for it. Whoever does not want it any more ends the thread. */
const port = parentPort!;
const facts: StoredFact[] = [];
let known: ReadonlyMap<string, AsBuiltPicture> = new Map();
const pictures = new Map<string, Uint8Array>();

const tell = (message: FromReport) => port.postMessage(message);
let toldAt = 0;
/** A few times a second is enough. */
const progress = (done: number, of: number) => {
  if (Date.now() - toldAt < 150) return;
  toldAt = Date.now();
  tell({ kind: 'progress', done, of });
};

port.on('message', (message: ToReport) => {
  if (message.kind === 'facts') facts.push(...message.facts);
  else if (message.kind === 'known-pictures') known = message.pictures;
  else if (message.kind === 'pictures') for (const [id, one] of message.pictures) pictures.set(id, one);
  else
    void make(message.order).then(
      (made) => tell({ kind: 'made', ...made }),
      (error: unknown) => {
        // Ends the thread with the error, which whoever asked is told.
        setImmediate(() => {
          throw error;
        });
      },
    );
});

async function make({ form, definition, gearFacts, closureId, at, address, labels }: ReportOrder) {
  if (form === 'labels' || form === 'labels-csv') {
    const list = labelsFor(definition, closureId);
    const bytes =
      form === 'labels'
        ? await labelSheet(
            list,
            labelSizes.find(({ id }) => id === labels.size) ?? labelSizes[0]!,
            address,
            labels.skip,
          )
        : new TextEncoder().encode(labelsCsv(list, address));
    return { bytes, fingerprint: '' };
  }
  const built = asBuilt({ definition, facts, gearFacts, closureId, pictures: known, onProgress: progress });
  const print = fingerprint(built);
  const text = (body: string) => new TextEncoder().encode(body);
  const bytes = async (): Promise<Uint8Array> => {
    switch (form) {
      case 'json':
        return text(canonical(built));
      case 'geojson':
        return text(`${JSON.stringify(geoJson(built), null, 2)}\n`);
      case 'csv':
        return text(csv(built));
      case 'xlsx':
        return xlsx(built, at, progress);
      case 'pdf':
      case 'short':
        return pdfReport({
          built,
          fingerprint: print,
          pictures,
          short: form === 'short',
          at,
          address,
          onProgress: progress,
        });
    }
  };
  return { bytes: await bytes(), fingerprint: print };
}

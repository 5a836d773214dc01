import { readProjectFile, type StoredFact } from '@cordel/core';
import { parentPort } from 'node:worker_threads';
import { decoded, notUtf8, readText } from '../documentText';
import type { FromWorker, ToWorker } from './messages';

/**
 * Reads and checks a project file off the server's own thread, and hands its facts out in slices, one for each time it is asked, so that neither the
 * file nor its list of facts is ever in the way of anybody else.
 */
const port = parentPort!;
const slice = 100;
let pieces: Uint8Array[] = [];
let facts: readonly StoredFact[] = [];
let given = 0;

const tell = (message: FromWorker) => port.postMessage(message);

port.on('message', (message: ToWorker) => {
  if (message.kind === 'bytes') pieces.push(message.bytes);
  else if (message.kind === 'read') read(message.now);
  else {
    tell({ kind: 'slice', facts: facts.slice(given, given + slice) });
    given += slice;
  }
});

function read(now: number | null): void {
  const text = decoded(Buffer.concat(pieces));
  pieces = [];
  if (text === null)
    return tell({ kind: 'wrong', problems: [{ line: 1, path: '', message: notUtf8 }], count: 1 });
  const result = readText(text, (raw) => readProjectFile(raw, now));
  if (result.problems) return tell({ kind: 'wrong', problems: result.problems, count: result.count });
  const { facts: own, ...definition } = result.file;
  facts = own;
  tell({ kind: 'read', definition, facts: facts.length });
}

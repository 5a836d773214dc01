import type { AsBuilt } from '@cordel/core/asBuilt';
import { closurePages } from './closurePages';
import { momentIn, type Context } from './context';
import { firstPage } from './firstPage';
import { lastPages } from './lastPages';
import { Paper } from './paper';

export interface PdfOrder {
  readonly built: AsBuilt;
  /** SHA-256 of its canonical form. */
  readonly fingerprint: string;
  /** Small pictures of the photos (JPEG), by the photo's id. */
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  /** One page, and no more. */
  readonly short: boolean;
  /** When it is made, UTC. */
  readonly at: string;
  /** Of the application. */
  readonly address: string;
  readonly onProgress: (done: number, of: number) => void;
}

/** The record of a closure or a project as a PDF: page one answers whether it is good; then everything behind that answer. */
export async function pdfReport({
  built,
  fingerprint,
  pictures,
  short,
  at,
  address,
  onProgress,
}: PdfOrder): Promise<Uint8Array> {
  const { project, closures } = built;
  const zone = project.timeZone ?? 'UTC';
  const name = built.scope === 'closure' ? closures[0]!.site : project.name;
  const when = (time: string) => momentIn(time, zone);
  const paper = new Paper({
    title: `${name}: record of its splices`,
    letter: project.units === 'in',
    at,
    head: built.scope === 'closure' ? `${name} · ${project.name}` : name,
    foot: `Cordel · ${when(at)} (${zone}) · fingerprint ${fingerprint.slice(0, 16)} · losses are estimates of the splicing machine${built.losses === 'estimated' ? '' : ' unless written as measured'}`,
  });
  const total = closures.reduce((sum, { splices }) => sum + splices.length, 0);
  let done = 0;
  const told = () => {
    done += 1;
    if (done % 200 === 0) onProgress(done, total);
  };
  const context: Context = { paper, built, pictures, when, told };
  paper.part(() => firstPage(context, name, fingerprint, address));
  if (!short) {
    for (const closure of closures) paper.part(() => closurePages(context, closure));
    paper.part(() => lastPages(context, fingerprint));
  }
  onProgress(total, total);
  return paper.end();
}

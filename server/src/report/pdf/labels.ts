import type { Label, LabelSize } from '@cordel/core/labels';
import { pdfKit } from '../fetched';
import { ink, readFaces, soft } from './paper';
import { drawQr } from './qr';

const points = (millimeters: number) => (millimeters * 72) / 25.4;

/**
 * Labels as sheets to be printed at full size: name, what it is, and a code that opens the place in Cordel.
 * @param skip labels of the first sheet that are used already
 */
export async function labelSheet(
  labels: readonly Label[],
  size: LabelSize,
  address: string,
  skip: number,
): Promise<Uint8Array> {
  const doc = new (pdfKit())({
    size: size.page === 'roll' ? [points(size.width), points(size.height)] : size.page,
    margins: { top: 0, bottom: 0, left: 0, right: 0 },
    autoFirstPage: false,
    font: null as never,
    lang: 'en',
    info: { Title: 'Labels', Creator: 'Cordel', Producer: 'Cordel' },
  });
  const pieces: Buffer[] = [];
  doc.on('data', (piece: Buffer) => pieces.push(piece));
  const done = new Promise<void>((finish) => doc.on('end', finish));
  for (const [name, bytes] of Object.entries(readFaces())) doc.registerFont(name, bytes);
  const onSheet = size.columns * size.rows;
  const first = size.page === 'roll' ? 0 : skip % onSheet;
  labels.forEach((label, index) => {
    const place = (index + first) % onSheet;
    if (index === 0 || place === 0) doc.addPage();
    draw(doc, label, address, {
      x: points(size.left + (place % size.columns) * size.stepX),
      y: points(size.top + Math.floor(place / size.columns) * size.stepY),
      width: points(size.width),
      height: points(size.height),
    });
  });
  if (labels.length === 0) doc.addPage();
  doc.end();
  await done;
  return new Uint8Array(Buffer.concat(pieces));
}

function draw(
  doc: PDFKit.PDFDocument,
  { title, lines, path }: Label,
  address: string,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): void {
  const edge = points(2);
  const side = Math.min(height - 2 * edge, width * 0.42);
  drawQr(
    doc,
    `${address}${path}`,
    { x: x + width - side - edge / 2, y: y + (height - side) / 2, width: side, height: side },
    ink,
  );
  const room = width - side - 2.5 * edge;
  const big = Math.min(16, height / 6);
  doc.font('slab').fontSize(big).fillColor(ink);
  const top = y + edge;
  doc.text(title, x + edge, top, { width: room, height: big * 2.4, ellipsis: true });
  const small = Math.max(5.5, Math.min(8, height / 12));
  let at = top + Math.min(doc.heightOfString(title, { width: room }), big * 2.5) + 2;
  doc.font('sans').fontSize(small).fillColor(soft);
  for (const line of lines) {
    const left = y + height - edge - at;
    if (left < small) break;
    doc.text(line, x + edge, at, { width: room, height: left, ellipsis: true });
    at += Math.min(doc.heightOfString(line, { width: room }), left) + 1;
  }
}

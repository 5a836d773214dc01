import QRCode from 'qrcode';
import type { Box } from './paper';

/** Dark squares of a QR code in a box, joined row by row, with a quiet border of two of them. */
export function drawQr(doc: PDFKit.PDFDocument, text: string, { x, y, width }: Box, color: string): void {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  const each = width / (modules.size + 4);
  for (let row = 0; row < modules.size; row += 1)
    for (let from = 0; from < modules.size; from += 1) {
      if (!modules.get(row, from)) continue;
      let to = from;
      while (to + 1 < modules.size && modules.get(row, to + 1)) to += 1;
      doc.rect(x + (from + 2) * each, y + (row + 2) * each, (to - from + 1) * each, each * 1.02);
      from = to;
    }
  doc.fill(color);
}

import { exceeds, lossText } from '@cordel/core';
import type { AsBuiltSeal } from '@cordel/core/asBuilt';
import { accent, hairline, ink, soft, type Box, type Paper } from './paper';

/** Losses one beside the other against their limit, as a strip: one column a fiber; over the limit it breaks through the dashed rule. */
export function lossStrip(
  paper: Paper,
  { x, y, width, height }: Box,
  losses: readonly (number | null)[],
  limit: number,
): void {
  const { doc } = paper;
  const scale = 1.6;
  const each = Math.min(9, width / Math.max(1, losses.length));
  const top = (loss: number) => y + height * (1 - Math.min(loss / limit, scale) / scale);
  for (const [over, color] of [
    [false, ink],
    [true, accent],
  ] as const) {
    losses.forEach((loss, index) => {
      if (loss === null || exceeds(loss, limit) !== over) return;
      const at = Math.min(top(loss), y + height - 1);
      doc.rect(x + index * each + each * 0.15, at, each * 0.7, y + height - at);
    });
    doc.fill(color);
  }
  losses.forEach((loss, index) => {
    if (loss === null) doc.rect(x + index * each + each * 0.15, y + height - 1, each * 0.7, 1);
  });
  doc.fill(hairline);
  const end = x + Math.max(60, losses.length * each);
  doc
    .moveTo(x, top(limit))
    .lineTo(Math.min(end, x + width), top(limit))
    .dash(3, { space: 2 })
    .lineWidth(0.8)
    .stroke(soft)
    .undash();
}

/** How many fibers read which loss, to the hundredth, with the limits as dashed rules. */
export function histogram(
  paper: Paper,
  { x, y, width, height }: Box,
  losses: readonly number[],
  limits: readonly { readonly limit: number; readonly name: string }[],
): void {
  const { doc } = paper;
  const most = Math.max(...limits.map(({ limit }) => limit * 1.5), ...losses);
  const step = most > 1 ? 0.05 : 0.01;
  const bins = Math.min(80, Math.ceil(most / step) + 1);
  const counts = Array.from({ length: bins }, () => 0);
  for (const loss of losses) counts[Math.min(bins - 1, Math.round(loss / step))]! += 1;
  const highest = Math.max(1, ...counts);
  const base = y + height - 14;
  const tall = height - 26;
  const each = width / bins;
  const lowest = Math.min(...limits.map(({ limit }) => limit));
  for (const over of [false, true]) {
    counts.forEach((count, index) => {
      if (count === 0 || exceeds(index * step, lowest) !== over) return;
      const bar = Math.max(1, (tall * count) / highest);
      doc.rect(x + index * each + each * 0.1, base - bar, each * 0.8, bar);
    });
    doc.fill(over ? accent : ink);
  }
  doc
    .moveTo(x, base)
    .lineTo(x + width, base)
    .lineWidth(0.8)
    .stroke(ink);
  limits.forEach(({ limit, name }, index) => {
    const at = x + (limit / step + 0.5) * each;
    doc
      .moveTo(at, base)
      .lineTo(at, y + 8)
      .dash(3, { space: 2 })
      .lineWidth(0.8)
      .stroke(soft)
      .undash();
    paper.set('tiny', soft);
    doc.text(`${name} ${lossText(limit)}`, at + 2, y + 2 + index * 9, { lineBreak: false });
  });
  paper.set('tiny', soft);
  const labels = Math.max(1, Math.round(bins / 12));
  for (let index = 0; index < bins; index += labels)
    doc.text((index * step).toFixed(2), x + index * each, base + 3, { lineBreak: false });
}

/** The end plate with its openings; one that bubbled in a test that counts has its bubbles. */
export function plate(paper: Paper, { x, y, height }: Box, openings: AsBuiltSeal['openings']): void {
  const { doc } = paper;
  const lowest = Math.max(...openings.map((one) => one.y + one.r));
  const ring = openings.length <= 14;
  const side = ring ? height : height / Math.max(0.3, lowest);
  if (ring)
    doc
      .circle(x + side / 2, y + side / 2, side * 0.49)
      .lineWidth(1.2)
      .stroke(ink);
  for (const { number, plug, bubbled, x: cx, y: cy, r } of openings) {
    const [px, py, pr] = [x + cx * side, y + cy * side, r * side];
    doc
      .circle(px, py, pr)
      .lineWidth(bubbled ? 2 : plug ? 0.5 : 1.4)
      .stroke(bubbled ? accent : ink);
    if (bubbled)
      for (const [dx, dy, size] of [
        [0.75, -0.95, 0.2],
        [1.12, -0.62, 0.13],
        [0.32, -1.25, 0.12],
      ] as const)
        doc
          .circle(px + dx * pr, py + dy * pr, size * pr)
          .lineWidth(0.8)
          .stroke(accent);
    paper.set('small', ink);
    const text = String(number ?? '?');
    doc.text(text, px - doc.widthOfString(text) / 2, py - 4.5, { lineBreak: false });
  }
}

/** Reads a PDF from its standard input with pdf.js, and prints what is in it as JSON. A process of its own: Jest cannot load pdf.js. */
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const pieces = [];
for await (const piece of process.stdin) pieces.push(piece);
const document = await getDocument({ data: new Uint8Array(Buffer.concat(pieces)), verbosity: 0 }).promise;
const pages = [];
for (let number = 1; number <= document.numPages; number += 1) {
  const content = await (await document.getPage(number)).getTextContent();
  pages.push(
    content.items
      .map((item) => item.str ?? '')
      .join(' ')
      .replace(/\s+/g, ' '),
  );
}
const outline = (await document.getOutline()) ?? [];
console.log(
  JSON.stringify({
    pages,
    outline: outline.map(({ title, items }) => ({ title, items: items.map((one) => one.title) })),
    structure: await (await document.getPage(1)).getStructTree(),
    marked: (await document.getMarkInfo())?.Marked ?? false,
  }),
);

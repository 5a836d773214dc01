/** Reads a PDF from its standard input with pdf.js, and prints what is in it as JSON. A process of its own: Jest cannot load pdf.js. */
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';

const pieces = [];
for await (const piece of process.stdin) pieces.push(piece);
const document = await getDocument({ data: new Uint8Array(Buffer.concat(pieces)), verbosity: 0 }).promise;
const pages = [];
const images = [];
for (let number = 1; number <= document.numPages; number += 1) {
  const page = await document.getPage(number);
  const { fnArray, argsArray } = await page.getOperatorList();
  fnArray.forEach((operator, at) => {
    if (operator === OPS.paintImageXObject)
      images.push({ page: number, width: argsArray[at][1], height: argsArray[at][2] });
  });
  const content = await page.getTextContent();
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
    images,
    outline: outline.map(({ title, items }) => ({ title, items: items.map((one) => one.title) })),
    structure: await (await document.getPage(1)).getStructTree(),
    marked: (await document.getMarkInfo())?.Marked ?? false,
  }),
);

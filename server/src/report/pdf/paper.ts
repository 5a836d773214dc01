import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pdfKit } from '../fetched';

const require = createRequire(import.meta.url);
const face = (path: string) => readFileSync(require.resolve(`@expo-google-fonts/${path}`));
const faces = {
  slab: () => face('zilla-slab/600SemiBold/ZillaSlab_600SemiBold.ttf'),
  sans: () => face('atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf'),
  bold: () => face('atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf'),
};

/** The three faces, by name. */
export const readFaces = () => ({ slab: faces.slab(), sans: faces.sans(), bold: faces.bold() });

/** The interface's own colors, on white paper. */
export const ink = '#1D1B17';
export const soft = '#5C564B';
export const hairline = '#CFC7B5';
export const accent = '#B5381A';

export type Look =
  'title' | 'heading' | 'small-heading' | 'body' | 'strong' | 'small' | 'small-strong' | 'reading' | 'tiny';

const looks: Readonly<Record<Look, readonly [face: keyof typeof faces, size: number]>> = {
  title: ['slab', 24],
  heading: ['slab', 15],
  'small-heading': ['slab', 11],
  reading: ['slab', 19],
  body: ['sans', 10],
  strong: ['bold', 10],
  small: ['sans', 8],
  'small-strong': ['bold', 8],
  tiny: ['sans', 7],
};

/** A column of a table. */
export interface TableColumn {
  readonly title: string;
  /** Share of the width. */
  readonly share: number;
  readonly align?: 'right';
}

/** A cell: its text, and how it looks where that is not as usual. */
export type TableCell =
  | string
  | {
      readonly text: string;
      /** Behind the text, and never cut short: what the text alone does not tell apart. */
      readonly tail?: string;
      readonly look?: Look;
      readonly color?: string;
    };

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface PaperOptions {
  readonly title: string;
  readonly letter: boolean;
  /** UTC */
  readonly at: string;
  /** Of every page: what the document is, in one line. */
  readonly head: string;
  readonly foot: string;
}

type Struct = PDFKit.PDFStructureElement;

const left = 62;
const right = 40;
const top = 62;
const bottom = 52;
const cordAt = 34;

/**
 * Pages of a report: the cord down their left edge, a heading and a number on each, bookmarks, and a structure that a screen reader follows (headings, paragraphs, tables, figures with
 * their text). All lengths in points.
 */
export class Paper {
  readonly doc: PDFKit.PDFDocument;
  y = top;
  private readonly pieces: Buffer[] = [];
  private readonly root: Struct;
  private at: Struct;

  constructor(private readonly options: PaperOptions) {
    this.doc = new (pdfKit())({
      size: options.letter ? 'LETTER' : 'A4',
      margins: { top: 0, bottom: 0, left: 0, right: 0 },
      bufferPages: true,
      autoFirstPage: false,
      tagged: true,
      pdfVersion: '1.7',
      lang: 'en',
      displayTitle: true,
      compress: true,
      // No face of its own: they are ours.
      font: null as never,
      info: {
        Title: options.title,
        Creator: 'Cordel',
        Producer: 'Cordel',
        CreationDate: new Date(options.at),
      },
    });
    for (const [name, bytes] of Object.entries(readFaces())) this.doc.registerFont(name, bytes);
    this.doc.on('data', (piece: Buffer) => this.pieces.push(piece));
    this.root = this.doc.struct('Document');
    this.doc.addStructure(this.root);
    this.at = this.root;
    this.page();
  }

  get width(): number {
    return this.doc.page.width - left - right;
  }
  get left(): number {
    return left;
  }
  /** What is left of the page. */
  get room(): number {
    return this.doc.page.height - bottom - this.y;
  }

  /** Where the room of a page ends. */
  get pageFoot(): number {
    return this.doc.page.height - bottom;
  }

  page(): void {
    this.doc.addPage();
    this.y = top;
  }

  /** A new page where less than this is left. */
  need(height: number): void {
    if (this.room < height) this.page();
  }

  gap(height: number): void {
    this.y += height;
  }

  set(look: Look, color = ink): this {
    const [name, size] = looks[look];
    this.doc.font(name).fontSize(size).fillColor(color);
    return this;
  }

  lineHeight(look: Look): number {
    return looks[look][1] * 1.28;
  }

  /** Everything until `end` belongs to a part of its own. */
  part(end: () => void): void {
    const before = this.at;
    const part = this.doc.struct('Sect');
    before.add(part);
    this.at = part;
    end();
    part.end();
    this.at = before;
  }

  /** @param room that has to be left under it on the page */
  heading(
    level: 1 | 2 | 3,
    text: string,
    { bookmark = true, into, room }: { bookmark?: boolean; into?: PDFKit.PDFOutline; room?: number } = {},
  ) {
    const look: Look = level === 1 ? 'title' : level === 2 ? 'heading' : 'small-heading';
    this.set(look);
    const height = this.doc.heightOfString(text, { width: this.width });
    this.need(height + (room ?? (level === 3 ? 60 : 90)));
    if (level > 1 && this.y > top) this.y += level === 2 ? 14 : 8;
    const outline = bookmark ? (into ?? this.doc.outline).addItem(text) : undefined;
    const y = this.y;
    this.add(`H${level}`, () => {
      this.set(look);
      this.doc.text(text, left, y, { width: this.width });
    });
    if (level < 3) this.knot(y + looks[look][1] * 0.55, level === 1 ? 7 : 5);
    this.y += height + 3;
    return outline;
  }

  /** A mark on the cord. */
  knot(y: number, size: number, open = false): void {
    this.artifact(() => {
      this.doc.circle(cordAt, y, size).lineWidth(2);
      if (open) this.doc.fillAndStroke('#FFFFFF', ink);
      else this.doc.fill(ink);
    });
  }

  text(
    text: string,
    look: Look = 'body',
    color = ink,
    { width = this.width, x = left }: { width?: number; x?: number } = {},
  ): void {
    if (text === '') return;
    this.set(look, color);
    const height = this.doc.heightOfString(text, { width });
    this.need(Math.min(height, 400));
    const y = this.y;
    this.add('P', () => {
      this.set(look, color);
      this.doc.text(text, x, y, { width });
    });
    this.y += height + 2;
  }

  /** A picture with what it says, in words. */
  figure(height: number, alt: string, draw: (box: Box) => void): void {
    this.need(height);
    const box = { x: left, y: this.y, width: this.width, height };
    const figure = this.doc.struct('Figure', { alt }, () => draw(box));
    this.at.add(figure);
    this.y += height + 4;
  }

  /**
   * Photos side by side, each as large as fits its share of the width, with lines under it: the first strong, the others one line each.
   * @param pictures JPEG, or null where there is none to show; a row has as many as there are
   */
  photos(
    pictures: readonly {
      readonly jpeg: Uint8Array | null;
      readonly alt: string;
      readonly lines: readonly string[];
    }[],
    inRow: number,
  ): void {
    const between = 12;
    const width = (this.width - between * (inRow - 1)) / inRow;
    const height = width * 0.75;
    const lookOf = (number: number): Look => (number === 0 ? 'small-strong' : 'small');
    const heightOf = (line: string, number: number) =>
      this.set(lookOf(number)).doc.heightOfString(line, { width }) + 1;
    for (let start = 0; start < pictures.length; start += inRow) {
      const row = pictures.slice(start, start + inRow);
      const most = Math.max(
        ...row.map(({ lines }) => lines.reduce((sum, line, number) => sum + heightOf(line, number), 0)),
      );
      this.need(height + most + 12);
      const { y } = this;
      row.forEach(({ jpeg, alt, lines }, index) => {
        const x = left + index * (width + between);
        this.at.add(
          this.doc.struct('Figure', { alt }, () => {
            if (jpeg)
              this.doc.image(Buffer.from(jpeg), x, y, {
                fit: [width, height],
                align: 'center',
                valign: 'center',
              });
            else {
              this.set('small', soft);
              this.line('The picture is not on the server yet.', { x: x + 8, y: y + 8, width, height });
            }
            this.doc.rect(x, y, width, height).lineWidth(0.5).stroke(hairline);
          }),
        );
        let at = y + height + 4;
        lines.forEach((line, number) => {
          const top = at;
          this.add('P', () => this.set(lookOf(number)).doc.text(line, x, top, { width }));
          at += heightOf(line, number);
        });
      });
      this.y = y + height + most + 14;
    }
  }

  /** Rows of one height under a heading that comes again on every page. `told` is called after each row. */
  table(
    columns: readonly TableColumn[],
    rows: Iterable<readonly TableCell[]>,
    { look = 'small', rowHeight = 12, told }: { look?: Look; rowHeight?: number; told?: () => void } = {},
  ): void {
    const total = columns.reduce((sum, { share }) => sum + share, 0);
    const widths = columns.map(({ share }) => (this.width * share) / total);
    const places = widths.map((_, index) => left + widths.slice(0, index).reduce((sum, one) => sum + one, 0));
    const table = this.doc.struct('Table');
    this.at.add(table);
    const cellAt = (row: Struct, kind: 'TH' | 'TD', index: number, cell: TableCell, y: number) => {
      const box = { x: places[index]!, y, width: widths[index]! - 4, height: rowHeight };
      const {
        text,
        tail = '',
        look: own = kind === 'TH' ? 'small-strong' : look,
        color = ink,
      } = typeof cell === 'string' ? { text: cell } : cell;
      row.add(
        this.doc.struct(kind, {}, () => {
          this.set(own, color);
          this.line(text, box, columns[index]!.align, tail);
        }),
      );
    };
    const head = () => {
      const row = this.doc.struct('TR');
      table.add(row);
      columns.forEach(({ title }, index) => cellAt(row, 'TH', index, title, this.y));
      row.end();
      this.y += rowHeight;
      this.rule(this.y - 1.5, ink, 0.8);
      this.y += 1;
    };
    this.need(rowHeight * 4);
    head();
    for (const cells of rows) {
      if (this.room < rowHeight) {
        this.page();
        head();
      }
      const row = this.doc.struct('TR');
      table.add(row);
      cells.forEach((cell, index) => cellAt(row, 'TD', index, cell, this.y));
      row.end();
      this.y += rowHeight;
      told?.();
    }
    table.end();
    this.y += 4;
  }

  /** One line of text in a box, cut short with three dots where it is too long, but for its tail. */
  line(text: string, box: Box, align?: 'right', tail = ''): void {
    let shown = `${text}${tail}`;
    if (this.doc.widthOfString(shown) > box.width) {
      let begin = text;
      while (begin.length > 1 && this.doc.widthOfString(`${begin}…${tail}`) > box.width)
        begin = begin.slice(0, -1);
      shown = `${begin}…${tail}`;
    }
    const x = align === 'right' ? box.x + box.width - 8 - this.doc.widthOfString(shown) : box.x;
    this.doc.text(shown, x, box.y, { lineBreak: false });
  }

  rule(y: number, color = hairline, thick = 0.5): void {
    this.artifact(() => {
      this.doc
        .moveTo(left, y)
        .lineTo(left + this.width, y)
        .lineWidth(thick)
        .stroke(color);
    });
  }

  /** Drawn, and nothing to a screen reader. */
  artifact(draw: () => void): void {
    this.doc.markContent('Artifact');
    draw();
    this.doc.endMarkedContent();
  }

  /** The finished document. */
  async end(): Promise<Uint8Array> {
    const { start, count } = this.doc.bufferedPageRange();
    for (let index = 0; index < count; index += 1) {
      this.doc.switchToPage(start + index);
      const { height, width } = this.doc.page;
      this.doc.markContent('Artifact', { type: 'Pagination' } as never);
      this.doc.moveTo(cordAt, 0).lineTo(cordAt, height).lineWidth(2.4).stroke(ink);
      this.set('tiny', soft);
      this.line(this.options.head, { x: left, y: 26, width: this.width - 90, height: 10 });
      this.line(`page ${index + 1} of ${count}`, { x: left, y: 26, width: this.width, height: 10 }, 'right');
      this.doc
        .moveTo(left, 38)
        .lineTo(width - right, 38)
        .lineWidth(0.8)
        .stroke(ink);
      this.line(this.options.foot, { x: left, y: height - 34, width: this.width, height: 10 });
      this.doc.endMarkedContent();
    }
    this.root.end();
    const done = new Promise<void>((finish) => this.doc.on('end', finish));
    this.doc.end();
    await done;
    return new Uint8Array(Buffer.concat(this.pieces));
  }

  private add(kind: string, draw: () => void): void {
    this.at.add(this.doc.struct(kind, {}, draw));
  }
}

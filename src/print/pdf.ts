import PDFDocument from 'pdfkit';
import { toBytes } from 'pdfkit/output';
import type { PrintFonts } from './fonts';
import type { PrintedDocument, PrintedLine } from './words';

/* A4 in points, with the margins of a letter. */
const PAGE = { width: 595.28, height: 841.89, left: 56, right: 56, top: 56, bottom: 64 };
const INNER = PAGE.width - PAGE.left - PAGE.right;
const INK = '#1F2430';
const SOFT = '#5B6070';
const RULE = '#B9AF9B';
const LEADING = 13;

interface Column {
  readonly head: string;
  readonly x: number;
  readonly width: number;
  readonly align: 'left' | 'right';
  readonly text: (line: PrintedLine) => string;
}

function columnsFor(page: PrintedDocument): readonly Column[] {
  const less = page.hasDiscounts ? 46 : 0;
  const widths = { quantity: 66, price: 66, less, tax: 92, value: 72 };
  const title = INNER - widths.quantity - widths.price - widths.less - widths.tax - widths.value;
  let x = PAGE.left;
  const next = (width: number) => {
    x += width;
    return x - width;
  };
  const all: Column[] = [
    { head: 'Item', x: next(title), width: title - 8, align: 'left', text: (l) => l.title },
    { head: 'Quantity', x: next(widths.quantity), width: widths.quantity - 8, align: 'right', text: (l) => l.quantity },
    { head: 'Price', x: next(widths.price), width: widths.price - 8, align: 'right', text: (l) => l.price },
  ];
  if (less > 0) all.push({ head: 'Less', x: next(less), width: less - 8, align: 'right', text: (l) => l.less });
  all.push({ head: 'Tax', x: next(widths.tax) + 8, width: widths.tax - 16, align: 'left', text: (l) => l.tax });
  all.push({ head: page.valueHead, x: next(widths.value), width: widths.value, align: 'right', text: (l) => l.value });
  return all;
}

/** Draws one document; pages are added as the lines need them. */
class Sheet {
  private y = PAGE.top;
  private readonly columns: readonly Column[];

  constructor(
    private readonly doc: PDFKit.PDFDocument,
    private readonly page: PrintedDocument,
  ) {
    this.columns = columnsFor(page);
  }

  draw(): void {
    this.doc.addPage();
    this.drawHead();
    this.drawLines();
    this.drawTotals();
    this.drawFoot();
    this.numberPages();
  }

  private text(
    text: string,
    x: number,
    y: number,
    options: { width: number; align?: 'left' | 'right'; size?: number; font?: keyof PrintFonts; color?: string },
  ): number {
    const { width, align = 'left', size = 9.5, font = 'text', color = INK } = options;
    this.doc.font(font).fontSize(size).fillColor(color);
    const height = this.doc.heightOfString(text, { width, align });
    this.doc.text(text, x, y, { width, align });
    return height;
  }

  private rule(y: number, from = PAGE.left, width = 0.6, color = RULE): void {
    this.doc
      .moveTo(from, y)
      .lineTo(PAGE.width - PAGE.right, y)
      .lineWidth(width)
      .strokeColor(color)
      .stroke();
  }

  /** Begins a new page unless `height` still fits above the foot. */
  private room(height: number): boolean {
    if (this.y + height <= PAGE.height - PAGE.bottom) return false;
    this.doc.addPage();
    this.y = PAGE.top;
    return true;
  }

  private drawHead(): void {
    const { page } = this;
    const half = INNER / 2 - 12;
    const [name = '', ...seller] = page.seller;
    this.text(page.title, PAGE.left, this.y - 4, { width: half, size: 24, font: 'title' });
    const nameHeight = this.text(name, PAGE.left + INNER / 2 + 12, this.y, { width: half, font: 'strong', size: 10.5 });
    const right = this.text(seller.join('\n'), PAGE.left + INNER / 2 + 12, this.y + nameHeight + 2, {
      width: half,
      color: SOFT,
      size: 9,
    });
    const [buyerName = '', ...buyer] = page.buyer;
    const top = this.y + 56;
    const buyerHeight = this.text(buyerName, PAGE.left, top, { width: half, font: 'strong', size: 10.5 });
    const left = this.text(buyer.join('\n'), PAGE.left, top + buyerHeight + 2, { width: half });
    this.y = Math.max(this.y + nameHeight + right, top + buyerHeight + left) + 22;

    const width = INNER / 3;
    page.facts.forEach(([label, value], i) => {
      const column = i % 3;
      if (column === 0 && i > 0) this.y += 32;
      const x = PAGE.left + column * width;
      this.text(label, x, this.y, { width: width - 12, size: 8, color: SOFT });
      this.text(value, x, this.y + 11, { width: width - 12, size: 10 });
    });
    this.y += 44;
  }

  private drawColumnHeads(): void {
    for (const column of this.columns)
      this.text(column.head, column.x, this.y, { width: column.width, align: column.align, size: 8, color: SOFT });
    this.y += 14;
    this.rule(this.y, PAGE.left, 0.9, INK);
    this.y += 6;
  }

  private drawLines(): void {
    this.drawColumnHeads();
    for (const line of this.page.lines) {
      const [title] = this.columns as [Column];
      this.doc.font('text').fontSize(9.5);
      const heights = this.columns.map((c) => this.doc.heightOfString(c.text(line), { width: c.width }));
      const detail =
        line.detail === '' ? 0 : this.doc.fontSize(8.5).heightOfString(line.detail, { width: title.width });
      const height = Math.max((heights[0] ?? LEADING) + detail, ...heights.slice(1));
      if (this.room(height + 8)) this.drawColumnHeads();
      for (const column of this.columns)
        this.text(column.text(line), column.x, this.y, { width: column.width, align: column.align });
      if (detail > 0)
        this.text(line.detail, title.x, this.y + (heights[0] ?? LEADING), {
          width: title.width,
          size: 8.5,
          color: SOFT,
        });
      this.y += height + 5;
      this.rule(this.y - 2);
      this.y += 3;
    }
  }

  private drawTotals(): void {
    const { totals, withheld, currency } = this.page;
    // The totals stay together: an orphan total on a new page would say nothing.
    this.room((totals.length + withheld.length) * 17 + 20);
    const from = PAGE.left + INNER * 0.5;
    const width = PAGE.width - PAGE.right - from;
    this.y += 6;
    totals.forEach(([label, amount], i) => {
      const last = i === totals.length - 1;
      if (last) {
        this.rule(this.y, from, 0.9, INK);
        this.y += 6;
      }
      const font = last ? 'strong' : 'text';
      this.text(last ? `${label} ${currency}` : label, from, this.y, { width: width - 80, font });
      this.text(amount, from + width - 90, this.y, { width: 90, align: 'right', font });
      this.y += 16;
    });
    this.rule(this.y, from, 0.9, INK);
    this.rule(this.y + 2.5, from, 0.9, INK);
    this.y += 8;
    for (const [label, amount] of withheld) {
      this.text(label, from, this.y, { width: width - 80, font: 'text' });
      this.text(amount, from + width - 90, this.y, { width: 90, align: 'right', font: 'text' });
      this.y += 16;
    }
    this.y += 14;
  }

  private drawFoot(): void {
    const { legends, note, payment } = this.page;
    for (const text of [...legends, note].filter(Boolean)) {
      const height = this.doc.font('text').fontSize(9.5).heightOfString(text, { width: INNER });
      this.room(height + 8);
      this.text(text, PAGE.left, this.y, { width: INNER });
      this.y += height + 8;
    }
    if (payment.length === 0) return;
    this.room(payment.length * 14 + 10);
    this.y += 6;
    for (const [label, value] of payment) {
      this.text(label, PAGE.left, this.y, { width: 70, color: SOFT, size: 9 });
      this.text(value, PAGE.left + 74, this.y, { width: INNER - 74 });
      this.y += 14;
    }
  }

  private numberPages(): void {
    const { count } = this.doc.bufferedPageRange();
    for (let i = 0; i < count; i++) {
      this.doc.switchToPage(i);
      // The foot lies inside the bottom margin; without lifting it the text would open a new page.
      this.doc.page.margins.bottom = 0;
      this.text(`${this.page.title} ${this.page.number}`, PAGE.left, PAGE.height - 40, {
        width: INNER / 2,
        size: 8,
        color: SOFT,
      });
      this.text(`Page ${i + 1} of ${count}`, PAGE.left + INNER / 2, PAGE.height - 40, {
        width: INNER / 2,
        align: 'right',
        size: 8,
        color: SOFT,
      });
    }
  }
}

/** Characters a typeface has no glyph for become a question mark, which is legible and legal in a PDF. */
function writable(page: PrintedDocument, fonts: PrintFonts, doc: PDFKit.PDFDocument): PrintedDocument {
  doc.registerFont('text', fonts.text as Buffer);
  doc.registerFont('strong', fonts.strong as Buffer);
  doc.registerFont('title', fonts.title as Buffer);
  doc.font('text');
  const font = (doc as unknown as { _font: { font: { hasGlyphForCodePoint(code: number): boolean } } })._font.font;
  const safe = (text: string) =>
    [...text].map((c) => (c === '\n' || font.hasGlyphForCodePoint(c.codePointAt(0) ?? 0) ? c : '?')).join('');
  const each = (value: unknown): unknown => {
    if (typeof value === 'string') return safe(value);
    if (Array.isArray(value)) return value.map(each);
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(Object.entries(value).map(([key, member]) => [key, each(member)]));
  };
  return each(page) as PrintedDocument;
}

/** The document as a PDF. The same document and `issuedAt` (an ISO instant) give the same bytes. */
export async function writePdf(page: PrintedDocument, fonts: PrintFonts, issuedAt: string): Promise<Uint8Array> {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: PAGE.top, bottom: 0, left: PAGE.left, right: PAGE.right },
    pdfVersion: '1.7',
    lang: 'en',
    displayTitle: true,
    autoFirstPage: false,
    bufferPages: true,
    font: null as unknown as string,
    info: { Title: `${page.title} ${page.number}`, Author: page.seller[0] ?? '', CreationDate: new Date(issuedAt) },
  });
  const bytes = toBytes(doc);
  new Sheet(doc, writable(page, fonts, doc)).draw();
  doc.end();
  return bytes;
}

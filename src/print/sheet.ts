import { codeSquares } from './epc';
import type { PrintFonts } from './fonts';
import { withLongWordsBroken } from './longWords';
import type { PrintedColumn, PrintedDocument, PrintedFact, PrintedLine } from './words';

/* A4 in points, with the margins of a letter. */
/** Size of the lines at the foot of every page. */
const FOOTER = 7.5;
export const PAGE = { width: 595.28, height: 841.89, left: 56, right: 56, top: 56, bottom: 64 };
const INNER = PAGE.width - PAGE.left - PAGE.right;
const INK = '#1F2430';
const SOFT = '#5B6070';
const RULE = '#B9AF9B';
/** Ink of what is no longer valid. */
const STAMP = '#A02B2B';
const LEADING = 13;
const TITLE = 24;
/** A title of more characters is a sentence, which is written smaller. */
const LONG_TITLE = 22;
const SENTENCE = 15;
/** Room that a line of what is carried forward takes. */
const CARRIED = 18;
const SLIP = 150;
/**
 * Window of a DL envelope over a sheet folded in three: 45 mm from the top edge, 40 mm high (DIN 5008, form B), as wide as half a
 * sheet; on the right it begins 110 mm from the left edge.
 */
const WINDOW = { top: 45 * 2.8346 + 12, bottom: 90 * 2.8346, right: 110 * 2.8346, width: 80 * 2.8346 };
const LOGO = { width: 150, height: 60 };

interface Column extends PrintedColumn {
  readonly x: number;
  readonly width: number;
  readonly align: 'left' | 'right';
}

/** Widest that a column beside the description becomes, with the gap behind it. */
const WIDEST: Readonly<Record<PrintedColumn['field'], number>> = {
  title: 0,
  supplied: 96,
  quantity: 96,
  price: 66,
  less: 46,
  tax: 92,
  value: 76,
};

const GAP = 10;

/** As wide as what stands in a column asks for, so that descriptions get all the room that is left. */
function widthOf({ field, head, whole }: PrintedColumn, { lines }: PrintedDocument, doc: PDFKit.PDFDocument): number {
  if (field === 'title') return 0;
  doc.font('text').fontSize(8);
  const heading = doc.widthOfString(head);
  doc.fontSize(9.5);
  const texts = new Set(lines.flatMap((line) => (field === 'value' ? [line.value, line.running] : [line[field]])));
  const widest = [...texts].reduce((most, text) => Math.max(most, doc.widthOfString(text)), heading);
  return Math.min(whole === true ? INNER / 3 : WIDEST[field], Math.ceil(widest) + GAP + (field === 'tax' ? 8 : 0));
}

function columnsFor(page: PrintedDocument, doc: PDFKit.PDFDocument): readonly Column[] {
  const widths = page.columns.map((column) => widthOf(column, page, doc));
  const fixed = widths.reduce((sum, width) => sum + width, 0);
  let x = PAGE.left;
  return page.columns.map((column, i): Column => {
    const { field } = column;
    const width = field === 'title' ? INNER - fixed : (widths[i] ?? 0);
    const left = field === 'title' || field === 'tax' || field === 'supplied';
    const gap = i === page.columns.length - 1 ? 0 : 8;
    const at = x + (field === 'tax' ? 8 : 0);
    x += width;
    return { ...column, x: at, width: width - gap - (field === 'tax' ? 8 : 0), align: left ? 'left' : 'right' };
  });
}

/** Draws one document; pages are added as the lines need them. */
export class Sheet {
  private y = PAGE.top;
  private pages = 0;
  private readonly columns: readonly Column[];

  constructor(
    private readonly doc: PDFKit.PDFDocument,
    private readonly page: PrintedDocument,
  ) {
    this.columns = columnsFor(page, doc);
  }

  draw(): void {
    this.newPage();
    this.drawHead();
    this.drawLines();
    this.drawTotals();
    this.drawFoot();
    this.drawSlip();
    this.numberPages();
  }

  private newPage(): void {
    this.doc.addPage();
    this.pages += 1;
    this.y = PAGE.top;
  }

  private text(
    text: string,
    x: number,
    y: number,
    options: { width: number; align?: 'left' | 'right'; size?: number; font?: keyof PrintFonts; color?: string },
  ): number {
    const { width, align = 'left', size = 9.5, font = 'text', color = INK } = options;
    this.doc.font(font).fontSize(size).fillColor(color);
    const words = withLongWordsBroken(this.doc, text, width);
    const height = this.doc.heightOfString(words, { width, align });
    this.doc.text(words, x, y, { width, align });
    return height;
  }

  /** Of a text in the font and size that are set. */
  private height(text: string, width: number): number {
    return this.doc.heightOfString(withLongWordsBroken(this.doc, text, width), { width });
  }

  private rule(y: number, from = PAGE.left, width = 0.6, color = RULE): void {
    this.doc
      .moveTo(from, y)
      .lineTo(PAGE.width - PAGE.right, y)
      .lineWidth(width)
      .strokeColor(color)
      .stroke();
  }

  private get bottom(): number {
    return PAGE.height - PAGE.bottom - this.footerHeight;
  }

  /** Height of the lines at the foot of every page. */
  private get footerHeight(): number {
    const { footer } = this.page;
    if (footer === '') return 0;
    this.doc.font('text').fontSize(FOOTER);
    return this.height(footer, INNER) + 6;
  }

  /** Begins a new page unless `height` still fits above the foot. */
  private room(height: number): boolean {
    if (this.y + height <= this.bottom) return false;
    this.newPage();
    return true;
  }

  private drawLogo(): number {
    const { logo } = this.page;
    if (logo === '') return 0;
    this.doc.image(logo, PAGE.left, this.y - 8, { fit: [LOGO.width, LOGO.height] });
    return LOGO.height + 6;
  }

  /** As large as the longest word of the title lets it be; smaller where it is a whole sentence, as on letters. */
  private titleSize(width: number): number {
    const { title } = this.page;
    const most = title.length > LONG_TITLE ? SENTENCE : TITLE;
    this.doc.font('title').fontSize(most);
    const widest = Math.max(...title.split(/\s+/).map((word) => this.doc.widthOfString(word)));
    return Math.max(LEADING, Math.min(most, Math.floor((most * width) / widest)));
  }

  private drawHead(): void {
    const { page } = this;
    const half = INNER / 2 - 12;
    const [name = '', ...seller] = page.seller;
    const top = this.y;
    this.y += this.drawLogo();
    const title = this.text(page.title, PAGE.left, this.y - 4, {
      width: half,
      size: this.titleSize(half),
      font: 'title',
      color: page.accent,
    });
    if (page.stampLine !== '')
      this.text(page.stampLine, PAGE.left, this.y + title, { width: half, font: 'strong', color: STAMP });
    const nameHeight = this.text(name, PAGE.left + INNER / 2 + 12, top, { width: half, font: 'strong', size: 10.5 });
    const right = this.text(seller.join('\n'), PAGE.left + INNER / 2 + 12, top + nameHeight + 2, {
      width: half,
      color: SOFT,
      size: 9,
    });
    const [buyerName = '', ...buyer] = page.buyer;
    const free = Math.max(this.y + 56, this.y + title + (page.stampLine === '' ? 16 : 40));
    const isRight = page.window === 'right';
    // On the right the address stands below our own.
    const under = isRight ? Math.max(free, top + nameHeight + right + 10) : free;
    const below = page.window === '' ? free : Math.max(WINDOW.top, under);
    const x = isRight ? WINDOW.right : PAGE.left;
    const width = page.window === '' ? half : WINDOW.width;
    const buyerHeight = this.text(buyerName, x, below, { width, font: 'strong', size: 10.5 });
    const left = this.text(buyer.join('\n'), x, below + buyerHeight + 2, { width });
    const end = Math.max(top + nameHeight + right, below + buyerHeight + left) + 22;
    this.y = page.window === '' ? end : Math.max(end, WINDOW.bottom);
    this.drawFacts();
  }

  /** Three to a row; a row is as high as its longest fact. */
  private drawFacts(): void {
    const width = INNER / 3;
    const { facts } = this.page;
    for (let i = 0; i < facts.length; i += 3) {
      const row = facts.slice(i, i + 3);
      const heights = row.map(([label, value], column) => {
        const x = PAGE.left + column * width;
        this.text(label, x, this.y, { width: width - 12, size: 8, color: SOFT });
        return this.text(value, x, this.y + 11, { width: width - 12, size: 10 });
      });
      this.y += 19 + Math.max(LEADING, ...heights);
    }
    this.y += 12;
  }

  private drawColumnHeads(): void {
    for (const column of this.columns)
      this.text(column.head, column.x, this.y, { width: column.width, align: column.align, size: 8, color: SOFT });
    this.y += 14;
    this.rule(this.y, PAGE.left, 0.9, this.page.accent);
    this.y += 6;
  }

  private drawCarried(words: string, amount: string): void {
    const value = this.columns.at(-1);
    if (value === undefined || this.page.totals.length === 0) return;
    this.text(words, PAGE.left, this.y, { width: INNER / 2, color: SOFT });
    this.text(amount, value.x, this.y, { width: value.width, align: 'right', color: SOFT });
    this.y += CARRIED;
  }

  private heightOf(line: PrintedLine): {
    readonly heads: readonly number[];
    readonly detail: number;
    readonly all: number;
  } {
    const [title] = this.columns;
    this.doc.font('text').fontSize(9.5);
    const heads = this.columns.map((c) => this.height(line[c.field], c.width));
    this.doc.fontSize(8.5);
    const detail = line.detail === '' ? 0 : this.height(line.detail, title?.width ?? INNER);
    return { heads, detail, all: Math.max((heads[0] ?? LEADING) + detail, ...heads.slice(1)) };
  }

  private drawLines(): void {
    this.drawColumnHeads();
    const { lines } = this.page;
    lines.forEach((line, i) => {
      const { heads, detail, all } = this.heightOf(line);
      const before = lines[i - 1];
      // The line below stays with what is carried forward, and the last one with the totals.
      const last = i === lines.length - 1;
      const needed = all + 8 + (last ? this.closingHeight() : CARRIED);
      if (before !== undefined && this.y + needed > this.bottom && !(last && this.fitsNowhere(needed))) {
        this.drawCarried(this.page.carried, before.running);
        this.newPage();
        this.drawColumnHeads();
        this.drawCarried(this.page.brought, before.running);
      }
      for (const column of this.columns)
        this.text(line[column.field], column.x, this.y, { width: column.width, align: column.align });
      if (detail > 0)
        this.text(line.detail, PAGE.left, this.y + (heads[0] ?? LEADING), {
          width: this.columns[0]?.width ?? INNER,
          size: 8.5,
          color: SOFT,
        });
      this.y += all + 5;
      this.rule(this.y - 2);
      this.y += 3;
    });
  }

  /** Of the totals, and of what stands below them where all of it fits on one page: how to pay never stands alone. */
  private closingHeight(): number {
    const totals = this.totalsHeight();
    const all = totals + this.footHeight();
    return this.fitsNowhere(all + 60) ? totals : all;
  }

  private footHeight(): number {
    const { legends, terms, note, conditions, payment, slip, foot, code } = this.page;
    this.doc.font('text').fontSize(9.5);
    const texts = [...legends, ...terms, note, conditions].filter(Boolean).map((text) => this.height(text, INNER) + 8);
    const pay = Math.max(payment.length * 14, slip === null && code !== null ? 92 : 0);
    this.doc.fontSize(8.5);
    const closing = foot === '' ? 0 : this.height(foot, INNER) + 14;
    return (
      texts.reduce((sum, height) => sum + height, 0) +
      (pay > 0 ? pay + 16 : 0) +
      closing +
      (slip === null ? 0 : SLIP + 20)
    );
  }

  private totalsHeight(): number {
    const { totals, withheld, homeTax } = this.page;
    if (totals.length === 0) return 0;
    return (totals.length + withheld.length) * 16 + 34 + (homeTax === '' ? 0 : 14);
  }

  /** True for a last line that would not share a page with the totals even on a fresh one. */
  private fitsNowhere(height: number): boolean {
    return height > this.bottom - PAGE.top - 40;
  }

  private drawTotals(): void {
    const { totals, withheld, homeTax, currency, accent } = this.page;
    if (totals.length === 0) return;
    // The totals stay together: an orphan total on a new page would say nothing.
    this.room(this.totalsHeight());
    const from = PAGE.left + INNER * 0.45;
    const width = PAGE.width - PAGE.right - from;
    const row = ([label, amount]: PrintedFact, font: keyof PrintFonts = 'text') => {
      const height = this.text(label, from, this.y, { width: width - 94, font });
      this.text(amount, from + width - 90, this.y, { width: 90, align: 'right', font });
      this.y += Math.max(16, height + 3);
    };
    this.y += 6;
    for (const fact of totals.slice(0, -1)) row(fact);
    const [label = '', amount = ''] = totals.at(-1) ?? [];
    this.rule(this.y, from, 0.9, accent);
    this.y += 6;
    row([`${label} ${currency}`, amount], 'strong');
    this.rule(this.y, from, 0.9, accent);
    this.rule(this.y + 2.5, from, 0.9, accent);
    this.y += 8;
    for (const fact of withheld) row(fact);
    if (homeTax !== '') this.y += 2 + this.text(homeTax, from, this.y, { width, size: 8.5, color: SOFT });
    this.y += 14;
  }

  private drawFoot(): void {
    const { legends, terms, note, conditions, payment, slip, foot } = this.page;
    // On a slip the code stands there.
    const code = slip === null ? this.page.code : null;
    for (const text of [...legends, ...terms, note, conditions].filter(Boolean)) {
      this.doc.font('text').fontSize(9.5);
      const height = this.height(text, INNER);
      this.room(height + 8);
      this.text(text, PAGE.left, this.y, { width: INNER });
      this.y += height + 8;
    }
    const square = code === null ? 0 : 92;
    const height = Math.max(payment.length * 14, square) + 10;
    if (payment.length > 0 || square > 0) this.room(height);
    this.y += 6;
    const top = this.y;
    for (const [label, value] of payment) {
      if (value === '') this.text(label, PAGE.left, this.y, { width: INNER });
      else {
        this.text(label, PAGE.left, this.y, { width: 96, color: SOFT, size: 9 });
        this.text(value, PAGE.left + 100, this.y, { width: INNER - 100 - square - 90 });
      }
      this.y += 14;
    }
    if (code !== null) {
      this.drawCode(code.text, PAGE.width - PAGE.right - 84, top, 84);
      this.text(code.words, PAGE.width - PAGE.right - 84 - 96, top, {
        width: 90,
        align: 'right',
        size: 8,
        color: SOFT,
      });
      this.y = Math.max(this.y, top + square);
    }
    if (foot === '') return;
    this.doc.font('text').fontSize(8.5);
    const closing = this.height(foot, INNER);
    this.room(closing + 14);
    this.y += 10;
    this.text(foot, PAGE.left, this.y, { width: INNER, size: 8.5, color: SOFT });
    this.y += closing;
  }

  /** A code as squares of ink, so that it prints sharp at any size. */
  private drawCode(text: string, x: number, y: number, width: number): void {
    const { size, dark } = codeSquares(text);
    const side = width / size;
    this.doc.fillColor(INK);
    for (let row = 0; row < size; row++)
      for (let column = 0; column < size; column++)
        if (dark(column, row)) this.doc.rect(x + column * side, y + row * side, side, side);
    this.doc.fill();
  }

  private drawSlip(): void {
    const { slip, code } = this.page;
    if (slip === null) return;
    this.room(SLIP + 20);
    const top = this.bottom - SLIP;
    this.doc.dash(3, { space: 3 });
    this.rule(top, PAGE.left, 0.6, SOFT);
    this.doc.undash();
    this.text(slip.title, PAGE.left, top + 8, { width: INNER, size: 8.5, color: SOFT });
    slip.rows.forEach(([label, value], i) => {
      const y = top + 28 + i * 18;
      this.text(label, PAGE.left, y, { width: 96, size: 9, color: SOFT });
      this.text(value, PAGE.left + 100, y, { width: INNER - 210, size: 10.5 });
    });
    if (code !== null) this.drawCode(code.text, PAGE.width - PAGE.right - 96, top + 28, 96);
  }

  /** A word across the page, in outline so that what lies below stays legible. */
  private drawStamp(): void {
    const { stamp } = this.page;
    if (stamp === '') return;
    const size = 84;
    this.doc.save();
    this.doc.font('strong').fontSize(size);
    const width = this.doc.widthOfString(stamp);
    this.doc.rotate(-35, { origin: [PAGE.width / 2, PAGE.height / 2] });
    this.doc.strokeColor(STAMP).lineWidth(1.4);
    this.doc.text(stamp, (PAGE.width - width) / 2, PAGE.height / 2 - size / 2, {
      lineBreak: false,
      stroke: true,
      fill: false,
    });
    this.doc.restore();
  }

  /** Page x of y, title and seal at the foot of each of this document's pages. */
  private numberPages(): void {
    const { start, count } = this.doc.bufferedPageRange();
    const first = start + count - this.pages;
    for (let i = 0; i < this.pages; i++) {
      this.doc.switchToPage(first + i);
      // The foot lies inside the bottom margin; without lifting it the text would open a new page.
      this.doc.page.margins.bottom = 0;
      const foot = { size: 8, color: SOFT, width: INNER / 3 } as const;
      this.text(`${this.page.title} ${this.page.number}`, PAGE.left, PAGE.height - 40, foot);
      if (this.page.footer !== '')
        this.text(this.page.footer, PAGE.left, PAGE.height - 44 - this.footerHeight, {
          size: FOOTER,
          color: SOFT,
          width: INNER,
        });
      if (this.page.seal !== '') this.text(this.page.seal, PAGE.left + INNER / 3, PAGE.height - 40, foot);
      this.drawStamp();
      const words = this.page.page.replace('{page}', String(i + 1)).replace('{count}', String(this.pages));
      this.text(words, PAGE.left + (2 * INNER) / 3, PAGE.height - 40, { ...foot, align: 'right' });
    }
  }
}

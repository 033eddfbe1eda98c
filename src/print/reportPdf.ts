import { toBytes } from 'pdfkit/output';
import { writeDate } from '@/core/kernel/date';
import { type Minor, NOTHING, writeMoney } from '@/core/kernel/money';
import {
  type Report,
  type ReportCell,
  type ReportChart,
  type ReportTable,
  shownCell,
  stepSpans,
} from '@/core/reports/report';
import type { PrintFonts } from './fonts';
import { withLongWordsBroken } from './longWords';
import { newPdf, withGlyphs } from './pdf';

/* A report on paper: its tables one below the other, heads on each page, as wide as the paper where there is much to say. */

const A4 = { short: 595.28, long: 841.89 };
const EDGE = 48;
const ROW = 9;
const HEAD = 8;
const GAP = 10;
const FOOT = 36;
const INK = '#1F2430';
const SOFT = '#5B6070';
const RULE = '#B9AF9B';
/** Tables of more columns lie across the paper. */
const UPRIGHT = 6;
/** Height of a chart. */
const CHART = 110;
const SERIES = ['#9A4320', '#46586B', '#4C6A3A', '#A86A12'];

interface Column {
  readonly head: string;
  readonly x: number;
  readonly width: number;
  readonly right: boolean;
}

/** The cells of a table as text, heads first, sums last. */
function textsOf({ columns, rows, sums }: ReportTable, currency: Report['currency']): readonly (readonly string[])[] {
  const shown = (cells: readonly ReportCell[]) =>
    columns.map((column, i) => shownCell(cells[i] ?? '', column, currency));
  return [
    columns.map(({ head }) => head),
    ...rows.map(({ cells }) => shown(cells)),
    ...(sums === null ? [] : [shown(sums)]),
  ];
}

class ReportSheet {
  private y = EDGE;

  constructor(
    private readonly doc: PDFKit.PDFDocument,
    private readonly size: { readonly width: number; readonly height: number },
  ) {}

  newPage(): void {
    this.doc.addPage({
      size: [this.size.width, this.size.height],
      margins: { top: EDGE, bottom: 0, left: EDGE, right: EDGE },
    });
    this.y = EDGE;
  }

  /** Writes a text and gives its height. */
  private text(
    words: string,
    { x = EDGE, width = this.inner(), size = ROW, font = 'text', color = INK, right = false },
    y = this.y,
  ): number {
    this.doc.font(font).fontSize(size).fillColor(color);
    const shown = withLongWordsBroken(this.doc, words, width);
    const height = this.doc.heightOfString(shown, { width });
    this.doc.text(shown, x, y, { width, align: right ? 'right' : 'left' });
    return height;
  }

  private inner(): number {
    return this.size.width - 2 * EDGE;
  }

  private rule(y: number, width: number): void {
    this.doc
      .moveTo(EDGE, y)
      .lineTo(this.size.width - EDGE, y)
      .lineWidth(width)
      .strokeColor(width > 0.5 ? INK : RULE)
      .stroke();
  }

  head(title: string, business: string, days: string): void {
    this.y += this.text(title, { size: 18, font: 'title' }) + 2;
    this.y += this.text(`${business} · ${days}`, { color: SOFT }) + 10;
  }

  /** As wide as what stands in them; what is words shares the rest, so that sums stand at the edge. */
  private columnsOf({ columns }: ReportTable, texts: readonly (readonly string[])[]): readonly Column[] {
    this.doc.font('text').fontSize(ROW);
    const widths = columns.map((_, i) =>
      Math.min(this.inner() / 2, Math.max(...texts.map((cells) => this.doc.widthOfString(cells[i] ?? ''))) + GAP),
    );
    const words = columns.flatMap(({ kind }, i) => (kind === 'words' ? [i] : []));
    const rest = this.inner() - widths.reduce((sum, width) => sum + width, 0);
    const said = words.reduce((sum, i) => sum + (widths[i] ?? 0), 0);
    let x = EDGE;
    return columns.map(({ head, kind }, i): Column => {
      const own = widths[i] ?? 0;
      const width = Math.max(24, kind === 'words' && said > 0 ? own + (rest * own) / said : own);
      const isLast = i === columns.length - 1;
      const column = { head, x, width: isLast ? width : width - GAP, right: kind === 'amount' };
      x += width;
      return column;
    });
  }

  private heads(columns: readonly Column[]): void {
    const height = Math.max(
      ...columns.map(({ head, x, width, right }) => this.text(head, { x, width, right, size: HEAD, color: SOFT })),
    );
    this.y += height + 3;
    this.rule(this.y, 0.8);
    this.y += 4;
  }

  private row(cells: readonly string[], columns: readonly Column[], font: string): void {
    this.doc.font(font).fontSize(ROW);
    const height = Math.max(
      ...columns.map(({ width }, i) =>
        this.doc.heightOfString(withLongWordsBroken(this.doc, cells[i] ?? '', width), { width }),
      ),
    );
    if (this.y + height > this.size.height - EDGE - FOOT) {
      this.newPage();
      this.heads(columns);
    }
    for (const [i, { x, width, right }] of columns.entries()) this.text(cells[i] ?? '', { x, width, right, font });
    this.y += height + 3;
  }

  table(table: ReportTable, currency: Report['currency']): void {
    if (this.y > this.size.height - EDGE - FOOT - 80) this.newPage();
    this.y += this.text(table.caption, { size: 11, font: 'title' }) + 5;
    if (table.rows.length === 0) {
      this.y += this.text(table.nothing, { color: SOFT }) + 12;
      return;
    }
    const texts = withGlyphs(textsOf(table, currency), this.doc);
    const columns = this.columnsOf(table, texts);
    this.heads(columns);
    const body = table.sums === null ? texts.slice(1) : texts.slice(1, -1);
    for (const cells of body) {
      this.row(cells, columns, 'text');
      this.rule(this.y - 2, 0.3);
      this.y += 1;
    }
    if (table.sums !== null) {
      this.rule(this.y - 1, 0.8);
      this.y += 2;
      this.row(texts.at(-1) ?? [], columns, 'text');
      this.rule(this.y, 0.8);
      this.rule(this.y + 2, 0.8);
    }
    this.y += 16;
  }

  /** Bars of the chart with their names below; what they come to stands in the tables. */
  chart({ kind, names, series }: ReportChart, currency: Report['currency']): void {
    const length = (amount: Minor) => Number(writeMoney(amount, currency));
    const bars = series.map(({ amounts }) =>
      (kind === 'steps' ? stepSpans(amounts) : amounts.map((amount) => [NOTHING, amount] as const)).map(
        ([from, to]) => [length(from), length(to)],
      ),
    );
    const ends = [0, ...bars.flat(2)];
    const [top, bottom] = [Math.max(...ends), Math.min(...ends)];
    const scale = CHART / (top - bottom || 1);
    if (series.length > 1)
      for (const [i, { name }] of series.entries())
        this.y += this.text(`\u25a0 ${name}`, { size: HEAD, color: SERIES[i % SERIES.length] ?? INK });
    const room = this.inner() / Math.max(1, names.length);
    const width = (room * 0.6) / series.length;
    const zero = this.y + top * scale;
    for (const [i, own] of bars.entries())
      for (const [at, [from = 0, to = 0]] of own.entries())
        this.doc
          .rect(
            EDGE + at * room + room * 0.2 + i * width,
            zero - Math.max(from, to) * scale,
            width,
            Math.abs(to - from) * scale,
          )
          .fill(SERIES[i % SERIES.length] ?? INK);
    this.rule(zero, 0.8);
    this.y += CHART + 3;
    this.doc.font('text').fontSize(7).fillColor(SOFT);
    for (const [at, name] of withGlyphs(names, this.doc).entries())
      this.doc.text(withLongWordsBroken(this.doc, name, room - 4), EDGE + at * room + 2, this.y, {
        width: room - 4,
        height: 18,
        ellipsis: true,
        align: 'center',
      });
    this.y += 28;
  }

  note(words: string): void {
    this.y += this.text(words, {}) + 4;
  }

  number(title: string): void {
    const { start, count } = this.doc.bufferedPageRange();
    for (let i = 0; i < count; i++) {
      this.doc.switchToPage(start + i);
      const foot = { size: HEAD, color: SOFT };
      this.text(title, foot, this.size.height - FOOT);
      this.text(`Page ${i + 1} of ${count}`, { ...foot, right: true }, this.size.height - FOOT);
    }
  }
}

/** The days of a report in words. */
export function daysOf({ from, until }: Pick<Report, 'from' | 'until'>): string {
  return from === until ? `as at ${writeDate(until)}` : `${writeDate(from)} to ${writeDate(until)}`;
}

/** A report as PDF, of a business by its name; `at` is an ISO instant that stands in the file as its date. */
export async function writeReportPdf(
  report: Report,
  business: string,
  fonts: PrintFonts,
  at: string,
): Promise<Uint8Array> {
  const { title, tables, notes, currency } = report;
  const doc = newPdf({ language: 'en', title, author: business, at }, fonts, false);
  const bytes = toBytes(doc);
  const across = tables.some(({ columns }) => columns.length > UPRIGHT);
  const sheet = new ReportSheet(
    doc,
    across ? { width: A4.long, height: A4.short } : { width: A4.short, height: A4.long },
  );
  sheet.newPage();
  sheet.head(title, withGlyphs(business, doc), `${daysOf(report)} · ${currency}`);
  if (report.chart !== undefined) sheet.chart(report.chart, currency);
  for (const table of tables) sheet.table(table, currency);
  for (const note of withGlyphs(notes, doc)) sheet.note(note);
  sheet.number(`${title}, ${daysOf(report)}`);
  doc.end();
  return bytes;
}

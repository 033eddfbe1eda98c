import { expose } from 'comlink';
import { zipSync } from 'fflate';
import type { Content } from '@/core/documents/content';
import { type EFile, einvoiceOf } from '@/core/einvoice/fromDocument';
import { writeEInvoice } from '@/core/einvoice/syntax';
import type { Report } from '@/core/reports/report';
import type { CalcResult } from '@/core/tax/calcTypes';
import { FONT_FILES, type PrintFonts } from '@/print/fonts';
import { writeHybridPdf, writePdf } from '@/print/pdf';
import { writeReportPdf } from '@/print/reportPdf';
import { type PrintedDocument, type PrintOptions, printed, printName } from '@/print/words';

/** A document to print, and how. */
export interface PrintJob extends PrintOptions {
  readonly content: Content;
  readonly figures: CalcResult;
  /** Instant that stands in the file as its date, so that it comes out the same each time. */
  readonly issuedAt: string;
}

let fonts: Promise<PrintFonts> | null = null;

async function fetchFont(name: string): Promise<Uint8Array> {
  const response = await fetch(`/fonts/${name}`);
  if (!response.ok) throw new Error(`typeface ${name} is missing`);
  return new Uint8Array(await response.arrayBuffer());
}

async function loadFonts(): Promise<PrintFonts> {
  const [text, strong, title] = await Promise.all([
    fetchFont(FONT_FILES.text),
    fetchFont(FONT_FILES.strong),
    fetchFont(FONT_FILES.title),
  ]);
  return { text, strong, title };
}

const pageOf = ({ content, figures, ...options }: PrintJob) => printed(content, figures, options);

const face = {
  async pdf(job: PrintJob): Promise<Uint8Array> {
    fonts ??= loadFonts();
    return writePdf([pageOf(job)], await fonts, job.issuedAt);
  },

  /** A document as PDF/A-3 with its e-invoice inside. */
  async hybrid(job: PrintJob, files: readonly EFile[]): Promise<Uint8Array> {
    fonts ??= loadFonts();
    const cii = writeEInvoice(einvoiceOf(job.content, job.figures, files), 'cii');
    return writeHybridPdf(pageOf(job), cii, await fonts, job.issuedAt);
  },

  /** Pages that are set in words already, as one PDF; `at` is an instant that stands in the file as its date. */
  async pages(pages: readonly PrintedDocument[], at: string): Promise<Uint8Array> {
    fonts ??= loadFonts();
    return writePdf(pages, await fonts, at);
  },

  /** A report; `at` is an instant that stands in the file as its date. */
  async report(report: Report, business: string, at: string): Promise<Uint8Array> {
    fonts ??= loadFonts();
    return writeReportPdf(report, business, await fonts, at);
  },

  /** Many documents as one PDF. */
  async batch(jobs: readonly PrintJob[], onDone: (done: number) => void): Promise<Uint8Array> {
    fonts ??= loadFonts();
    return writePdf(jobs.map(pageOf), await fonts, jobs.at(-1)?.issuedAt ?? '', onDone);
  },

  /** Many documents as a PDF each, in one zip file. */
  async zip(jobs: readonly PrintJob[], onDone: (done: number) => void): Promise<Uint8Array> {
    fonts ??= loadFonts();
    const files: Record<string, Uint8Array> = {};
    for (const [i, job] of jobs.entries()) {
      files[printName(job.content)] = await writePdf([pageOf(job)], await fonts, job.issuedAt);
      onDone(i + 1);
    }
    return zipSync(files, { level: 0, mtime: '2000-01-01' });
  },
};

export type PrintFace = typeof face;

expose(face);

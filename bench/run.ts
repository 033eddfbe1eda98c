import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { servePage } from 'tests/servePage';
import { ARCHIVE_VERSION, packArchive } from '@/core/files/archive';
import { isoDate } from '@/core/kernel/date';
import { calculate } from '@/core/tax/calculate';
import { readCalcInput } from '@/core/tax/readCalcInput';
import { largeBook } from '@/demo/largeBook';
import { matchingAgainstFew } from './bank';
import type { Bench } from './browser';
import { decideAgainstCompute } from './decide';
import { typingAgainstShort } from './typing';

/* Speed as ratios to a baseline measured in the same run; see docs/bench.md for what each one says. */

const ROOT = join(import.meta.dirname, '..');

/** The median time of each work, in milliseconds; done by turns, so that what else the machine does meets all alike. */
function medianTimes(runs: number, ...works: readonly (() => unknown)[]): readonly number[] {
  const times: number[][] = works.map(() => []);
  for (let i = 0; i < runs; i++)
    for (const [w, work] of works.entries()) {
      const began = performance.now();
      work();
      times[w]?.push(performance.now() - began);
    }
  return times.map((all) => all.sort((a, b) => a - b)[Math.floor(runs / 2)] ?? 0);
}

/** (a) A 500-line document computed, against a JSON round trip of the same document. */
function computeAgainstJson(): void {
  const lines = Array.from({ length: 500 }, (_, i) => ({
    id: String(i),
    quantity: `${1 + (i % 9)}.5`,
    unitPrice: `${10 + i}.37`,
    tax: ['S', 'R', 'Z'][i % 3],
    ...(i % 4 === 0 && { discount: { percent: '7.5' } }),
  }));
  const codes = { S: '23', R: '13.5', Z: '0' };
  const taxes = Object.fromEntries(
    Object.entries(codes).map(([code, rate]) => [code, { category: 'S', components: [{ id: code, rate }] }]),
  );
  for (const priceMode of ['net', 'gross']) {
    const read = readCalcInput({
      currency: 'EUR',
      priceMode,
      rounding: { mode: 'half-up', level: 'document' },
      taxes,
      lines,
    });
    if (!read.ok) throw new Error(JSON.stringify(read.refusals));
    const input = read.value;
    const compute = () => calculate(input);
    const roundTrip = () => JSON.parse(JSON.stringify(input));
    medianTimes(200, compute, roundTrip);
    const [computed = 0, json = 0] = medianTimes(301, compute, roundTrip);
    console.log(
      `(a) 500 lines, ${priceMode}: ${computed.toFixed(2)} ms; JSON round trip ${json.toFixed(2)} ms; ratio ${(computed / json).toFixed(2)}`,
    );
  }
}

const WITH_BENCH = 'bench' as keyof typeof globalThis;

/** (b) Issuing by the action, against raw writes. */
async function issuing(page: Page): Promise<void> {
  const issue = await page.evaluate((name) => (globalThis[name] as unknown as Bench).issueAgainstRaw(1000), WITH_BENCH);
  console.log(
    `(b) 1,000 invoices issued by the action: ${issue.action.toFixed(0)} ms; raw writes of the same ${issue.rows} rows ${issue.raw.toFixed(0)} ms; ratio ${(issue.action / issue.raw).toFixed(2)}`,
  );
}

/** (c) Return and proof of a period, by the size of the book. */
async function periods(page: Page): Promise<void> {
  const period = await page.evaluate(
    (name) => (globalThis[name] as unknown as Bench).periodAgainstSmall(20_000, 200),
    WITH_BENCH,
  );
  console.log(
    `(c) return of a period in a book of 20,000: ${period.rows} rows read, ${period.time.toFixed(2)} ms; in a book of 200: ${period.smallRows} rows, ${period.smallTime.toFixed(2)} ms; ratio ${(period.time / period.smallTime).toFixed(2)}`,
  );
  console.log(
    `(c) proof of its ${period.documents} documents (${period.holds ? 'holds' : 'DOES NOT HOLD'}): ${period.proven.toFixed(0)} ms; raw read of the rows ${period.raw.toFixed(0)} ms; ratio ${(period.proven / period.raw).toFixed(2)}`,
  );
}

/** (g), (h) Writing, checking and reading e-invoices, against parsing them. */
async function einvoices(page: Page): Promise<void> {
  const written = await page.evaluate((name) => (globalThis[name] as unknown as Bench).writtenInWorker(), WITH_BENCH);
  for (const line of written) console.log(line);
}

/** (e) Finding among many documents, against few. */
async function finding(page: Page): Promise<void> {
  const ways = await page.evaluate(
    (name) => (globalThis[name] as unknown as Bench).findingAgainstSmall(100_000, 1000),
    WITH_BENCH,
  );
  for (const { name, shown, read, smallRead, time, smallTime } of ways)
    console.log(
      `(e) ${name} among 100,000 documents: ${read} rows read for ${shown} shown, ratio ${(read / Math.max(1, shown)).toFixed(1)}, ${time.toFixed(1)} ms; among 1,000: ${smallRead} rows, ${smallTime.toFixed(1)} ms; ratio ${(time / smallTime).toFixed(2)}`,
    );
}

/** (i) Money in a large book, against a small one. */
async function money(page: Page): Promise<void> {
  const { receipt, smallReceipt, reads } = await page.evaluate(
    (name) => (globalThis[name] as unknown as Bench).moneyAgainstSmall(100_000, 1000),
    WITH_BENCH,
  );
  console.log(
    `(i) a receipt over 20 invoices among 100,000 documents: ${receipt.read} rows read, ${receipt.written} written, ratio ${(receipt.read / receipt.written).toFixed(2)}, ${receipt.time.toFixed(1)} ms; among 1,000: ${smallReceipt.read} read, ${smallReceipt.time.toFixed(1)} ms; ratio ${(receipt.time / smallReceipt.time).toFixed(2)}`,
  );
  for (const { name, read, smallRead, time, smallTime } of reads)
    console.log(
      `(i) ${name} among 100,000 documents: ${read} rows read, ${time.toFixed(1)} ms; among 1,000: ${smallRead} rows, ${smallTime.toFixed(1)} ms; ratio ${(time / smallTime).toFixed(2)}`,
    );
}

/** (k) A run with its messages, against plain issuing. */
async function runs(page: Page): Promise<void> {
  const { run, plain, issued, mails } = await page.evaluate(
    (name) => (globalThis[name] as unknown as Bench).runAgainstPlain(1000),
    WITH_BENCH,
  );
  console.log(
    `(k) a run for 1,000 customers, ${issued} issued and ${mails} messages written: ${run.toFixed(0)} ms; issuing the same by the plain action ${plain.toFixed(0)} ms; ratio ${(run / plain).toFixed(2)}`,
  );
}

/** Documents of the book that is large, and of the one it is held against. */
const [LARGE, SMALL] = [100_000, 1000];

/** A sample book as a file, made once and kept. */
function sampleFile(documents: number): string {
  const file = join(ROOT, '.cache', `sample-${documents}-v${ARCHIVE_VERSION}.able`);
  mkdirSync(dirname(file), { recursive: true });
  if (!existsSync(file)) {
    const content = largeBook(documents, isoDate('2024-01-01'), isoDate('2026-10-31'), 1);
    writeFileSync(file, packArchive(content, '2026-11-01T09:00:00.000Z'));
  }
  return file;
}

/** The most memory that a page has ever taken, in MiB: that of the largest process that draws pages. */
function peakMemory(): number {
  const peaks = readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid))
    .map((pid) => {
      try {
        if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer')) return 0;
        const [, kib = '0'] = /VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
        return Number(kib) / 1024;
      } catch {
        // It ended in the meantime.
        return 0;
      }
    });
  return Math.max(0, ...peaks);
}

/** Spans of days that hold as many documents in the large book as in the small one, with those of as long a time before. */
const AS_MANY: Readonly<Record<number, { readonly from: string; readonly until: string }>> = {
  [LARGE]: { from: '2026-09-01', until: '2026-09-05' },
  [SMALL]: { from: '2025-06-01', until: '2026-10-31' },
};

type LargeWork = 'openLarge' | 'saveLarge' | 'readsOfLarge' | 'proofOfLarge';

/**
 * Does a piece of work in a page of its own, as the app does it in a worker of its own, whose memory is not what earlier work
 * has left; gives what came of it and the most memory that it took, in MiB.
 */
async function inOwnPage<Work extends LargeWork>(
  page: Page,
  { name, path }: { readonly name: string; readonly path: string },
  work: Work,
  days?: { readonly from: string; readonly until: string },
): Promise<{ readonly found: Awaited<ReturnType<Bench[Work]>>; readonly peak: number }> {
  const own = await page.context().newPage();
  try {
    await own.route(`**/${name}`, (route) => route.fulfill({ path }));
    await own.goto(page.url());
    const found = (await own.evaluate(
      ([global, key, file, span]) =>
        (globalThis[global as keyof typeof globalThis] as unknown as Record<string, (...given: unknown[]) => never>)[
          key
        ]?.(file, span),
      [WITH_BENCH, work, name, days] as const,
    )) as never;
    return { found, peak: peakMemory() };
  } finally {
    await own.close();
  }
}

/** (l) Whole books of sample files: opened, read, proven and saved. */
async function large(page: Page): Promise<void> {
  const seen = new Map<number, { open: number; save: number; reads: Awaited<ReturnType<Bench['readsOfLarge']>> }>();
  for (const documents of [SMALL, LARGE]) {
    const file = { name: `sample-${documents}.able`, path: sampleFile(documents) };
    const { found: opened, peak: openPeak } = await inOwnPage(page, file, 'openLarge');
    console.log(
      `(l) ${documents} documents, ${opened.rows} rows, opened in ${(opened.time / 1000).toFixed(1)} s, at most ${openPeak.toFixed(0)} MiB`,
    );
    const { found: saved, peak: savePeak } = await inOwnPage(page, file, 'saveLarge');
    console.log(
      `(l) ${documents} documents saved in ${(saved.time / 1000).toFixed(1)} s, ${(saved.bytes / 2 ** 20).toFixed(1)} MiB, at most ${savePeak.toFixed(0)} MiB`,
    );
    const { found: reads } = await inOwnPage(page, file, 'readsOfLarge', AS_MANY[documents]);
    seen.set(documents, { open: opened.time / documents, save: saved.time / documents, reads });
    const { found: proof } = await inOwnPage(page, file, 'proofOfLarge');
    console.log(
      `(l) proof of the whole book (${proof.holds ? 'holds' : 'DOES NOT HOLD'}): ${(proof.proven / 1000).toFixed(1)} s; raw read of its ${proof.read} rows ${(proof.raw / 1000).toFixed(1)} s; ratio ${(proof.proven / proof.raw).toFixed(2)}`,
    );
  }
  const [small, big] = [seen.get(SMALL), seen.get(LARGE)];
  if (small === undefined || big === undefined) return;
  console.log(
    `(l) for each document: opened ${big.open.toFixed(2)} ms against ${small.open.toFixed(2)} ms, ratio ${(big.open / small.open).toFixed(2)}; saved ${big.save.toFixed(2)} ms against ${small.save.toFixed(2)} ms, ratio ${(big.save / small.save).toFixed(2)}`,
  );
  for (const [i, { name, read, time }] of big.reads.entries()) {
    const other = small.reads[i];
    if (other !== undefined)
      console.log(
        `(l) ${name}: ${read} rows, ${time.toFixed(1)} ms; in the book of ${SMALL} ${other.read} rows, ${other.time.toFixed(1)} ms; ratio ${(time / other.time).toFixed(2)}`,
      );
  }
}

async function inChromium(parts: readonly ((page: Page) => Promise<void>)[]): Promise<void> {
  const { address, close } = await servePage(join(ROOT, 'bench/browser.ts'));
  const profile = mkdtempSync(join(tmpdir(), 'able-bench-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage'],
  });
  try {
    const page = await context.newPage();
    await page.goto(address);
    for (const part of parts) await part(page);
  } finally {
    await context.close();
    close();
    rmSync(profile, { recursive: true, force: true });
  }
}

/** Parts by name, all without any: `npm run bench -- a f`. */
const asked = process.argv.slice(2);
const wants = (name: string) => asked.length === 0 || asked.includes(name);

if (wants('a')) computeAgainstJson();
if (wants('d')) decideAgainstCompute();
if (wants('j')) matchingAgainstFew();
const parts = Object.entries({ b: issuing, c: periods, g: einvoices, e: finding, i: money, k: runs, l: large }).flatMap(
  ([name, part]) => (wants(name) ? [part] : []),
);
if (parts.length > 0) await inChromium(parts);
if (wants('f')) await typingAgainstShort();

import { SaxesParser } from 'saxes';
import { baseInvoice } from 'tests/einvoice';
import { checkEInvoice, checkFile } from '@/core/einvoice/check';
import { type EInvoice, group } from '@/core/einvoice/model';
import { readEInvoiceText, writeEInvoice } from '@/core/einvoice/syntax';

/** An invoice of so many lines of 100.00 at 23 %, in which every rule holds. */
function invoiceOf(lines: number, number: string): EInvoice {
  const net = (100 * lines).toFixed(2);
  const tax = (23 * lines).toFixed(2);
  const total = (123 * lines).toFixed(2);
  const base = baseInvoice();
  const [line] = base.groups['BG-25'] ?? [];
  const [row] = base.groups['BG-23'] ?? [];
  if (line === undefined || row === undefined) throw new Error('the base has a line and a row');
  const term = (value: string) => [{ value, scheme: '', version: '', fileName: '' }];
  return {
    ...base,
    terms: {
      ...base.terms,
      'BT-1': term(number),
      'BT-106': term(net),
      'BT-109': term(net),
      'BT-110': term(tax),
      'BT-112': term(total),
      'BT-115': term(total),
    },
    groups: {
      ...base.groups,
      'BG-23': [group('BG-23', { 'BT-116': net, 'BT-117': tax, 'BT-118': 'S', 'BT-119': '23' })],
      'BG-25': Array.from({ length: lines }, (_, i) => ({
        ...line,
        terms: { ...line.terms, 'BT-126': term(String(i + 1)) },
      })),
    },
  };
}

function readAndCheck(xml: string): void {
  const read = readEInvoiceText(xml);
  if (!read.ok) throw new Error(JSON.stringify(read.refusals));
  const { findings } = checkFile(read.value);
  if (findings.length > 0) throw new Error(JSON.stringify(findings[0]));
}

function parseAlone(xml: string): void {
  new SaxesParser({ xmlns: true }).write(xml).close();
}

const RUNS = 7;

/** The least of a few runs, in milliseconds: other work on the machine only ever adds to it. */
function timeOf(work: () => void): number {
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < RUNS; i++) {
    const began = performance.now();
    work();
    least = Math.min(least, performance.now() - began);
  }
  return least;
}

const SYNTAXES = ['ubl', 'cii'] as const;

/** (g) Writing and checking many e-invoices, against parsing the same files with the XML library alone. */
function manyAgainstParsing(): readonly string[] {
  const models = Array.from({ length: 1000 }, (_, i) => invoiceOf(20, `INV-${i}`));
  return SYNTAXES.map((syntax) => {
    let files: readonly string[] = [];
    const run = () => {
      files = models.map((model) => {
        if (checkEInvoice(model, 'peppol').length > 0) throw new Error('the invoice breaks a rule');
        return writeEInvoice(model, syntax);
      });
    };
    run();
    const written = timeOf(run);
    const read = timeOf(() => files.forEach(readAndCheck));
    files.forEach(parseAlone);
    const parsed = timeOf(() => files.forEach(parseAlone));
    return `(g) 1,000 ${syntax.toUpperCase()} files of 20 lines written and checked: ${written.toFixed(0)} ms; parsing them alone ${parsed.toFixed(0)} ms; ratio ${(written / parsed).toFixed(2)}; read back and checked ${read.toFixed(0)} ms; ratio ${(read / parsed).toFixed(2)}`;
  });
}

/** (h) Time for each line of one file that is read and checked, as the file grows. */
function timePerLine(): readonly string[] {
  return SYNTAXES.map((syntax) => {
    const times = [100, 1000, 10_000].map((lines) => {
      const xml = writeEInvoice(invoiceOf(lines, 'INV-1'), syntax);
      readAndCheck(xml);
      const work = () => {
        for (let i = 0; i < 10_000 / lines; i++) readAndCheck(xml);
      };
      return timeOf(work) / 10_000;
    });
    const [small = 1] = times;
    const shown = times.map((time) => `${(time * 1000).toFixed(0)} µs`).join(', ');
    const ratios = times.map((time) => (time / small).toFixed(2)).join(', ');
    return `(h) ${syntax.toUpperCase()} read and checked, for each line of 100, 1,000 and 10,000: ${shown}; ratios ${ratios}`;
  });
}

/** What the e-invoice benches say, ready to print. */
function writtenAgainstParsed(): readonly string[] {
  return [...manyAgainstParsing(), ...timePerLine()];
}

const GO = 'write and check e-invoices';

/** The script of this page is that of its worker too: there it waits to be told to begin. */
if (typeof document === 'undefined')
  addEventListener('message', ({ data }) => {
    if (data === GO) postMessage(writtenAgainstParsed());
  });

/** Longest task of the page, in milliseconds, while `work` goes on elsewhere; tasks under 50 ms are not told by browsers. */
async function longestTask(work: () => Promise<unknown>): Promise<number> {
  let longest = 0;
  const observer = new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) longest = Math.max(longest, duration);
  });
  observer.observe({ type: 'longtask' });
  await work();
  observer.disconnect();
  return longest;
}

/** (g) and (h) in a worker, and how long the page was kept busy meanwhile. */
export async function writtenInWorker(): Promise<readonly string[]> {
  const worker = new Worker('/page.js');
  let lines: readonly string[] = [];
  const longest = await longestTask(async () => {
    lines = await new Promise((resolve, reject) => {
      worker.addEventListener('message', ({ data }) => resolve(data));
      worker.addEventListener('error', (event) => reject(new Error(event.message)));
      worker.postMessage(GO);
    });
  });
  worker.terminate();
  const busy = longest === 0 ? 'none of 50 ms or more' : `${longest.toFixed(0)} ms`;
  return [...lines, `(g) longest task of the page while the worker did all of this: ${busy}`];
}

import { checkFile } from '@/core/einvoice/check';
import type { Profile } from '@/core/einvoice/rules/rule';
import { type ReadInvoice, readEInvoice, type Syntax, writeEInvoice } from '@/core/einvoice/syntax';
import { LARGEST_FILE } from '@/core/einvoice/xml/readXml';
import { type Result, refuse } from '@/core/kernel/result';
import { wordRefusals } from '@/core/wording/refusals';
import { invoiceInside, isPdf } from '@/print/readHybrid';
import { readFile } from './readFile';

async function read(file: string): Promise<Result<ReadInvoice>> {
  const bytes = readFile(file, LARGEST_FILE);
  if (bytes === null) return refuse({ code: 'unreadable', path: '', file: 'The file' });
  if (!isPdf(bytes)) return readEInvoice(bytes);
  const inside = await invoiceInside(bytes);
  return inside.ok ? readEInvoice(inside.value) : inside;
}

const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value)}\n`);

function printUnreadable(file: string, result: Extract<Result<unknown>, { ok: false }>): void {
  print({ file, syntax: null, profile: null, ok: false, findings: [], error: wordRefusals(result.refusals) });
}

/**
 * Prints one JSON object a line for each file, an XML file or a hybrid PDF, with what the rules of its profile, or of the one
 * asked for, find. Returns the exit code: 0 all fine, 1 errors found, 2 a file could not be read.
 */
export async function runCheck(files: readonly string[], profile?: Profile): Promise<0 | 1 | 2> {
  let code: 0 | 1 | 2 = 0;
  for (const file of files) {
    const result = await read(file);
    if (!result.ok) {
      printUnreadable(file, result);
      code = 2;
      continue;
    }
    const checked = checkFile(result.value, profile);
    const findings = checked.findings.map(({ rule, severity, term, path, message }) => ({
      rule,
      severity,
      term,
      path,
      message,
    }));
    const ok = findings.every(({ severity }) => severity !== 'error');
    print({ file, syntax: result.value.syntax, profile: checked.profile, ok, findings });
    if (!ok && code === 0) code = 1;
  }
  return code;
}

/** Prints a file in the other syntax. Returns the exit code: 0, or 2 when it could not be read. */
export async function runConvert(file: string, to: Syntax): Promise<0 | 2> {
  const result = await read(file);
  if (!result.ok) {
    process.stderr.write(`${wordRefusals(result.refusals)}\n`);
    return 2;
  }
  process.stdout.write(writeEInvoice(result.value.invoice, to));
  return 0;
}

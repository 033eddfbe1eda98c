import { strangeInvoice } from 'tests/strangeInvoice';
import { wordRefusals } from '@/core/wording/refusals';
import { checkFile } from './check';
import { type EInvoice, plainModel } from './model';
import { readEInvoice, type Syntax, writeEInvoice } from './syntax';

/* E-invoices that somebody changed, in the tree or in the bytes: refused in words, or read without loss. */

const OTHER: Readonly<Record<Syntax, Syntax>> = { ubl: 'cii', cii: 'ubl' };
const written = (invoice: EInvoice, syntax: Syntax) =>
  readEInvoice(new TextEncoder().encode(writeEInvoice(invoice, syntax)));

/** A plain model without the groups that hold nothing, which one syntax asks for and the other has no place for. */
function filled(part: unknown): unknown {
  if (!Array.isArray(part)) return part;
  const full = part.map(filled).filter((inner) => !Array.isArray(inner) || inner.length > 0);
  return full.length === 1 && typeof full[0] === 'string' && /^BG-/.test(full[0]) ? [] : full;
}

test('of 500 changed e-invoices each is refused in words, or holds the same in either syntax', () => {
  let refused = 0;
  let faulty = 0;
  for (let seed = 1; seed <= 500; seed++) {
    const { syntax, file } = strangeInvoice(seed);
    const read = readEInvoice(file);
    if (!read.ok) {
      refused++;
      expect(wordRefusals(read.refusals)).toMatch(/^[A-Z].*\.$/s);
      continue;
    }
    const { findings } = checkFile(read.value);
    if (findings.length > 0) faulty++;
    for (const { rule, message } of findings) expect(`${rule} ${message}`).toMatch(/^\S+ .*\.$/s);
    // What was read is written and read again without loss, there and back through the other syntax.
    const there = written(read.value.invoice, OTHER[syntax]);
    const back = there.ok ? written(there.value.invoice, syntax) : there;
    expect(there.ok && back.ok).toBe(true);
    if (there.ok && back.ok)
      expect(filled(plainModel(back.value.invoice))).toEqual(filled(plainModel(there.value.invoice)));
  }
  expect(refused).toBeGreaterThan(100);
  expect(faulty).toBeGreaterThan(200);
});

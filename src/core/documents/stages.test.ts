import fc from 'fast-check';
import { discountOf, draftOf, lineOf, momentOn, settingOf } from 'tests/book';
import { soundInvoiceOf } from 'tests/einvoice';
import { issue } from '@/core/decisions/sales/issue';
import { sendQuote } from '@/core/decisions/sales/quote';
import { groupsOf, textOf } from '@/core/einvoice/model';
import { decimal, ratioOf } from '@/core/kernel/decimal';
import { minor, total } from '@/core/kernel/money';
import { compare } from '@/core/kernel/ratio';
import { FIRST_CHART } from '@/core/ledger/account';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { present } from '@/store/load';
import type { Draft } from './draft';
import type { IssuedDocument } from './issued';
import { FIRST_SERIES, type Series } from './series';
import { leftOf, overrun, quotedParts, type StageRequest, stageDraft } from './stages';

const setting = settingOf();
const customer = { ...present(DEMO_CUSTOMERS[0], 'a customer'), keys: [] };
const DAY = '2026-02-02';

function quoteOf(over: Partial<Draft>): IssuedDocument {
  const draft = draftOf({ kind: 'quote', due: '1m', ...over });
  const sent = sendQuote({ draft, customer, setting, series: FIRST_SERIES, before: undefined }, momentOn('2026-01-15'));
  if (!sent.ok) throw new Error(JSON.stringify(sent.refusals));
  return present(sent.value.changes.add?.documents?.[0], 'the quote');
}

/** Bills stages one after the other through the real decision; gives the family, the quote's own row last updated. */
function bill(quote: IssuedDocument, requests: readonly StageRequest[]): readonly IssuedDocument[] {
  let family: readonly IssuedDocument[] = [quote];
  let series: readonly Series[] = FIRST_SERIES;
  requests.forEach((request, i) => {
    const parts = quotedParts(quote, family);
    const draft = stageDraft(quote, parts, request, { id: `stage-${i}`, issueDate: DAY, due: '30d' });
    if (draft.lines.length === 0) return;
    const material = { draft, customer, setting, series, chart: FIRST_CHART, family, advances: [] };
    const decided = issue(material, { overrun: false }, momentOn(DAY));
    if (!decided.ok) throw new Error(JSON.stringify(decided.refusals));
    const { changes } = decided.value;
    series = series.map((s) => changes.put?.series?.find((put) => put.id === s.id) ?? s);
    const invoice = present(changes.add?.documents?.[0], 'the invoice');
    family = [...family.filter((d) => d.id !== quote.id), present(changes.put?.documents?.[0], 'the quote'), invoice];
  });
  return family;
}

const partsAfter = (quote: IssuedDocument, requests: readonly StageRequest[]) =>
  quotedParts(quote, bill(quote, requests));

describe('stages of a quote', () => {
  const quote = quoteOf({
    lines: [
      lineOf({ id: 'a', quantity: '3', price: '19.99', discount: '10%' }),
      lineOf({ id: 'b', quantity: '1', price: '100' }),
    ],
    adjustments: [discountOf('5%')],
  });

  test('by percent bill sums that say what they are a part of', () => {
    const [draft] = [
      stageDraft(
        quote,
        quotedParts(quote, [quote]),
        { kind: 'percent', percent: decimal('30') },
        {
          id: 's',
          issueDate: DAY,
          due: '30d',
        },
      ),
    ];
    // 53.97 + 100.00 − 7.70 = 146.27; 30 % of it is 43.88 in all.
    expect(draft?.lines.map((line) => [line.quantity, line.price, line.description.split('\n')[1]])).toEqual([
      ['1', '16.19', '30 % of 3 each'],
      ['1', '30.00', '30 % of 1 each'],
    ]);
    expect(draft?.adjustments[0]?.amount).toBe('2.31');
    expect(draft?.origin).toMatchObject({ how: 'stage', words: '30 %', by: 'sum' });
  });

  test('a third, a third and the rest come to the quote exactly, and the quote knows it', () => {
    const third: StageRequest = { kind: 'percent', percent: decimal('33.3333') };
    const family = bill(quote, [third, third, { kind: 'rest' }]);
    expect(quotedParts(quote, family).map((part) => leftOf(part))).toEqual([0n, 0n, 0n]);
    expect(family.find((d) => d.id === quote.id)?.state).toBe('invoiced');
  });

  test('by quantity keep the quoted price, and the last unit takes what is left of the line', () => {
    const odd = quoteOf({ lines: [lineOf({ id: 'a', quantity: '3', price: '0.335' })] });
    const one: StageRequest = { kind: 'quantities', quantities: new Map([['a', decimal('1')]]) };
    const values = bill(odd, [one, one, one]).flatMap((d) => (d.kind === 'invoice' ? d.figures.totals.lineValue : []));
    // 1.005 is quoted as 1.01; three times 0.335 rounded apart would be 1.02.
    expect(values).toEqual([34n, 34n, 33n]);
  });

  test('billing more than was quoted is refused without consent, and named', () => {
    const family = bill(quote, [{ kind: 'percent', percent: decimal('80') }]);
    const parts = quotedParts(quote, family);
    const again = stageDraft(
      quote,
      parts,
      { kind: 'percent', percent: decimal('80') },
      { id: 'x', issueDate: DAY, due: '30d' },
    );
    const material = {
      draft: again,
      customer,
      setting,
      series: FIRST_SERIES,
      chart: FIRST_CHART,
      family,
      advances: [],
    };
    const refused = issue(material, { overrun: false }, momentOn(DAY));
    expect(refused.ok ? [] : refused.refusals).toEqual([
      { code: 'overrun', path: 'lines', quote: quote.number, lines: ['Calibration', 'Calibration'] },
    ]);
    expect(issue(material, { overrun: true }, momentOn(DAY)).ok).toBe(true);
  });

  test('a cancelled stage gives back what it billed', () => {
    const [first, ...rest] = bill(quote, [{ kind: 'rest' }]).filter((d) => d.kind === 'invoice');
    const cancelled = {
      ...present(first, 'an invoice'),
      cancelled: { on: '2026-02-03' as never, reason: 'x', entryId: 'e' },
    };
    expect(quotedParts(quote, [quote, cancelled, ...rest]).every((part) => part.billed === 0n)).toBe(true);
  });

  const requests = fc.array(
    fc.oneof(
      fc.integer({ min: 1, max: 60 }).map((n): StageRequest => ({ kind: 'percent', percent: decimal(String(n)) })),
      fc.integer({ min: 1, max: 20_000 }).map((n): StageRequest => ({ kind: 'amount', amount: minor(BigInt(n)) })),
      fc.constant<StageRequest>({ kind: 'rest' }),
    ),
    { minLength: 1, maxLength: 4 },
  );
  const lines = fc.array(
    fc.record({
      quantity: fc.integer({ min: 1, max: 500 }).map((n) => String(n / 10)),
      price: fc.integer({ min: 1, max: 99_999 }).map((n) => (n / 1000).toFixed(3)),
      taxCode: fc.constantFrom('IE-S', 'IE-R', 'IE-Z'),
    }),
    { minLength: 1, maxLength: 4 },
  );

  test('never bill more than the quote without consent, line by line and in all, in both price modes', () => {
    fc.assert(
      fc.property(lines, requests, fc.boolean(), fc.boolean(), (some, wanted, gross, discounted) => {
        const of = quoteOf({
          priceMode: gross ? 'gross' : 'net',
          lines: some.map((line, i) => lineOf({ ...line, id: `l${i}`, taxByHand: true })),
          adjustments: discounted ? [discountOf('7%')] : [],
        });
        let family: readonly IssuedDocument[] = [of];
        for (const request of wanted) {
          const parts = quotedParts(of, family);
          const left = total(parts.map(leftOf));
          if (left <= 0n) break;
          const draft = stageDraft(of, parts, request, { id: 'x', issueDate: DAY, due: '30d' });
          if (draft.lines.length === 0) continue;
          const material = { draft, customer, setting, series: FIRST_SERIES, chart: FIRST_CHART, family, advances: [] };
          const decided = issue(material, { overrun: false }, momentOn(DAY));
          if (!decided.ok) {
            expect(decided.refusals.map((r) => r.code)).toEqual(['overrun']);
            continue;
          }
          family = [...family, present(decided.value.changes.add?.documents?.[0], 'the invoice')];
        }
        const stages = family.filter((d) => d.kind === 'invoice');
        // Each stage is a sound e-invoice that names those before it.
        for (const [i, { content }] of stages.entries()) {
          const invoice = soundInvoiceOf(content);
          const before = groupsOf(invoice, 'BG-3').map((one) => textOf(one, 'BT-25'));
          expect(before).toEqual(stages.slice(0, i).map(({ number }) => number));
        }
        for (const part of quotedParts(of, family)) {
          const within = part.value < 0n ? part.billed >= part.value : part.billed <= part.value;
          expect([part.words, within]).toEqual([part.words, true]);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('what is billed is measured on the invoices as they were issued, not on what was asked', () => {
    const [part] = partsAfter(quote, [{ kind: 'quantities', quantities: new Map([['a', decimal('2')]]) }]);
    expect(compare(part?.billedQuantity ?? ratioOf(decimal('0')), ratioOf(decimal('2')))).toBe(0);
    expect(overrun([], quote.content, quote.figures)).toEqual([]);
  });
});

import fc from 'fast-check';
import { discountOf, draftOf, lineOf, settingOf } from 'tests/book';
import { bookFigures } from '@/core/documents/bookFigures';
import { figuresOf } from '@/core/documents/content';
import { freezeDraft } from '@/core/documents/freeze';
import { preview } from '@/core/documents/preview';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { textOf } from '@/core/einvoice/model';
import type { IsoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { total, writeMoney } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { FIRST_CHART } from '@/core/ledger/account';
import { isBalanced } from '@/core/ledger/entry';
import { documentSides } from '@/core/ledger/posting/document';
import { taxEntriesOf } from '@/core/returns/taxEntry';
import { DEMO_CUSTOMERS, demoRegistration } from '@/demo/setup';
import { printed } from './words';

const setting = settingOf({
  rateOf: () => ({ perHome: decimal('1.0850'), date: '2026-01-10' as IsoDate, source: '' }),
});
const customer = DEMO_CUSTOMERS[0] ?? null;
const registration = demoRegistration('2026-01-01' as IsoDate);

const lines = fc.array(
  fc.record({
    quantity: fc.integer({ min: 1, max: 400 }).map((n) => String(n / 8)),
    price: fc.integer({ min: 1, max: 900_000 }).map((n) => (n / 1000).toFixed(3)),
    discount: fc.constantFrom('', '12.5%', '0.01'),
    taxCode: fc.constantFrom('IE-S', 'IE-R', 'IE-Z'),
  }),
  { minLength: 1, maxLength: 5 },
);

test('screen, print, entries, tax entries and e-invoice say the same, to the cent', () => {
  fc.assert(
    fc.property(
      lines,
      fc.constantFrom<'net' | 'gross'>('net', 'gross'),
      fc.constantFrom('', 'USD'),
      fc.constantFrom('', '7%', '0.05'),
      (some, priceMode, currency, discount) => {
        const draft = draftOf({
          priceMode,
          currency,
          lines: some.map((line, i) => lineOf({ ...line, id: `l${i}`, taxByHand: true })),
          adjustments: discount === '' ? [] : [discountOf(discount)],
        });
        const frozen = freezeDraft(draft, 'INV-1', customer, setting);
        if (!frozen.ok) throw new Error(JSON.stringify(frozen.refusals));
        const content = frozen.value;
        const figures = figuresOf(content);
        const { net, taxAmount, payable } = figures.totals;
        // Screen while writing, and the printed page.
        expect(preview(draft, customer, setting).figures.totals).toEqual(figures.totals);
        const page = printed(content, figures, { language: 'en' });
        expect(page.totals.at(-1)?.[1]).toBe(showMoney(payable, content.currency));
        expect(page.totals.find(([label]) => label === 'Net')?.[1]).toBe(showMoney(net, content.currency));
        expect(page.lines.map((line) => line.value)).toEqual(
          figures.lines.map((line) => showMoney(line.value, content.currency)),
        );
        // Entries in home currency, their own currency beside them, and tax entries.
        const counted = bookFigures(content, figures);
        const sides = documentSides(content, figures, counted, FIRST_CHART, {
          outputAccount: '2200',
          taxPeriodId: 'p',
        });
        expect(isBalanced(sides)).toBe(true);
        expect(sides[0]?.amount).toBe(counted.payable);
        expect(total(sides.map((side) => (side.inDocument?.amount ?? 0n) as never))).toBe(0n);
        const entries = taxEntriesOf('d', content, figures, registration, 'p', false);
        expect(total(entries.map((entry) => entry.tax))).toBe(counted.taxAmount);
        expect(total(entries.map((entry) => entry.base))).toBe(counted.net);
        // The e-invoice.
        const invoice = einvoiceOf(content, figures);
        expect((['BT-109', 'BT-110', 'BT-115'] as const).map((term) => textOf(invoice, term))).toEqual(
          [net, taxAmount, payable].map((amount) => writeMoney(amount, content.currency)),
        );
        expect(textOf(invoice, 'BT-111')).toBe(currency === '' ? '' : writeMoney(counted.taxAmount, counted.currency));
      },
    ),
    { numRuns: 80 },
  );
});

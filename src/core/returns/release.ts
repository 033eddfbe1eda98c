import { figuresOf } from '@/core/documents/content';
import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import { type Minor, minor } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import type { Receipt } from '@/core/receipts/receipt';
import type { Registration } from '@/core/tax/registration';
import { type TaxEntry, taxEntriesOf } from './taxEntry';

type Releasing = Pick<Registration, 'id' | 'jurisdictionId' | 'filingCurrency'>;

/**
 * What of a document's tax falls due when what is paid of it rises from `before` to `after`, on
 * payment basis. Released so far is R(tax × paid ÷ owed), so that the last payment releases the
 * remainder exactly and a payment that is taken back takes its tax back. Computed from the content.
 */
export function releasedBy(
  receipt: Pick<Receipt, 'id'>,
  document: IssuedDocument,
  registration: Releasing,
  before: Minor,
  after: Minor,
  periodId: string,
  late: boolean,
): readonly TaxEntry[] {
  const { content } = document;
  const figures = figuresOf(content);
  const owed = owedOf(content, figures);
  if (owed === 0n) return [];
  const part = (amount: Minor): Minor => {
    const upTo = (paid: Minor) => halfUp({ n: (owed < 0n ? -1n : 1n) * amount * paid, d: owed < 0n ? -owed : owed });
    return minor(upTo(after) - upTo(before));
  };
  return taxEntriesOf(document.id, content, figures, registration, periodId, late).map((entry) => ({
    ...entry,
    id: `${receipt.id}:${entry.id}`,
    receiptId: receipt.id,
    kind: entry.certificate === '' ? 'released' : 'exempt',
    base: part(entry.base),
    tax: part(entry.tax),
    filingBase: part(entry.filingBase),
    filingTax: part(entry.filingTax),
    ...(entry.inDocument && {
      inDocument: {
        ...entry.inDocument,
        base: part(entry.inDocument.base),
        tax: part(entry.inDocument.tax),
      },
    }),
  }));
}

/** A document on payment basis with every receipt that paid of it. */
export interface Releases {
  readonly document: IssuedDocument;
  readonly registration: Releasing;
  readonly receipts: readonly Receipt[];
}

/** Receipts of a document in the order they were recorded, each with what was paid before and after it. */
export function paidInOrder({ document, receipts }: Releases): readonly {
  readonly receipt: Receipt;
  readonly before: Minor;
  readonly after: Minor;
}[] {
  let paid = minor(0n);
  return [...receipts]
    .sort((a, b) => (`${a.recordedAt}|${a.number}` < `${b.recordedAt}|${b.number}` ? -1 : 1))
    .map((receipt) => {
      const before = paid;
      for (const { documentId, amount } of receipt.allocations)
        if (documentId === document.id) paid = minor(paid + amount);
      return { receipt, before, after: paid };
    });
}

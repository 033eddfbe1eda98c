import type { BookContent } from '@/core/decisions/changes';
import { digest } from '@/core/documents/seal';
import { writeCanonical } from '@/core/kernel/canonical';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';

type Row<T extends keyof BookContent> = BookContent[T][number];

/** Tables of version 4, as far as they are read here; all others stay as they are. */
export interface BookContentV4 {
  readonly book: readonly (Omit<Row<'book'>, 'business'> & {
    readonly business: Omit<Row<'book'>['business'], 'styleId'>;
  })[];
  readonly withholdingTypes: readonly Omit<Row<'withholdingTypes'>, 'currency'>[];
  readonly accounts: BookContent['accounts'];
  readonly styles: BookContent['styles'];
  readonly customers: readonly Pick<Row<'customers'>, 'id' | 'styleId'>[];
  readonly taxEntries: readonly Omit<Row<'taxEntries'>, 'partOfJurisdiction'>[];
  readonly documents: readonly Omit<Row<'documents'>, 'lookId'>[];
}

/** The tables that the upgrade writes anew. */
type UpgradedV4 = Pick<BookContent, 'book' | 'withholdingTypes' | 'accounts' | 'looks' | 'taxEntries' | 'documents'>;

/** Thresholds of the starter packs of version 4, which were in the money of their country. */
const PACK_CURRENCIES: Readonly<Record<string, { readonly amounts: readonly string[]; readonly currency: string }>> = {
  'KE-WHT': { amounts: ['24000', '0'], currency: 'KES' },
  'IN-TDS51': { amounts: ['250000', '0'], currency: 'INR' },
  'IN-TDS194J': { amounts: ['0', '30000'], currency: 'INR' },
};

const MONEY_ACCOUNTS = [
  { from: 1010, name: 'Cash', role: 'cash' },
  { from: 1020, name: 'Card payments', role: 'card' },
] as const;

function withMoneyAccounts(chart: BookContent['accounts']): BookContent['accounts'] {
  const accounts = [...chart];
  for (const { from, name, role } of MONEY_ACCOUNTS) {
    if (accounts.some((account) => account.role === role)) continue;
    const taken = new Set(accounts.map(({ code }) => code));
    let code = from;
    while (taken.has(String(code))) code++;
    accounts.push({ code: String(code), name, type: 'asset', role });
  }
  return accounts;
}

/** Entries with their place among the taxes of their jurisdiction, by document, receipt, cancelling and code. */
function placedInJurisdiction(entries: BookContentV4['taxEntries']): BookContent['taxEntries'] {
  const keyOf = (e: BookContentV4['taxEntries'][number]) =>
    `${e.receiptId}|${e.documentId}|${e.id.endsWith(':cancelled')}|${e.code}|${e.jurisdictionId}`;
  const places = new Map<string, number>();
  for (const group of grouped(entries, keyOf).values())
    for (const [i, { id }] of [...group].sort((a, b) => a.part - b.part).entries()) places.set(id, i);
  return entries.map((entry) => ({ ...entry, partOfJurisdiction: places.get(entry.id) ?? 0 }));
}

type OldDocument = BookContentV4['documents'][number];

/** An exact decimal such as `12.5` in units of 10^−4. */
function tenThousandths(text: string): bigint {
  const [whole = '0', decimals = ''] = text.split('.');
  return BigInt(whole + decimals.padEnd(4, '0').slice(0, 4));
}

/** The next day on which a part falls due; version 4 knew the last instalment only. */
function nextDue({ content, figures, open }: OldDocument): IsoDate {
  const withheld = (content.withholding ?? []).reduce(
    (sum, { when }, i) => (when === 'on-issue' ? sum + (figures.withholding[i]?.amount ?? 0n) : sum),
    0n,
  );
  const all = figures.totals.payable - withheld;
  let percent = 0n;
  if (open <= 0n) return content.dueDate;
  for (const instalment of content.instalments ?? []) {
    percent += tenThousandths(instalment.percent);
    if ((all - open) * 1_000_000n < all * percent) return instalment.due;
  }
  return content.dueDate;
}

/**
 * A book of version 4 in the shape of version 5: looks that documents were issued in, a default style,
 * currencies of thresholds, accounts for cash and cards, the place of a tax in its jurisdiction. A
 * document that is credited in part is not part-paid any more.
 */
export function upgradeV4(old: BookContentV4): UpgradedV4 {
  const [book] = old.book;
  const [first] = old.styles;
  const byId = new Map(old.styles.map((style) => [style.id, style]));
  const styleOf = new Map(old.customers.map(({ id, styleId }) => [id, styleId]));
  const ids = new Map(old.styles.map((style) => [style.id, digest(writeCanonical(style))]));
  const looks = new Map<string, BookContent['looks'][number]>();
  const documents = old.documents.map((document): Row<'documents'> => {
    const style = byId.get(document.styleId) ?? byId.get(styleOf.get(document.customerId) ?? '') ?? first;
    const lookId = style === undefined ? '' : (ids.get(style.id) ?? '');
    if (style !== undefined) looks.set(lookId, { id: lookId, style });
    const open = document.open !== 0n && document.received === 0n && document.state === 'part-paid';
    return { ...document, lookId, dueDate: nextDue(document), state: open ? 'issued' : document.state };
  });
  return {
    book: old.book.map((row) => ({ ...row, business: { ...row.business, styleId: first?.id ?? '' } })),
    withholdingTypes: old.withholdingTypes.map((type) => {
      const known = PACK_CURRENCIES[type.id];
      const ours = known?.amounts.join() === [type.thresholdDocument, type.thresholdYear].join();
      const currency = ours && known !== undefined ? known.currency : (book?.business.homeCurrency ?? 'EUR');
      return { ...type, currency: currency as Row<'withholdingTypes'>['currency'] };
    }),
    accounts: withMoneyAccounts(old.accounts),
    looks: [...looks.values()],
    taxEntries: placedInJurisdiction(old.taxEntries),
    documents,
  };
}

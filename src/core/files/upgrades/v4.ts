import { writeCanonical } from '@/core/kernel/canonical';
import { digest } from '@/core/kernel/digest';
import { grouped } from '@/core/kernel/grouped';

/* Version 4 to version 5; frozen, see `v1.ts`. */

interface OldAccount {
  readonly code: string;
  readonly role: string;
}

interface OldStyle {
  readonly id: string;
}

interface OldEntry {
  readonly id: string;
  readonly receiptId: string;
  readonly documentId: string;
  readonly code: string;
  readonly jurisdictionId: string;
  readonly part: number;
}

/** Tables of version 4, as far as they are read here; all others stay as they are. */
export interface BookContentV4 {
  readonly book: readonly { readonly business: { readonly homeCurrency: string } }[];
  readonly withholdingTypes: readonly {
    readonly id: string;
    readonly thresholdDocument: string;
    readonly thresholdYear: string;
  }[];
  readonly accounts: readonly OldAccount[];
  readonly styles: readonly OldStyle[];
  readonly customers: readonly { readonly id: string; readonly styleId: string }[];
  readonly taxEntries: readonly OldEntry[];
  readonly documents: readonly { readonly styleId: string; readonly customerId: string }[];
}

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

function withMoneyAccounts(chart: readonly OldAccount[]): readonly OldAccount[] {
  const accounts: (OldAccount & { readonly name?: string; readonly type?: string })[] = [...chart];
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
function placedInJurisdiction(entries: readonly OldEntry[]): readonly object[] {
  const keyOf = (e: OldEntry) =>
    `${e.receiptId}|${e.documentId}|${e.id.endsWith(':cancelled')}|${e.code}|${e.jurisdictionId}`;
  const places = new Map<string, number>();
  for (const group of grouped(entries, keyOf).values())
    for (const [i, { id }] of [...group].sort((a, b) => a.part - b.part).entries()) places.set(id, i);
  return entries.map((entry) => ({ ...entry, partOfJurisdiction: places.get(entry.id) ?? 0 }));
}

/**
 * A book of version 4 in the shape of version 5: looks that documents were issued in, a default style,
 * currencies of thresholds, accounts for cash and cards, the place of a tax in its jurisdiction. Gives
 * the tables that are written anew.
 */
export function upgradeV4(old: BookContentV4): Readonly<Record<string, readonly object[]>> {
  const [book] = old.book;
  const [first] = old.styles;
  const byId = new Map(old.styles.map((style) => [style.id, style]));
  const styleOf = new Map(old.customers.map(({ id, styleId }) => [id, styleId]));
  const ids = new Map(old.styles.map((style) => [style.id, digest(writeCanonical(style))]));
  const looks = new Map<string, object>();
  const documents = old.documents.map((document) => {
    const style = byId.get(document.styleId) ?? byId.get(styleOf.get(document.customerId) ?? '') ?? first;
    const lookId = style === undefined ? '' : (ids.get(style.id) ?? '');
    if (style !== undefined) looks.set(lookId, { id: lookId, style });
    return { ...document, lookId };
  });
  return {
    book: old.book.map((row) => ({ ...row, business: { ...row.business, styleId: first?.id ?? '' } })),
    withholdingTypes: old.withholdingTypes.map((type) => {
      const known = PACK_CURRENCIES[type.id];
      const ours = known?.amounts.join() === [type.thresholdDocument, type.thresholdYear].join();
      return { ...type, currency: ours ? known.currency : (book?.business.homeCurrency ?? 'EUR') };
    }),
    accounts: withMoneyAccounts(old.accounts),
    looks: [...looks.values()],
    taxEntries: placedInJurisdiction(old.taxEntries),
    documents,
  };
}

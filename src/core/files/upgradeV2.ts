import type { BookContent } from '@/core/decisions/changes';
import { blankDraft, type Draft } from '@/core/documents/draft';
import { amountKey, type DocumentLink, documentWords, type IssuedDocument, restated } from '@/core/documents/issued';
import { FIRST_SERIES, newSeries, type Series } from '@/core/documents/series';
import { type Account, FIRST_CHART } from '@/core/ledger/account';
import { blankCustomer } from '@/core/parties/customer';
import type { Receipt } from '@/core/receipts/receipt';

type OldDocument = Partial<IssuedDocument> &
  Pick<IssuedDocument, 'id' | 'kind' | 'content' | 'figures' | 'open' | 'received' | 'credited' | 'issueDate'> & {
    readonly creditNote: DocumentLink | null;
    readonly keys: readonly string[];
  };

/** Tables of version 2, as far as they are read here; all others stay as they are. */
export interface BookContentV2 {
  readonly book: BookContent['book'];
  readonly accounts: readonly Account[];
  readonly series: readonly (Partial<Series> &
    Pick<Series, 'kind' | 'next' | 'prefix'> & { readonly id: Series['kind'] })[];
  readonly customers: readonly (Partial<BookContent['customers'][number]> &
    Pick<BookContent['customers'][number], 'id' | 'name' | 'address' | 'keys'>)[];
  readonly drafts: readonly (Partial<Draft> & Pick<Draft, 'id' | 'registrationId' | 'issueDate' | 'lines'>)[];
  readonly documents: readonly OldDocument[];
  readonly receipts: readonly Omit<Receipt, 'settles' | 'currency' | 'amountHome'>[];
}

/** The tables that the upgrade writes anew. */
export type UpgradedV2 = Pick<
  BookContent,
  'accounts' | 'series' | 'customers' | 'drafts' | 'documents' | 'receipts' | 'styles' | 'savedViews' | 'attachments'
>;

/** The chart with an account for each role that is new, under its own code or the next free one. */
function withNewRoles(accounts: readonly Account[]): readonly Account[] {
  const codes = new Set(accounts.map((account) => account.code));
  const roles = new Set(accounts.map((account) => account.role));
  const added = FIRST_CHART.filter(({ role }) => role !== '' && !roles.has(role)).map((account) => {
    let code = Number(account.code);
    while (codes.has(String(code))) code++;
    codes.add(String(code));
    return { ...account, code: String(code) };
  });
  return [...accounts, ...added];
}

function upgradeSeries(old: BookContentV2['series']): readonly Series[] {
  const upgraded = old.map((series): Series => {
    const count = Object.values(series.next).reduce((sum, next) => sum + next - 1, 0);
    return newSeries(series.id, series.prefix, { ...series, kind: series.id, registrationId: '', count });
  });
  const known = new Set(upgraded.map((series) => series.id));
  return [...upgraded, ...FIRST_SERIES.filter((series) => !known.has(series.id))];
}

function upgradeDocument({ creditNote, keys: _, ...old }: OldDocument): IssuedDocument {
  return restated({
    ...(old as IssuedDocument),
    seriesId: old.kind,
    openHome: old.open,
    creditNotes: creditNote === null ? [] : [creditNote],
    familyId: old.content.corrects?.documentId ?? old.id,
    // Whether it went out was not kept; what may have gone out is not cancelled but credited.
    sentOn: old.issueDate,
    cancelled: null,
    quote: null,
    tags: [],
    remarks: '',
    styleId: '',
    amountKey: amountKey(old.figures),
    words: documentWords(old.content, old.figures, []),
  });
}

/** A book of version 2 in the shape of version 3: quotes, families, foreign currency, styles and filters. */
export function upgradeV2(old: BookContentV2): UpgradedV2 {
  const home = old.book[0]?.business.homeCurrency;
  if (home === undefined) throw new RangeError('a book without its business');
  return {
    accounts: withNewRoles(old.accounts),
    series: upgradeSeries(old.series),
    customers: old.customers.map((customer) => ({
      ...blankCustomer(customer.id, customer.name, customer.address.country),
      ...customer,
    })),
    drafts: old.drafts.map((draft) => ({
      ...blankDraft(draft.id, 'invoice', draft.registrationId, draft.issueDate),
      ...draft,
      lines: draft.lines.map((line) => ({ ...line, supplied: '', of: '' })),
    })),
    documents: old.documents.map(upgradeDocument),
    receipts: old.receipts.map((receipt) => ({
      ...receipt,
      currency: home,
      amountHome: receipt.amount,
      settles: receipt.allocations.map(({ documentId }) => documentId),
    })),
    styles: [],
    savedViews: [],
    attachments: [],
  };
}

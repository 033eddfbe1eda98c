'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import { signed } from '@/core/documents/content';
import { NO_FILTER } from '@/core/documents/documentFilter';
import type { Draft } from '@/core/documents/draft';
import { type IssuedDocument, isOverdue } from '@/core/documents/issued';
import type { DraftKind } from '@/core/documents/kinds';
import { heldTotal } from '@/core/documents/preview';
import { currencyOf } from '@/core/documents/readLine';
import type { Currency } from '@/core/kernel/currency';
import { isIsoDate, writeDay } from '@/core/kernel/date';
import { spanName } from '@/core/returns/calendar';
import { draftsFound } from '@/store/sales/queries/documents';
import { findDocuments } from '@/store/sales/queries/findDocuments';
import Link from '@/ui/Link';
import { IndexColumn } from '@/ui/Page';
import { documentMark } from '../shared/documentMark';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { type IndexEntry, IndexList } from '../shell/IndexList';
import { KEY_MAP } from '../shell/keyMap';
import { leave } from '../shell/LeaveGuard';
import { routes } from '../shell/routes';
import { useKey } from '../shell/useKey';
import { usePeriodSpan } from '../shell/usePeriodSpan';
import { newDraftPath } from './newDraft';

const PAGE = 50;

const DRAFT_TITLES: Readonly<Record<DraftKind, string>> = {
  invoice: 'Draft',
  quote: 'Draft quote',
  'cash-sale': 'Draft cash sale',
};

function draftEntry(draft: Draft, customer: string, home: Currency): IndexEntry {
  return {
    id: draft.id,
    path: routes.draft(draft.id),
    mark: { kind: 'draft', word: 'draft' },
    title: DRAFT_TITLES[draft.kind],
    amount: heldTotal(draft, home),
    currency: currencyOf(draft, home),
    detail: customer || 'no customer yet',
    day: isIsoDate(draft.issueDate) ? writeDay(draft.issueDate) : '',
  };
}

function documentEntry(document: IssuedDocument): IndexEntry {
  const { content, figures } = document;
  const overdue = isOverdue(document, today());
  return {
    id: document.id,
    path: routes.document(document.id),
    mark: documentMark(document, today()),
    title: `${document.number.replace(/-\d{4}-/, '-')}${(content.version ?? 1) > 1 ? ` v${content.version}` : ''}`,
    amount: signed(content, figures.totals.payable),
    currency: content.currency,
    detail: document.customerName,
    day: overdue ? `due ${writeDay(document.dueDate)}` : writeDay(document.issueDate),
  };
}

/** What can be written in Sales. */
const WRITE: readonly { readonly words: string; readonly kind: DraftKind }[] = [
  { words: 'Invoice', kind: 'invoice' },
  { words: 'Quote', kind: 'quote' },
  { words: 'Cash sale', kind: 'cash-sale' },
];

/** Pages of Sales beside single documents. */
const WAYS: readonly (readonly [path: string, words: string])[] = [
  [routes.sales, 'All documents'],
  [routes.sentEInvoices, 'E-invoices sent'],
  [routes.outbox, 'Outbox'],
  [routes.recurringList, 'Recurring'],
  [routes.runs, 'Runs'],
  [routes.section('customers'), 'Customers'],
  [routes.section('items'), 'Items'],
  [routes.section('prices'), 'Price lists'],
];

function Ways({ current }: { readonly current: string }) {
  return (
    <nav aria-label="Pages of Sales">
      <ul className="mb-2 pl-3.5">
        {WAYS.map(([path, words]) => {
          const isHere = path === current || (path !== routes.sales && current.startsWith(`${path}/`));
          return (
            <li key={path} className="border-rule border-b">
              <Link
                href={path}
                aria-current={isHere ? 'page' : undefined}
                className={`-ml-3.5 block border-l-[3px] py-1 pl-[17px] ${isHere ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'}`}
              >
                {words}
              </Link>
            </li>
          );
        })}
      </ul>
      <h2 className="px-3.5 text-soft text-sm">Drafts</h2>
    </nav>
  );
}

/**
 * Beside a document, the drafts and the documents of the picked period; elsewhere the pages of Sales and the drafts, as
 * the sheet shows documents itself. Typing looks through all of them.
 */
export function SalesIndex() {
  const router = useRouter();
  const path = usePathname();
  const span = usePeriodSpan();
  const book = useOpenBook();
  const [query, setQuery] = useState('');
  const [limit, setLimit] = useState(PAGE);
  const write = (kind: DraftKind) => leave(() => router.push(newDraftPath(kind)));
  useKey('write', () => write('invoice'));
  useKey('quote', () => write('quote'));

  const isFinding = query.trim() !== '';
  const isBesideOne = path.startsWith(routes.document('')) || path.startsWith(routes.draft(''));
  const isHome = !isFinding && !isBesideOne;

  const found = useBook(
    async (db) => {
      if (isHome) return { drafts: await draftsFound(db, '', PAGE), documents: [], more: false };
      const filter = isFinding ? NO_FILTER : { ...NO_FILTER, from: span.start, until: span.end };
      const [drafts, page] = await Promise.all([
        draftsFound(db, query, PAGE),
        findDocuments(db, query, limit, filter, today()),
      ]);
      return { drafts, ...page };
    },
    [span.start, isHome],
    [query, limit],
  );

  const entries: readonly IndexEntry[] | undefined = found && [
    ...found.drafts.map(({ draft, customer }) => draftEntry(draft, customer, book.currency)),
    ...found.documents.map(documentEntry),
  ];
  return (
    <IndexColumn title={isFinding ? 'Found' : isHome ? 'Overview' : `Documents · ${spanName(span)}`}>
      <IndexList
        entries={entries}
        currency={book.currency}
        current={path}
        query={query}
        onQuery={setQuery}
        findLabel="Find a document"
        empty={
          isFinding
            ? 'Nothing found. Try part of a number, name, text or amount.'
            : isHome
              ? 'No drafts.'
              : 'No documents in this period.'
        }
        ways={isHome && <Ways current={path} />}
        {...(found?.more === true && { onMore: () => setLimit(limit + PAGE) })}
        foot={
          <div className="flex flex-wrap gap-x-3 gap-y-1">
            <span className="text-soft">New:</span>
            {WRITE.map(({ words, kind }) => (
              <Link
                key={kind}
                href={routes.sales}
                onClick={(event) => {
                  event.preventDefault();
                  write(kind);
                }}
                title={{ invoice: KEY_MAP.write.shown, quote: KEY_MAP.quote.shown, 'cash-sale': '' }[kind]}
                className="underline underline-offset-4"
              >
                {words}
              </Link>
            ))}
            <Link href={routes.takings} className="underline underline-offset-4">
              Takings
            </Link>
          </div>
        }
      />
    </IndexColumn>
  );
}

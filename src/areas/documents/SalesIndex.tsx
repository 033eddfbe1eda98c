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

/** Drafts and the documents of the picked period; typing looks through all of them. */
export function SalesIndex() {
  const router = useRouter();
  const path = usePathname();
  const span = usePeriodSpan();
  const book = useOpenBook();
  const [query, setQuery] = useState('');
  const [limit, setLimit] = useState(PAGE);
  const write = (kind: DraftKind) => router.push(newDraftPath(kind));
  useKey('write', () => write('invoice'));
  useKey('quote', () => write('quote'));

  const found = useBook(
    async (db) => {
      const filter = query.trim() === '' ? { ...NO_FILTER, from: span.start, until: span.end } : NO_FILTER;
      const [drafts, page] = await Promise.all([
        draftsFound(db, query, PAGE),
        findDocuments(db, query, limit, filter, today()),
      ]);
      return { drafts, ...page };
    },
    [span.start],
    [query, limit],
  );

  const entries: readonly IndexEntry[] | undefined = found && [
    ...found.drafts.map(({ draft, customer }) => draftEntry(draft, customer, book.currency)),
    ...found.documents.map(documentEntry),
  ];
  return (
    <IndexColumn title={query.trim() === '' ? `Documents · ${spanName(span)}` : 'Found'}>
      <IndexList
        entries={entries}
        currency={book.currency}
        current={path}
        query={query}
        onQuery={setQuery}
        findLabel="Find a document"
        empty={
          query.trim() === ''
            ? 'No documents in this period.'
            : 'Nothing found. Try part of a number, name, text or amount.'
        }
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

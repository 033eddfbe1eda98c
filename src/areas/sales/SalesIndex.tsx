'use client';

import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Draft } from '@/core/documents/draft';
import { type IssuedDocument, isOverdue } from '@/core/documents/issued';
import { heldTotal } from '@/core/documents/preview';
import { isIsoDate, writeDay } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { spanName } from '@/core/periods/calendar';
import { documentsIn, findDocuments, findDrafts, recentDrafts } from '@/store/queries/documents';
import { IndexColumn } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { type IndexEntry, IndexList } from '../shell/IndexList';
import { useKey } from '../shell/useKey';
import { usePeriodSpan } from '../shell/usePeriodSpan';
import { documentMark } from './documentMark';
import { newDraftPath } from './newDraft';

const PAGE = 50;

/** Drafts and the documents of the picked period; typing looks through all of them. */
export function SalesIndex() {
  const router = useRouter();
  const path = usePathname();
  const span = usePeriodSpan();
  const book = useOpenBook();
  const [query, setQuery] = useState('');
  const [limit, setLimit] = useState(PAGE);
  const write = () => router.push(newDraftPath());
  useKey('alt+n', write);

  const found = useBook(
    async (db) => {
      const [drafts, documents] = await Promise.all(
        query.trim() === ''
          ? [recentDrafts(db, PAGE), documentsIn(db, span, limit)]
          : [findDrafts(db, query, PAGE), findDocuments(db, query, limit)],
      );
      const customers = await db.customers.bulkGet((drafts ?? []).map((draft) => (draft as Draft).customerId));
      return {
        drafts: drafts as Draft[],
        names: customers.map((customer) => customer?.name ?? ''),
        documents: documents as IssuedDocument[],
      };
    },
    [query, span.start, limit],
  );

  const entries: IndexEntry[] = [
    ...(found?.drafts ?? []).map(
      (draft, i): IndexEntry => ({
        id: draft.id,
        path: `/sales/draft/${draft.id}`,
        mark: { kind: 'draft', word: 'draft' },
        title: 'Draft',
        amount: heldTotal(draft, book.currency),
        detail: found?.names[i] || 'no customer yet',
        day: isIsoDate(draft.issueDate) ? writeDay(draft.issueDate) : '',
      }),
    ),
    ...(found?.documents ?? []).map((document): IndexEntry => {
      const overdue = isOverdue(document, today());
      const amount = document.figures.totals.payable;
      return {
        id: document.id,
        path: `/sales/doc/${document.id}`,
        mark: documentMark(document, today()),
        title: document.number.replace(/-\d{4}-/, '-'),
        amount: (document.kind === 'invoice' ? amount : -amount) as Minor,
        detail: document.customerName,
        day: overdue ? `due ${writeDay(document.dueDate)}` : writeDay(document.issueDate),
      };
    }),
  ];
  return (
    <IndexColumn title={query.trim() === '' ? `Invoices · ${spanName(span)}` : 'Found'}>
      <IndexList
        entries={entries}
        currency={book.currency}
        current={path}
        query={query}
        onQuery={setQuery}
        findLabel="Find a document"
        empty={
          query.trim() === '' ? 'No documents in this period.' : 'Nothing holds this. Try a part of a number or name.'
        }
        {...((found?.documents.length ?? 0) >= limit && { onMore: () => setLimit(limit + PAGE) })}
        foot={
          <Link
            href="/sales"
            onClick={(event) => {
              event.preventDefault();
              write();
            }}
            title="Alt+N"
            className="underline underline-offset-4"
          >
            Write an invoice
          </Link>
        }
      />
    </IndexColumn>
  );
}

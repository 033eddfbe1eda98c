'use client';

import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { type ReactNode, useEffect, useState } from 'react';
import type { Item } from '@/core/catalogue/item';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { showMoney } from '@/core/kernel/show';
import type { Customer } from '@/core/parties/customer';
import type { Receipt } from '@/core/settlement/receipt';
import { REPORTS } from '@/store/reports/catalogue';
import { findCustomers, findItems, findReceipts } from '@/store/sales/queries/documents';
import { searchDocuments } from '@/store/sales/queries/findDocuments';
import { AREAS } from './areas';
import { useOpenBook } from './BookContext';
import { today, useBook } from './book';
import { leave } from './LeaveGuard';
import { routes } from './routes';
import { useKey } from './useKey';

const OPEN = 'able-ledger:commands';

/** Opens the command list from anywhere. */
export function openCommands(): void {
  dispatchEvent(new Event(OPEN));
}

/** What can be done from everywhere, as data. */
const DO: readonly { readonly words: string; readonly path: string }[] = [
  { words: 'New invoice', path: routes.newDraft('new', 'invoice') },
  { words: 'New quote', path: routes.newDraft('new', 'quote') },
  { words: 'New cash sale', path: routes.newDraft('new', 'cash-sale') },
  { words: 'Enter takings', path: routes.takings },
  { words: 'Check a received e-invoice', path: routes.eInvoice },
  { words: 'E-invoices sent', path: routes.sentEInvoices },
  { words: 'Outbox: messages sent and waiting', path: routes.outbox },
  { words: 'Recurring documents', path: routes.recurringList },
  { words: 'Runs: one invoice for many customers', path: routes.runs },
  { words: 'Remind customers of what is overdue', path: routes.reminders },
  { words: 'All documents', path: routes.sales },
  { words: 'Prove the book', path: routes.prove },
  { words: 'Verify seals', path: routes.seals },
  { words: 'Audit trail', path: routes.history },
  { words: 'Document styles', path: routes.section('styles') },
  { words: 'Numbers of documents', path: routes.section('numbers') },
  { words: 'Record a receipt', path: routes.newReceipt },
  { words: 'New journal', path: routes.writeJournal },
  { words: 'Opening balances of accounts', path: routes.openingBalances },
  { words: 'Close a tax period', path: routes.closing },
  { words: 'Customers’ accounts by age, and statements', path: routes.customers },
  { words: 'Bank lines, match and read statements', path: routes.bank },
  { words: 'Bank reconciliation', path: routes.reconcile('') },
  { words: 'Withholding, certificates and claims', path: routes.withholding },
  { words: 'Customers', path: routes.section('customers') },
  { words: 'Items', path: routes.section('items') },
  { words: 'Price lists', path: routes.section('prices') },
  { words: 'New customer', path: routes.record('customers', 'new') },
  { words: 'New item', path: routes.record('items', 'new') },
  { words: 'Try the decision table', path: routes.section('table') },
  { words: 'Add a starter pack', path: routes.section('packs') },
  { words: 'What if a rate changes', path: routes.section('rate-change') },
  { words: 'Chart of accounts', path: routes.chart },
  { words: 'Audit file', path: routes.auditFile },
  { words: 'Close a fiscal year, lock days', path: routes.years },
  { words: 'Revalue open foreign items', path: routes.revaluation },
  ...REPORTS.map(({ name, title }) => ({ words: title, path: routes.report(name) })),
  { words: 'Deferred revenue', path: routes.deferred },
  { words: 'Save or open the book file', path: routes.section('book') },
  ...AREAS.map((area) => ({ words: `Go to ${area.name}`, path: area.path })),
];

const ITEM = 'flex cursor-pointer justify-between gap-4 px-4 py-1.5 data-[selected=true]:bg-paper';

type Row = { readonly path: string; readonly words: string; readonly beside?: string; readonly aside?: ReactNode };

interface FoundRows {
  readonly query: string;
  readonly documents: readonly IssuedDocument[];
  readonly customers: readonly Customer[];
  readonly items: readonly Item[];
  readonly receipts: readonly Receipt[];
}

/** Documents first, then receipts, customers and items, then what can be done; a row is known by where it leads. */
function rowsOf(found: FoundRows, currency: Currency): readonly Row[] {
  const typed = found.query.trim().toLowerCase();
  return [
    ...found.documents.map((document) => ({
      path: routes.document(document.id),
      words: document.number,
      beside: document.customerName,
      aside: (
        <span className="tabular-nums">
          {showMoney(document.figures.totals.payable, document.content.currency)}
          {document.content.currency !== currency && ` ${document.content.currency}`}
        </span>
      ),
    })),
    ...found.receipts.map((receipt) => ({
      path: routes.receipt(receipt.id),
      words: receipt.number,
      beside: receipt.customerName,
      aside: <span className="tabular-nums">{showMoney(receipt.amount, receipt.currency)}</span>,
    })),
    ...found.customers.map((customer) => ({
      path: routes.customer(customer.id),
      words: customer.name,
      aside: <span className="text-soft">customer</span>,
    })),
    ...found.items.map((item) => ({
      path: routes.record('items', item.id),
      words: item.name,
      aside: <span className="text-soft">item</span>,
    })),
    ...DO.filter(({ words }) => words.toLowerCase().includes(typed)),
  ];
}

/** Finds documents and customers, and does things, by typing. */
export function Commands() {
  const { currency } = useOpenBook();
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const [picked, setPicked] = useState('');
  /** Enter came before the answer did: its first row is taken as soon as it is there. */
  const [hurried, setHurried] = useState(false);
  useEffect(() => {
    const show = () => setOpen(true);
    addEventListener(OPEN, show);
    return () => removeEventListener(OPEN, show);
  }, []);
  useKey('find', () => setOpen((now) => !now));
  const found = useBook(
    async (db) => ({
      query,
      documents: await searchDocuments(db, query, 6, today()),
      customers: query.trim() === '' ? [] : await findCustomers(db, query, 4),
      items: query.trim() === '' ? [] : await findItems(db, query, 3),
      receipts: query.trim() === '' ? [] : await findReceipts(db, query, 3),
    }),
    [query],
  );
  // Nothing is offered until the answer fits what is typed, so that Enter never takes a row of an earlier list.
  const fresh = found !== undefined;
  const rows = fresh ? rowsOf(found, currency) : [];
  const current = rows.some(({ path }) => path === picked) ? picked : (rows[0]?.path ?? '');
  const ask = (text: string) => {
    setQuery(text);
    setPicked('');
    setHurried(false);
  };
  const go = (path: string) => {
    setOpen(false);
    ask('');
    // A new draft gets an address of its own, so that it can be found again.
    leave(() => router.push(path.replace('/draft/new?', `/draft/${crypto.randomUUID()}?`)));
  };
  const first = rows[0]?.path;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the answer that was waited for is what matters
  useEffect(() => {
    if (!hurried || !fresh) return;
    setHurried(false);
    if (first !== undefined) go(first);
  }, [hurried, fresh, first]);
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(now) => {
        setOpen(now);
        setHurried(false);
      }}
      label="Find or do"
      value={current}
      onValueChange={setPicked}
      shouldFilter={false}
      overlayClassName="fixed inset-0 z-40 bg-ink/30"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[92vw] max-w-[560px] -translate-x-1/2 border border-rule bg-sheet shadow-xl"
    >
      <Command.Input
        value={query}
        onValueChange={ask}
        placeholder="A number, a name, an amount, or what to do"
        onKeyDown={(event) => {
          if (event.key === 'Enter' && !fresh) setHurried(true);
        }}
        className="w-full border-rule border-b bg-transparent px-4 py-3 focus:outline-none"
      />
      <Command.List className="max-h-[50vh] overflow-auto py-1">
        {fresh && (
          <Command.Empty className="px-4 py-3 text-soft">
            Nothing matches. Try a part of a number or a name.
          </Command.Empty>
        )}
        {rows.map(({ path, words, beside, aside }) => (
          <Command.Item key={path} value={path} className={ITEM} onSelect={() => go(path)}>
            <span>
              {words} <span className="text-soft">{beside}</span>
            </span>
            {aside}
          </Command.Item>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}

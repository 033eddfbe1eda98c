'use client';

import { useState } from 'react';
import { writeDate } from '@/core/kernel/date';
import { type Minor, minor, writeMoney } from '@/core/kernel/money';
import type { JournalLine } from '@/core/ledger/entry';
import { spanName } from '@/core/returns/calendar';
import { accountPage } from '@/store/ledger/queries/ledger';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { ListTable } from '../shared/ListTable';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { usePeriodSpan } from '../shell/usePeriodSpan';

const PAGE = 100;

/** One account in the picked period: brought forward, each line with the balance after it, carried down. */
export function AccountScreen({ code }: { readonly code: string }) {
  const { accounts, currency } = useOpenBook();
  const span = usePeriodSpan();
  const [limit, setLimit] = useState(PAGE);
  const account = accounts.find((a) => a.code === code);
  const page = useBook((db) => accountPage(db, code, span, limit), [code, span.start], [limit]);
  if (account === undefined)
    return (
      <Sheet label="Account">
        <Empty>There is no account {code}.</Empty>
      </Sheet>
    );
  if (page === undefined) return <Sheet label="Account">{null}</Sheet>;
  let balance: bigint = page.opening;
  const rows = page.lines.map((line) => {
    balance += line.amount;
    return { line, balance: minor(balance) };
  });
  const money = (amount: Minor) => <Money amount={amount} currency={currency} />;
  const opening = (line: JournalLine, amount: Minor) => (
    <Link href={routes.entry(line.entryId)} className="hover:underline">
      {money(amount)}
    </Link>
  );
  return (
    <Sheet label={`Account ${code}`}>
      <SheetTitle aside={spanName(span)}>
        {code} {account.name}
      </SheetTitle>
      <p className="mb-2 flex justify-between px-1.5">
        <span>Brought forward</span>
        {money(page.opening)}
      </p>
      <ListTable
        ordered
        onMore={page.more ? () => setLimit(limit + PAGE) : undefined}
        caption={`Lines of ${account.name}`}
        rows={rows}
        keyOf={({ line }) => line.id}
        columns={[
          { head: 'Date', width: '110px', value: ({ line }) => line.date, cell: ({ line }) => writeDate(line.date) },
          {
            head: 'Entry',
            value: ({ line }) => line.text,
            cell: ({ line }) => (
              <Link href={routes.entry(line.entryId)} className="underline decoration-rule underline-offset-4">
                {line.text}
              </Link>
            ),
          },
          {
            head: 'Debit',
            value: ({ line }) => (line.amount > 0n ? writeMoney(line.amount, currency) : ''),
            align: 'right',
            width: '110px',
            cell: ({ line }) => line.amount > 0n && opening(line, line.amount),
          },
          {
            head: 'Credit',
            value: ({ line }) => (line.amount < 0n ? writeMoney(minor(-line.amount), currency) : ''),
            align: 'right',
            width: '110px',
            cell: ({ line }) => line.amount < 0n && opening(line, minor(-line.amount)),
          },
          {
            head: 'Balance',
            align: 'right',
            width: '120px',
            value: (row) => writeMoney(row.balance, currency),
            cell: (row) => money(row.balance),
          },
        ]}
        sums={['', 'Carried forward', '', '', money(page.closing)]}
      />
    </Sheet>
  );
}

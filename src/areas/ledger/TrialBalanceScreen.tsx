'use client';

import { monthOf, writeDate } from '@/core/kernel/date';
import { type Minor, writeMoney } from '@/core/kernel/money';
import { trialBalance } from '@/core/ledger/trialBalance';
import { monthsUntil } from '@/store/ledger/queries/ledger';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { ListTable } from '../shared/ListTable';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { usePeriodSpan } from '../shell/usePeriodSpan';

/** A balance that opens the lines behind it. */
function Figure({ account, amount }: { readonly account: string; readonly amount: Minor }) {
  const { currency } = useOpenBook();
  return (
    <Link href={routes.account(account)} className="hover:underline">
      <Money amount={amount} currency={currency} />
    </Link>
  );
}

/** Balances of all accounts at the end of the picked period, from the kept monthly balances. */
export function TrialBalanceScreen() {
  const { accounts, currency } = useOpenBook();
  const span = usePeriodSpan();
  const until = monthOf(span.end);
  const months = useBook((db) => monthsUntil(db, until), [until]);
  if (months === undefined) return <Sheet label="Trial balance">{null}</Sheet>;
  const balance = trialBalance(accounts, months, until);
  return (
    <Sheet label="Trial balance">
      <SheetTitle aside={`at ${writeDate(span.end)}`}>Trial balance</SheetTitle>
      {balance.rows.length === 0 ? (
        <Empty>Nothing was posted up to this date.</Empty>
      ) : (
        <ListTable
          caption="Trial balance"
          rows={balance.rows}
          keyOf={({ account }) => account.code}
          columns={[
            { head: 'Account', width: '90px', cell: ({ account }) => account.code },
            {
              head: 'Name',
              value: ({ account }) => account.name,
              cell: ({ account }) => (
                <Link href={routes.account(account.code)} className="underline decoration-rule underline-offset-4">
                  {account.name}
                </Link>
              ),
            },
            {
              head: 'Debit',
              value: (row) => row.debit,
              text: (row) => (row.debit === 0n ? '' : writeMoney(row.debit, currency)),
              align: 'right',
              width: '140px',
              cell: (row) => row.debit !== 0n && <Figure account={row.account.code} amount={row.debit} />,
            },
            {
              head: 'Credit',
              value: (row) => row.credit,
              text: (row) => (row.credit === 0n ? '' : writeMoney(row.credit, currency)),
              align: 'right',
              width: '140px',
              cell: (row) => row.credit !== 0n && <Figure account={row.account.code} amount={row.credit} />,
            },
          ]}
          sums={[
            '',
            'Total',
            <Money key="debit" amount={balance.debit} currency={currency} />,
            <Money key="credit" amount={balance.credit} currency={currency} />,
          ]}
        />
      )}
    </Sheet>
  );
}

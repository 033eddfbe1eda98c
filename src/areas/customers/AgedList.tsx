'use client';

import { useState } from 'react';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { NOTHING, total } from '@/core/kernel/money';
import { AGE_LIMITS, type AgeLimits, ageHeads } from '@/core/settlement/account';
import { type AgedRow, agedList } from '@/store/customers/queries/account';
import { Button } from '@/ui/Button';
import type { DataColumn } from '@/ui/DataTable';
import { TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { ListTable } from '../shared/ListTable';
import { typedDay } from '../shared/typedDay';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { StatementDialog } from './StatementDialog';

const PAGE = 100;

/** `30 60 90` as limits; null where they do not rise. */
function readLimits(text: string): AgeLimits | null {
  const limits = text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  const rising = limits.every((limit, i) => Number.isInteger(limit) && limit > (limits[i - 1] ?? 0));
  return limits.length > 0 && limits.length <= 6 && rising ? limits : null;
}

/** What all customers owe by age, as at any day; each figure opens the account behind it. */
export function AgedList() {
  const { currency: home } = useOpenBook();
  const [day, setDay] = useState('today');
  const [typed, setTyped] = useState(AGE_LIMITS.join(' '));
  const [limit, setLimit] = useState(PAGE);
  const [printing, setPrinting] = useState(false);
  const read = typedDay(day);
  const on = isIsoDate(read) ? read : today();
  const limits = readLimits(typed) ?? AGE_LIMITS;
  const found = useBook((db) => agedList(db, on, limits, limit), [on, limits.join()], [limit]);
  const rows = found?.rows ?? [];
  const column = (head: string, at: number): DataColumn<AgedRow> => ({
    head,
    align: 'right',
    value: ({ aged }) => aged.columns[at] ?? NOTHING,
    cell: ({ aged, currency, customerId }) => {
      const amount = aged.columns[at] ?? NOTHING;
      return amount === NOTHING ? (
        ''
      ) : (
        <Link href={routes.customer(customerId)}>
          <Money amount={amount} currency={currency} />
        </Link>
      );
    },
  });
  const cheques = rows.some((row) => row.cheques !== NOTHING);
  const heads = ['Not yet due', ...ageHeads(limits)];
  const only = new Set(rows.map(({ currency }) => currency)).size <= 1 ? (rows[0]?.currency ?? home) : null;
  const sum = (of: (row: AgedRow) => bigint) =>
    only === null ? '' : <Money amount={total(rows.map((row) => of(row) as typeof NOTHING))} currency={only} />;
  return (
    <Sheet label="Aged receivables">
      <SheetTitle aside={`as at ${writeDate(on)}`}>Aged receivables</SheetTitle>
      <div className="flex items-start gap-x-4">
        <DateField
          label="As at"
          className="w-[150px]"
          value={day}
          error={isIsoDate(read) ? undefined : 'Enter a date such as 31 Jan.'}
          onChange={(event) => setDay(event.target.value)}
        />
        <TextField
          label="Days overdue, columns up to"
          className="w-[210px]"
          value={typed}
          error={readLimits(typed) === null ? 'Enter rising numbers of days, such as 30 60 90.' : undefined}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button className="mt-[18px]" disabled={rows.length === 0} onClick={() => setPrinting(true)}>
          Statements of account
        </Button>
      </div>
      {found !== undefined && rows.length === 0 && <Empty>Nothing is receivable on this date.</Empty>}
      {rows.length > 0 && (
        <ListTable
          caption="Aged receivables"
          rows={rows}
          keyOf={({ customerId, currency }) => `${customerId} ${currency}`}
          onMore={found?.more ? () => setLimit(limit * 4) : undefined}
          columns={[
            {
              head: 'Customer',
              value: ({ customerName }) => customerName,
              cell: ({ customerId, customerName }) => (
                <Link href={routes.customer(customerId)} className="underline decoration-rule underline-offset-4">
                  {customerName}
                </Link>
              ),
            },
            { head: 'In', cell: ({ currency }) => currency },
            ...heads.map(column),
            {
              head: 'On account',
              align: 'right',
              value: ({ aged }) => aged.held,
              cell: ({ aged, currency }) =>
                aged.held === NOTHING ? '' : <Money amount={aged.held} currency={currency} />,
            },
            ...(cheques
              ? [
                  {
                    head: 'Post-dated cheques',
                    align: 'right',
                    value: (row) => row.cheques,
                    cell: (row) =>
                      row.cheques === NOTHING ? '' : <Money amount={row.cheques} currency={row.currency} />,
                  } satisfies DataColumn<AgedRow>,
                ]
              : []),
            {
              head: 'Balance',
              align: 'right',
              value: ({ aged }) => aged.balance,
              cell: ({ aged, currency }) => <Money amount={aged.balance} currency={currency} />,
            },
          ]}
          {...(only !== null &&
            !found?.more && {
              sums: [
                'Total',
                '',
                ...heads.map((_, i) => sum(({ aged }) => aged.columns[i] ?? NOTHING)),
                sum(({ aged }) => aged.held),
                ...(cheques ? [sum((row) => row.cheques)] : []),
                sum(({ aged }) => aged.balance),
              ],
            })}
        />
      )}
      {printing && (
        <StatementDialog
          customers={[
            ...new Map(rows.map((row) => [row.customerId, { id: row.customerId, name: row.customerName }])).values(),
          ]}
          onClose={() => setPrinting(false)}
        />
      )}
    </Sheet>
  );
}

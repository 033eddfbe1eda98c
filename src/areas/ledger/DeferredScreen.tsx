'use client';

import { useState } from 'react';
import { stillDeferred } from '@/core/documents/deferralPlan';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { minus, total } from '@/core/kernel/money';
import { plansRunning } from '@/store/ledger/queries/deferrals';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { ListTable } from '../shared/ListTable';
import { typedDay } from '../shared/typedDay';
import { useMore } from '../shared/useMore';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { routes } from '../shell/routes';

/** Revenue that is invoiced and belongs to later days, line by line, with what is still to be earned. */
export function DeferredScreen() {
  const { currency } = useOpenBook();
  const [typed, setTyped] = useState<string>(today());
  const more = useMore();
  const read = typedDay(typed);
  const day = isIsoDate(read) ? read : today();
  const found = useBook((db) => plansRunning(db, day, more.ask), [day], [more.ask]);
  const { rows, onMore } = more.of(found);
  const left = total((rows ?? []).map((plan) => stillDeferred(plan, day)));
  return (
    <Sheet label="Deferred revenue">
      <SheetTitle aside={`as at ${writeDate(day)}`}>Deferred revenue</SheetTitle>
      <DateField label="As at" className="w-[180px]" value={typed} onChange={(event) => setTyped(event.target.value)} />
      {rows?.length === 0 && (
        <Empty>
          Nothing is deferred after this date. A line of an invoice says in the margin when its revenue belongs.
        </Empty>
      )}
      {rows !== undefined && rows.length > 0 && (
        <>
          <ListTable
            caption="Deferred revenue"
            rows={rows}
            keyOf={({ id }) => id}
            onMore={onMore}
            columns={[
              {
                head: 'Document',
                value: (plan) => plan.documentNumber,
                cell: (plan) => (
                  <Link
                    href={routes.document(plan.documentId)}
                    className="underline decoration-rule underline-offset-4"
                  >
                    {plan.documentNumber}
                  </Link>
                ),
              },
              { head: 'Customer', cell: (plan) => plan.customerName },
              { head: 'Line', cell: (plan) => plan.description },
              { head: 'Account', cell: (plan) => plan.account },
              { head: 'Until', value: (plan) => plan.until, cell: (plan) => writeDate(plan.until) },
              {
                head: 'Invoiced',
                align: 'right',
                value: (plan) => total(plan.entries.map(({ amount }) => amount)),
                cell: (plan) => <Money amount={total(plan.entries.map(({ amount }) => amount))} currency={currency} />,
              },
              {
                head: 'Credited',
                align: 'right',
                value: (plan) => total(plan.entries.map(({ taken }) => taken)),
                cell: (plan) => <Money amount={total(plan.entries.map(({ taken }) => taken))} currency={currency} />,
              },
              {
                head: 'Earned',
                align: 'right',
                value: (plan) =>
                  minus(total(plan.entries.map(({ amount, taken }) => minus(amount, taken))), stillDeferred(plan, day)),
                cell: (plan) => (
                  <Money
                    amount={minus(
                      total(plan.entries.map(({ amount, taken }) => minus(amount, taken))),
                      stillDeferred(plan, day),
                    )}
                    currency={currency}
                  />
                ),
              },
              {
                head: 'Still to earn',
                align: 'right',
                value: (plan) => stillDeferred(plan, day),
                cell: (plan) => <Money amount={stillDeferred(plan, day)} currency={currency} />,
              },
            ]}
          />
          <p className="mt-3 text-right">
            {onMore === undefined ? 'Still to earn' : 'Still to earn of those shown'}:{' '}
            <Money amount={left} currency={currency} withCode />
          </p>
        </>
      )}
    </Sheet>
  );
}

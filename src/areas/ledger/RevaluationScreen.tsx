'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Revaluation, RevaluedItem } from '@/core/currency/revaluation';
import { addDays, dayOf, endOfMonth, isoDate, writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { revalueOpenItems } from '@/store/ledger/actions/revalue';
import { revaluationsMade } from '@/store/ledger/queries/revaluations';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { DateField } from '../shared/DateField';
import { FormFoot } from '../shared/FormFoot';
import { ListTable } from '../shared/ListTable';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act, today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { usePreview } from '../shell/usePreview';

const MOST = 24;

/** The last day of the month before today. */
const lastMonth = () => addDays(isoDate(`${today().slice(0, 7)}-01`), -1);

/** What is open in other currencies at the end of a month, by the rates of that day; previewed item by item, then posted. */
export function RevaluationScreen() {
  const [shown, setShown] = useState<Revaluation | null>(null);
  const made = useBook((db) => revaluationsMade(db, MOST)) ?? [];
  const { form, submit, field, general, busy } = useActionForm<{ date: string }, Revaluation>({
    initial: { date: lastMonth() },
    run: ({ date }) => act(revalueOpenItems, { date: typedDay(date) }),
    onDone: (_, revaluation) => {
      toast(revaluation.entryId === '' ? 'Nothing is left to post' : `Revalued as at ${writeDate(revaluation.date)}`);
      setShown(revaluation);
    },
  });
  const date = typedDay(form.watch('date'));
  const preview = usePreview(revalueOpenItems, date === endOfMonth(isoDateOr(date)) ? { date } : null);
  const would = preview?.ok === true ? preview.value.add?.revaluations?.[0] : undefined;
  const missing = preview?.ok === false ? wordRefusals(preview.refusals) : '';
  const seen = shown ?? would ?? null;
  return (
    <Sheet label="Revaluation">
      <SheetTitle aside="unrealised exchange differences">Revaluation</SheetTitle>
      <form onSubmit={submit} onChange={() => setShown(null)} noValidate>
        <DateField
          label="Last day of the month"
          className="w-[200px]"
          hint="Posted that day and taken back on the next"
          {...field('date')}
        />
        {missing !== '' && <p className="mb-2 text-brick">▲ {missing}</p>}
        {seen !== null && <Items revaluation={seen} />}
        {shown === null && would?.entryId !== undefined && would.entryId !== '' && (
          <FormFoot label="Post the revaluation" busy={busy} general={general} />
        )}
        {would?.entryId === '' && would.items.length > 0 && shown === null && (
          <p className="mt-3 text-soft">It is posted already; nothing has changed since.</p>
        )}
      </form>
      {made.length > 0 && (
        <section className="mt-8">
          <h2 className="mb-1 font-semibold font-serif">Made so far</h2>
          <ul>
            {made.map((one) => (
              <li key={one.id} className="flex flex-wrap items-baseline gap-3 border-rule border-b py-1">
                <Button weight="quiet" onClick={() => setShown(one)}>
                  {writeDate(one.date)}
                </Button>
                <span className="flex-1 text-soft">
                  by {one.operator} on {writeDate(dayOf(one.at))}, {one.items.length} open items
                </span>
                {one.entryId !== '' && (
                  <Link href={routes.entry(one.entryId)} className="underline underline-offset-4">
                    Entry
                  </Link>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </Sheet>
  );
}

const isoDateOr = (text: string) => (/^\d{4}-\d{2}-\d{2}$/.test(text) ? isoDate(text) : today());

function Items({ revaluation: { currencies, items } }: { readonly revaluation: Revaluation }) {
  const { currency: home } = useOpenBook();
  if (items.length === 0) return <Empty>Nothing is open in another currency on this day.</Empty>;
  return (
    <>
      <Ruled
        caption="By currency"
        rows={currencies}
        keyOf={({ currency }) => currency}
        columns={[
          { head: 'Currency', cell: (row) => row.currency },
          { head: 'Rate', cell: (row) => `${row.perHome} for 1 ${home}, of ${writeDate(row.rateDate)}` },
          {
            head: 'Unrealised gain or loss',
            align: 'right',
            cell: (row) => <Money amount={row.difference} currency={home} />,
          },
          { head: 'To post now', align: 'right', cell: (row) => <Money amount={row.change} currency={home} /> },
        ]}
      />
      <div className="mt-5">
        <ListTable
          caption="Open items"
          rows={items}
          keyOf={({ id }) => id}
          columns={[
            {
              head: 'Item',
              value: (row) => row.number,
              cell: (row) => (
                <Link
                  href={row.kind === 'document' ? routes.document(row.id) : routes.receipt(row.id)}
                  className="underline decoration-rule underline-offset-4"
                >
                  {row.number}
                </Link>
              ),
            },
            { head: 'Customer', cell: (row) => row.customerName },
            {
              head: 'Open',
              align: 'right',
              value: (row) => row.open,
              cell: (row: RevaluedItem) => <Money amount={row.open} currency={row.currency} withCode />,
            },
            {
              head: `Carried at, ${home}`,
              align: 'right',
              value: (row) => row.openHome,
              cell: (row) => <Money amount={row.openHome} currency={home} />,
            },
            {
              head: `Worth, ${home}`,
              align: 'right',
              value: (row) => row.worth,
              cell: (row) => <Money amount={row.worth} currency={home} />,
            },
            {
              head: 'Difference',
              align: 'right',
              value: (row) => row.difference,
              cell: (row) => <Money amount={row.difference} currency={home} />,
            },
          ]}
        />
      </div>
    </>
  );
}

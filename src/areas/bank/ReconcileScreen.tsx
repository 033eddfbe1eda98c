'use client';

import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { openOf } from '@/core/bank/bankLine';
import type { Currency } from '@/core/kernel/currency';
import { dayOf, isIsoDate, isoDate, writeDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated } from '@/core/kernel/money';
import { accept } from '@/core/kernel/result';
import { readTypedMoney, typedMoney } from '@/core/kernel/typedMoney';
import { keepReconciliation } from '@/store/bank/actions/accounts';
import { bankStandings } from '@/store/bank/queries/lines';
import { type AccountOn, reconciliationsOf } from '@/store/bank/queries/reconciliation';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { onBook } from '@/workers/client';
import { DateField } from '../shared/DateField';
import { FormFoot } from '../shared/FormFoot';
import { ListTable } from '../shared/ListTable';
import { MoneyField } from '../shared/MoneyField';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act, useBook } from '../shell/book';
import { routes } from '../shell/routes';

interface ReconcileForm {
  readonly date: string;
  readonly balance: string;
  readonly reason: string;
}

const MOST = 12;

/** A bank account held against its statement on a day: what leads from the one balance to the other, and what nothing explains. */
export function ReconcileScreen() {
  const router = useRouter();
  const wanted = useSearchParams().get('account') ?? '';
  const standings = useBook(bankStandings);
  const standing = standings?.find(({ account }) => account.id === wanted) ?? standings?.[0];
  const id = standing?.account.id ?? '';
  const { currency: home } = useOpenBook();
  const currency = standing?.account.currency ?? home;
  const kept = useBook((db) => reconciliationsOf(db, id, MOST), [id]) ?? [];
  const [found, setFound] = useState<AccountOn | null>(null);
  const [fault, setFault] = useState('');
  const { form, submit, field, general, busy } = useActionForm<ReconcileForm, unknown>({
    initial: { date: 'today', balance: '', reason: '' },
    run: async ({ date, balance, reason }) => {
      const typed = balance.trim() === '' ? accept(null) : typedMoney(balance, currency, 'balance');
      if (!typed.ok) return typed;
      return act(keepReconciliation, { bankAccountId: id, date: typedDay(date), typed: typed.value, reason });
    },
    onDone: ({ date }) => toast(`The reconciliation of ${writeDate(isoDate(typedDay(date)))} is saved`),
  });
  const { date, balance } = form.watch();
  const on = typedDay(date);
  useEffect(() => {
    if (id === '' || !isIsoDate(on)) return setFound(null);
    const control = new AbortController();
    onBook((face) => face.accountOn(id, on, readTypedMoney(balance, currency)), control.signal)
      .then((account) => {
        setFound(account);
        setFault('');
      })
      .catch((error: Error) => control.signal.aborted || setFault(error.message));
    return () => control.abort();
  }, [id, on, balance, currency]);
  return (
    <Sheet label="Bank reconciliation">
      <SheetTitle aside={standing?.account.name ?? ''}>Bank reconciliation</SheetTitle>
      <form onSubmit={submit} noValidate>
        <div className="grid grid-cols-3 gap-x-4">
          <ChoiceField
            label="Bank account"
            options={(standings ?? []).map(({ account }) => [account.id, `${account.name}, ${account.currency}`])}
            value={id}
            onChange={({ target: { value } }) => router.replace(routes.reconcile(value))}
          />
          <DateField label="As at" {...field('date')} />
          {found?.statedBy !== 'file' && (
            <MoneyField
              label="Balance per statement"
              currency={currency}
              hint="Not stated by an imported statement"
              {...field('balance')}
            />
          )}
        </div>
        {fault !== '' && <p className="text-brick">▲ {fault}</p>}
        {found !== null && (
          <>
            <BridgeRows found={found} currency={currency} />
            {found.bridge.difference !== NOTHING && (
              <TextField
                label="Why the difference is accepted"
                hint="Such as an opening balance that is not entered yet"
                {...field('reason')}
              />
            )}
            <FormFoot label="Save the reconciliation" busy={busy} general={general} />
          </>
        )}
      </form>
      {found !== null && <Parts found={found} currency={currency} />}
      {kept.length > 0 && (
        <section className="mt-6">
          <h2 className="mb-1 font-semibold font-serif">Reconciled so far</h2>
          <ul>
            {kept.map((one) => (
              <li key={one.id} className="flex items-baseline gap-3 border-rule border-b py-1">
                <Mark kind={one.difference === NOTHING ? 'good' : 'warning'} />
                <span>{writeDate(one.date)}</span>
                <span className="flex-1 text-soft">
                  by {one.operator} on {writeDate(dayOf(one.at))}
                  {one.reason !== '' && `: ${one.reason}`}
                </span>
                <Money amount={one.statementBalance} currency={currency} />
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="mt-6 flex gap-4 print:hidden">
        <Button onClick={() => print()}>Print</Button>
        <Link href={routes.bank} className="self-center underline underline-offset-4">
          Bank lines
        </Link>
      </p>
    </Sheet>
  );
}

interface FoundProps {
  readonly found: AccountOn;
  readonly currency: Currency;
}

/** From the ledger to the statement, step by step. */
function BridgeRows({ found: { bridge, statedBy }, currency }: FoundProps) {
  const rows: readonly (readonly [string, Minor])[] = [
    ['Balance per ledger', bridge.ledgerBalance],
    ['Unmatched bank lines', bridge.unmatched],
    ['Recorded, not on the statement', negated(bridge.notSeen)],
  ];
  return (
    <table className="my-3 w-full max-w-[560px]">
      <caption className="sr-only">From the ledger to the statement</caption>
      <tbody>
        {rows.map(([words, amount]) => (
          <tr key={words} className="border-rule border-b">
            <th scope="row" className="py-1 text-left font-normal">
              {words}
            </th>
            <td className="text-right">
              <Money amount={amount} currency={currency} />
            </td>
          </tr>
        ))}
        {statedBy === null ? (
          <tr>
            <td colSpan={2} className="py-2 text-soft">
              Enter the balance per statement to see the unexplained difference.
            </td>
          </tr>
        ) : (
          <>
            <tr className="border-rule border-b">
              <th scope="row" className="py-1 text-left font-normal">
                <Mark kind={bridge.difference === NOTHING ? 'good' : 'wrong'} /> Unexplained difference
              </th>
              <td className="text-right">
                <Money amount={bridge.difference} currency={currency} />
              </td>
            </tr>
            <tr className="sum-rule font-semibold">
              <th scope="row" className="py-1 text-left">
                Balance per statement{statedBy === 'typed' && ', typed'}
              </th>
              <td className="text-right">
                <Money amount={bridge.statementBalance} currency={currency} />
              </td>
            </tr>
          </>
        )}
      </tbody>
    </table>
  );
}

/** What the steps consist of. */
function Parts({ found: { unmatched, notSeen }, currency }: FoundProps) {
  return (
    <>
      {unmatched.length > 0 && (
        <section className="mt-5">
          <h2 className="mb-1 font-semibold font-serif">Unmatched</h2>
          <ListTable
            caption="Unmatched bank lines"
            rows={unmatched}
            keyOf={({ id }) => id}
            columns={[
              { head: 'Date', width: '110px', value: ({ date }) => date, cell: ({ date }) => writeDate(date) },
              {
                head: 'Text',
                value: ({ name, text }) => name || text,
                cell: ({ id, name, text }) => (
                  <Link href={routes.bankLine(id)} className="underline decoration-rule underline-offset-4">
                    {name || text.split('\n')[0] || 'No text'}
                  </Link>
                ),
              },
              { head: 'Amount', align: 'right', cell: (line) => <Money amount={openOf(line)} currency={currency} /> },
            ]}
          />
        </section>
      )}
      {notSeen.length > 0 && (
        <section className="mt-5">
          <h2 className="mb-1 font-semibold font-serif">Recorded, not on the statement</h2>
          <ListTable
            caption="Recorded, not on the statement"
            rows={notSeen}
            keyOf={({ entryId }) => entryId}
            columns={[
              { head: 'Date', width: '110px', value: ({ date }) => date, cell: ({ date }) => writeDate(date) },
              {
                head: 'Record',
                value: ({ number }) => number,
                cell: ({ entryId, number }) => (
                  <Link href={routes.entry(entryId)} className="underline decoration-rule underline-offset-4">
                    {number}
                  </Link>
                ),
              },
              { head: 'Amount', align: 'right', cell: ({ amount }) => <Money amount={amount} currency={currency} /> },
            ]}
          />
        </section>
      )}
    </>
  );
}

'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import type { CustomerRow } from '@/core/book/rows';
import { isIsoDate } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import { refuse } from '@/core/kernel/result';
import { readTypedDate } from '@/core/parties/terms';
import { enterOpening } from '@/store/sales/actions/takings';
import { findCustomers } from '@/store/sales/queries/documents';
import { mergeDouble } from '@/store/setup/actions/customers';
import { standingOf } from '@/store/setup/queries/customers';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import { FindBox } from '@/ui/FindBox';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Attachments } from '../../shared/Attachments';
import { DateField } from '../../shared/DateField';
import { SlipFoot } from '../../shared/FormFoot';
import { OnAccount } from '../../shared/settlement/OnAccount';
import { typedDay } from '../../shared/typedDay';
import { useActionForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, today, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { useFinder } from '../../shell/useFinder';

const LINK = 'underline decoration-rule underline-offset-4';

/** What stands under a customer beside its record: what it owes, who belongs to it, files, history, doubles. */
export function CustomerFile({ customer }: { readonly customer: CustomerRow }) {
  const { currency } = useOpenBook();
  const [asking, setAsking] = useState<'merge' | 'opening' | null>(null);
  const found = useBook((db) => standingOf(db, customer.id), [customer.id]);
  return (
    <section aria-label="More on this customer" className="mt-6 border-rule border-t pt-3">
      <h2 className="mb-1 font-semibold font-serif">More on this customer</h2>
      <p>
        Owes <Money amount={found?.open ?? NOTHING} currency={currency} withCode />
        {' · '}
        <Link href={routes.historyOf(customer.id)} className={LINK}>
          History with before and after
        </Link>
      </p>
      <OnAccount customerId={customer.id} />
      {found !== undefined && found.children.length > 0 && (
        <p>
          Child customers:{' '}
          {found.children.map(({ id, name }) => (
            <Link key={id} href={routes.record('customers', id)} className={`${LINK} mr-3`}>
              {name}
            </Link>
          ))}
        </p>
      )}
      <div className="my-2 max-w-[420px]">
        <Attachments ownerId={customer.id} />
      </div>
      <div className="flex gap-2.5">
        <Button onClick={() => setAsking('opening')}>Opening invoice…</Button>
        <Button onClick={() => setAsking('merge')}>Merge a duplicate…</Button>
      </div>
      {asking === 'opening' && <OpeningDialog customer={customer} onClose={() => setAsking(null)} />}
      {asking === 'merge' && <MergeDialog customer={customer} onClose={() => setAsking(null)} />}
    </section>
  );
}

interface SlipProps {
  readonly customer: CustomerRow;
  readonly onClose: () => void;
}

function OpeningDialog({ customer, onClose }: SlipProps) {
  const { currency } = useOpenBook();
  const { submit, field, general, busy, isDirty } = useActionForm({
    initial: { number: '', date: '', due: '', amount: '' },
    run: ({ number, date, due, amount }) => {
      const day = typedDay(date);
      const from = isIsoDate(day) ? day : today();
      return act(enterOpening, {
        customerId: customer.id,
        number,
        amount,
        date: day,
        due: due.trim() === '' ? day : (readTypedDate(due, today(), from) ?? due),
      });
    },
    onDone: (_, { number }) => {
      toast(`${number} is saved`);
      onClose();
    },
  });
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`Opening invoice of ${customer.name}`}
      description="What was owed before this book began. It is settled like an invoice; its tax was reported in the old books."
    >
      <form onSubmit={submit}>
        <TextField label="Invoice number" autoFocus {...field('number')} />
        <div className="grid grid-cols-3 gap-x-4">
          <DateField label="Invoice date" {...field('date')} />
          <TextField label="Due" {...field('due')} />
          <TextField label={`Amount open, ${currency} with tax`} inputMode="decimal" {...field('amount')} />
        </div>
        <SlipFoot label="Save it" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}

function MergeDialog({ customer, onClose }: SlipProps) {
  const router = useRouter();
  const [typed, setTyped] = useState('');
  const [double, setDouble] = useState<{ id: string; name: string } | null>(null);
  const { rows, pending } = useFinder(findCustomers, typed);
  const { submit, general, busy } = useActionForm({
    initial: {},
    run: async () =>
      double === null
        ? refuse({ code: 'missing', path: 'doubleId', wanted: 'choose-other-record' })
        : act(mergeDouble, { keepId: customer.id, doubleId: double.id }),
    onDone: () => {
      toast(`${double?.name ?? 'It'} is merged into ${customer.name}`);
      onClose();
      router.refresh();
    },
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Merge a duplicate into ${customer.name}`}
      description="Documents, receipts and certificates of the other record move here, and it is no longer offered. Issued documents keep the name they were issued to. This cannot be undone."
    >
      <form onSubmit={submit}>
        <FindBox
          label="The other record"
          className="h-8 w-full rounded-sm border border-rule bg-sheet px-2"
          pending={pending}
          value={double?.name ?? typed}
          placeholder="Which record is the duplicate?"
          options={rows
            .filter(({ id }) => id !== customer.id)
            .map((row) => ({ id: row.id, label: row.name, detail: row.address.city }))}
          onType={(text) => {
            setTyped(text);
            setDouble(null);
          }}
          onPick={(option) => setDouble({ id: option.id, name: option.label })}
        />
        <div className="pt-3" />
        <SlipFoot
          label={`Merge ${double?.name ?? 'it'} into ${customer.name}`}
          grave
          busy={busy}
          general={general}
          leave="Leave both"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}

'use client';

import { toast } from 'sonner';
import type { IssuedDocument } from '@/core/documents/issued';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { writeOffDebt } from '@/store/payments/actions/writeOff';
import { CheckField } from '@/ui/CheckField';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { DateField } from '../DateField';
import { SlipFoot } from '../FormFoot';
import { MoneyField } from '../MoneyField';
import { typedDay } from '../typedDay';
import { useActionForm } from '../useActionForm';
import { WouldPost } from './WouldPost';

interface WriteOffDialogProps {
  readonly document: IssuedDocument;
  readonly onClose: () => void;
}

/** Gives up what is open of a document as a bad debt, with relief of its output tax where the registration takes it. */
export function WriteOffDialog({ document, onClose }: WriteOffDialogProps) {
  const { registrations } = useOpenBook();
  const { id, number, open, content } = document;
  const { currency, registrationId, basis } = content;
  const registration = registrations.find((one) => one.id === registrationId);
  const relievable = registration?.badDebtRelief === true && basis !== 'on-payment' && document.kind !== 'opening';
  const inputOf = (value: { amount: string; date: string; reason: string; relief: boolean }) => {
    const amount = typedMoney(value.amount, currency, 'amount', open);
    return {
      amount,
      rest: {
        documentId: id,
        date: typedDay(value.date),
        relief: relievable && value.relief,
        reason: value.reason,
      },
    };
  };
  const { form, submit, field, general, busy, isDirty } = useActionForm({
    initial: { amount: '', date: 'today', reason: '', relief: relievable },
    run: (value) => {
      const { amount, rest } = inputOf(value);
      return amount.ok ? act(writeOffDebt, { ...rest, amount: amount.value }) : Promise.resolve(amount);
    },
    onDone: () => {
      toast(`${number} is written off`);
      onClose();
    },
  });
  const { amount, rest } = inputOf(form.watch());
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`Write off ${number}`}
      description={`${showMoney(open, currency)} ${currency} is open. The amount goes to bad debts; a later receipt undoes as much of it.`}
    >
      <form onSubmit={submit}>
        <div className="grid grid-cols-2 gap-x-4">
          <MoneyField label="Amount" currency={currency} whenEmpty={open} autoFocus {...field('amount')} />
          <DateField label="Date" {...field('date')} />
        </div>
        <TextField label="Reason" {...field('reason')} />
        {relievable ? (
          <CheckField
            label={`Bad debt relief: reclaim its output tax in the return of ${registration.name}`}
            {...field('relief')}
          />
        ) : (
          <p className="mb-2 text-soft text-sm">
            {basis === 'on-payment'
              ? 'Its tax is deferred: it is taken out of deferred output tax.'
              : 'No output tax is reclaimed: its registration has no bad debt relief.'}
          </p>
        )}
        <WouldPost
          action={writeOffDebt}
          input={amount.ok ? { ...rest, amount: amount.value, reason: rest.reason || '·' } : null}
        />
        <SlipFoot label="Write off" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}

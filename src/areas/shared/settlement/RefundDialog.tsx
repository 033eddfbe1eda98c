'use client';

import { toast } from 'sonner';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import { readTypedDate } from '@/core/parties/terms';
import { refundCredit } from '@/store/payments/actions/refund';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { useOpenBook } from '../../shell/BookContext';
import { act, today } from '../../shell/book';
import { DateField } from '../DateField';
import { SlipFoot } from '../FormFoot';
import { MoneyField } from '../MoneyField';
import { useActionForm } from '../useActionForm';
import type { CreditLeft } from './AllocateDialog';

interface RefundDialogProps {
  readonly credit: CreditLeft;
  readonly onClose: () => void;
}

/** Gives money back that is on account, or that a credit note holds. */
export function RefundDialog({ credit, onClose }: RefundDialogProps) {
  const { currency: home } = useOpenBook();
  const { currency, left } = credit;
  const { submit, field, general, busy } = useActionForm({
    initial: { amount: '', date: 'today', method: 'bank' as PaymentMethod, reference: '', perHome: '' },
    run: ({ amount, date, ...rest }) => {
      const typed = typedMoney(amount, currency, 'amount', left);
      if (!typed.ok) return Promise.resolve(typed);
      const on = readTypedDate(date, today(), today()) ?? date;
      return act(refundCredit, { ...rest, creditId: credit.id, amount: typed.value, date: on });
    },
    onDone: (_, { number }) => {
      toast(`${number} gives it back`);
      onClose();
    },
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Refund of ${credit.number}`}
      description={`${showMoney(left, currency)} ${currency} is left of it. Money leaves the account it is given back from.`}
    >
      <form onSubmit={submit}>
        <div className="grid grid-cols-3 gap-x-4">
          <MoneyField label="Amount" currency={currency} whenEmpty={left} autoFocus {...field('amount')} />
          <DateField label="Day" {...field('date')} />
          <ChoiceField label="How" options={PAYMENT_METHODS.map((m) => [m, m] as const)} {...field('method')} />
        </div>
        {currency !== home && (
          <TextField
            label={`1 ${home} in ${currency}`}
            inputMode="decimal"
            placeholder="rate of the day"
            {...field('perHome')}
          />
        )}
        <TextField label="Reference" {...field('reference')} />
        <SlipFoot label="Refund it" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}

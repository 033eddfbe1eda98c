'use client';

import { toast } from 'sonner';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import type { Refund } from '@/core/settlement/refund';
import { refundCredit } from '@/store/payments/actions/refund';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { DateField } from '../DateField';
import { SlipFoot } from '../FormFoot';
import { MoneyField } from '../MoneyField';
import { typedDay } from '../typedDay';
import { useActionForm } from '../useActionForm';
import type { CreditLeft } from './AllocateDialog';
import { WouldPost } from './WouldPost';

interface RefundDialogProps {
  readonly credit: CreditLeft;
  readonly onClose: () => void;
}

interface RefundForm {
  readonly amount: string;
  readonly date: string;
  readonly method: PaymentMethod;
  readonly reference: string;
  readonly perHome: string;
}

/** Gives money back that is on account, or that a credit note holds. */
export function RefundDialog({ credit, onClose }: RefundDialogProps) {
  const { currency: home } = useOpenBook();
  const { currency, left } = credit;
  const inputOf = ({ amount, date, ...rest }: RefundForm) => ({
    amount: typedMoney(amount, currency, 'amount', left),
    rest: { ...rest, creditId: credit.id, date: typedDay(date) },
  });
  const { form, submit, field, general, busy, isDirty } = useActionForm<RefundForm, Refund>({
    initial: { amount: '', date: 'today', method: 'bank', reference: '', perHome: '' },
    run: (value) => {
      const { amount, rest } = inputOf(value);
      return amount.ok ? act(refundCredit, { ...rest, amount: amount.value }) : Promise.resolve(amount);
    },
    onDone: (_, { number }) => {
      toast(`${number} gives it back`);
      onClose();
    },
  });
  const { amount, rest } = inputOf(form.watch());
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`Refund of ${credit.number}`}
      description={`${showMoney(left, currency)} ${currency} is left of it. Money leaves the account it is given back from.`}
    >
      <form onSubmit={submit}>
        <div className="grid grid-cols-3 gap-x-4">
          <MoneyField label="Amount" currency={currency} whenEmpty={left} autoFocus {...field('amount')} />
          <DateField label="Date" {...field('date')} />
          <ChoiceField
            label="Payment method"
            options={PAYMENT_METHODS.map((m) => [m, m] as const)}
            {...field('method')}
          />
        </div>
        {currency !== home && (
          <TextField
            label={`1 ${home} in ${currency}`}
            inputMode="decimal"
            placeholder="rate of the date"
            {...field('perHome')}
          />
        )}
        <TextField label="Reference" {...field('reference')} />
        <WouldPost action={refundCredit} input={amount.ok ? { ...rest, amount: amount.value } : null} />
        <SlipFoot label="Refund" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}

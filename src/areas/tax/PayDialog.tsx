'use client';

import { toast } from 'sonner';
import type { PayTaxInput } from '@/core/decisions/tax/payTax';
import { type Minor, NOTHING, negated } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { type Span, spanName } from '@/core/returns/calendar';
import { payAuthority } from '@/store/tax/actions/payTax';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { Fold } from '@/ui/Fold';
import { DateField } from '../shared/DateField';
import { SlipFoot } from '../shared/FormFoot';
import { MoneyField } from '../shared/MoneyField';
import { WouldPost } from '../shared/settlement/WouldPost';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

interface PayDialogProps {
  readonly span: Span;
  /** What is left of the return; below zero the authority owes it. */
  readonly left: Minor;
  readonly onClose: () => void;
}

interface PayForm {
  readonly amount: string;
  readonly date: string;
  readonly account: string;
  readonly reference: string;
  readonly money: string;
  readonly penalty: string;
  readonly interest: string;
  readonly chargesAccount: string;
}

/** Records what was paid to the authority for a filed return, or what it paid back. */
export function PayDialog({ span, left, onClose }: PayDialogProps) {
  const { registration, currency, accounts } = useOpenBook();
  const back = left < 0n;
  const whole = back ? negated(left) : left;
  const inputOf = (value: PayForm) => {
    const { amount, date, account, reference, money, penalty, interest, chargesAccount } = value;
    const read = {
      amount: typedMoney(amount, currency, 'amount', whole),
      money: typedMoney(money, currency, 'money', NOTHING),
      penalty: typedMoney(penalty, currency, 'penalty', NOTHING),
      interest: typedMoney(interest, currency, 'interest', NOTHING),
    };
    const wrong = Object.values(read).find((one) => !one.ok);
    if (wrong !== undefined || !read.amount.ok || !read.money.ok || !read.penalty.ok || !read.interest.ok)
      return wrong ?? read.amount;
    const input: PayTaxInput = {
      ...{
        registrationId: registration.id,
        start: span.start,
        date: typedDay(date),
        account,
        reference,
        chargesAccount,
      },
      ...{ amount: read.amount.value, penalty: read.penalty.value, interest: read.interest.value },
      ...(read.money.value !== NOTHING && { money: read.money.value }),
    };
    return { ok: true as const, value: input };
  };
  const bank = accounts.find(({ role }) => role === 'bank')?.code ?? '';
  const charges = accounts.find(({ role }) => role === 'bank-charges')?.code ?? '';
  const { form, submit, field, general, busy, isDirty } = useActionForm<PayForm, unknown>({
    initial: {
      ...{ amount: '', date: 'today', account: bank, reference: '', money: '', penalty: '', interest: '' },
      chargesAccount: charges,
    },
    run: (value) => {
      const input = inputOf(value);
      return input.ok ? act(payAuthority, input.value as PayTaxInput) : Promise.resolve(input);
    },
    onDone: () => {
      toast(back ? 'The refund is recorded' : 'The payment is recorded');
      onClose();
    },
  });
  const now = inputOf(form.watch());
  const choices = (types: readonly string[]) =>
    accounts.filter(({ type }) => types.includes(type)).map(({ code, name }) => [code, `${code} ${name}`] as const);
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={back ? `Refund of the ${spanName(span)} return` : `Pay the ${spanName(span)} return`}
      description={`${showMoney(whole, currency)} ${currency} is ${back ? 'owed by' : 'left to pay to'} ${registration.authority}.`}
    >
      <form onSubmit={submit}>
        <div className="grid grid-cols-3 gap-x-4">
          <MoneyField label="Amount" currency={currency} whenEmpty={whole} autoFocus {...field('amount')} />
          <DateField label="Date" {...field('date')} />
          <ChoiceField label={back ? 'Received in' : 'Paid from'} options={choices(['asset'])} {...field('account')} />
        </div>
        <TextField label="Reference" {...field('reference')} />
        <Fold words="More: penalty, interest, another rate of exchange" open={false}>
          <div className="grid grid-cols-3 gap-x-4">
            <MoneyField label="Penalty" currency={currency} {...field('penalty')} />
            <MoneyField label="Interest" currency={currency} {...field('interest')} />
            <ChoiceField label="Account of both" options={choices(['expense'])} {...field('chargesAccount')} />
          </div>
          <MoneyField
            label="What the bank shows for the tax"
            hint="Where another rate of exchange made it another sum; the rest is an exchange difference"
            currency={currency}
            {...field('money')}
          />
        </Fold>
        <WouldPost action={payAuthority} input={now.ok ? (now.value as PayTaxInput) : null} />
        <SlipFoot
          label={back ? 'Record the refund' : 'Record the payment'}
          busy={busy}
          general={general}
          leave="Not now"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}

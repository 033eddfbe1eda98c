'use client';

import { toast } from 'sonner';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { allocateCredit } from '@/store/payments/actions/allocate';
import { debtsOf } from '@/store/payments/queries/debts';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField } from '@/ui/Field';
import { act, useBook } from '../../shell/book';
import { DateField } from '../DateField';
import { SlipFoot } from '../FormFoot';
import { MoneyField } from '../MoneyField';
import { typedDay } from '../typedDay';
import { useActionForm } from '../useActionForm';
import { WouldPost } from './WouldPost';

/** What is left of a receipt or a credit note, to be used for what its customer owes. */
export interface CreditLeft {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly currency: Currency;
  readonly left: Minor;
}

interface AllocateDialogProps {
  readonly credit: CreditLeft;
  /** The document that it is to settle first of all; the oldest unless it is given. */
  readonly debtId?: string;
  readonly onClose: () => void;
}

/** Settles an open document with money on account or with a credit note. */
export function AllocateDialog({ credit, debtId: first = '', onClose }: AllocateDialogProps) {
  const { currency, left } = credit;
  const owed = useBook((db) => debtsOf(db, credit.customerId), [credit.customerId]) ?? [];
  const debts = owed.flatMap(({ document }) => (document.content.currency === currency ? [document] : []));
  const inputOf = (value: { debtId: string; amount: string; date: string }) => {
    const debt = debts.find(({ id }) => id === value.debtId) ?? debts[0];
    const most = debt === undefined || debt.open > left ? left : debt.open;
    const date = typedDay(value.date);
    const rest = { creditId: credit.id, debtId: debt?.id ?? '', date };
    return { most, rest, amount: typedMoney(value.amount, currency, 'amount', most) };
  };
  const { form, submit, field, general, busy, isDirty } = useActionForm({
    initial: { debtId: first, amount: '', date: 'today' },
    run: (value) => {
      const { amount, rest } = inputOf(value);
      return amount.ok ? act(allocateCredit, { ...rest, amount: amount.value }) : Promise.resolve(amount);
    },
    onDone: (_, { debtNumber }) => {
      toast(`${credit.number} settles ${debtNumber}`);
      onClose();
    },
  });
  const { most, amount, rest } = inputOf(form.watch());
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`Allocate ${credit.number}`}
      description={
        debts.length === 0
          ? `Nothing is open in ${currency}: it stays on account.`
          : `${showMoney(left, currency)} ${currency} is left of it.`
      }
    >
      <form onSubmit={submit}>
        {debts.length > 0 && (
          <>
            <ChoiceField
              label="Allocate to"
              autoFocus
              options={debts.map(
                (d) => [d.id, `${d.number}, due ${writeDate(d.dueDate)}: ${showMoney(d.open, currency)} open`] as const,
              )}
              {...field('debtId')}
              value={rest.debtId}
            />
            <div className="grid grid-cols-2 gap-x-4">
              <MoneyField label="Amount" currency={currency} whenEmpty={most} {...field('amount')} />
              <DateField label="Date" {...field('date')} />
            </div>
          </>
        )}
        {debts.length > 0 && (
          <WouldPost action={allocateCredit} input={amount.ok ? { ...rest, amount: amount.value } : null} />
        )}
        <SlipFoot
          label="Allocate"
          busy={busy || debts.length === 0}
          general={general}
          leave="Not now"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}

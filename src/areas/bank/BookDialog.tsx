'use client';

import type { BankLine } from '@/core/bank/bankLine';
import { openOf } from '@/core/bank/bankLine';
import type { Currency } from '@/core/kernel/currency';
import { type Minor, minus, NOTHING, negated, total } from '@/core/kernel/money';
import { refuse } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { readTypedMoney } from '@/core/kernel/typedMoney';
import { isOffered } from '@/core/ledger/account';
import { splitLine } from '@/store/bank/actions/matching';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import { SlipFoot } from '../shared/FormFoot';
import { RowsField } from '../shared/RowsField';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

interface BookForm {
  readonly parts: readonly { readonly account: string; readonly amount: string }[];
  readonly remember: boolean;
  readonly contains: string;
}

interface BookDialogProps {
  readonly line: BankLine;
  readonly currency: Currency;
  readonly onClose: () => void;
}

/** Books a line to accounts, whole or in parts, and remembers it as a rule where asked. */
export function BookDialog({ line, currency, onClose }: BookDialogProps) {
  const { accounts } = useOpenBook();
  const open = openOf(line);
  const positive = (amount: Minor) => (amount < 0n ? negated(amount) : amount);
  const signed = (amount: Minor) => (open < 0n ? negated(amount) : amount);
  const { form, submit, field, errorAt, general, busy, isDirty } = useActionForm<BookForm, unknown>({
    initial: {
      parts: [{ account: '', amount: showMoney(positive(open), currency) }],
      remember: false,
      contains: line.text.split('\n')[0] || line.name,
    },
    run: async ({ parts, remember, contains }) => {
      const read = parts.map(({ account, amount }) => ({ account, amount: readTypedMoney(amount, currency) }));
      const wrong = read.findIndex(({ amount }) => amount === null);
      if (wrong >= 0) return refuse({ code: 'invalid', path: `parts[${wrong}].amount`, wanted: 'give-amount' });
      const sides = read.map(({ account, amount }) => ({ account, amount: signed(amount ?? NOTHING) }));
      const rule = { contains, direction: open < 0n ? 'out' : 'in', account: parts[0]?.account ?? '' } as const;
      const booked = await act(splitLine, { lineId: line.id, sides, ...(remember && { rule }) });
      if (booked.ok) return booked;
      return refuse(...booked.refusals.map((one) => ({ ...one, path: one.path.replace(/^sides/, 'parts') })));
    },
    onDone: onClose,
  });
  const { parts, remember } = form.watch();
  const left = minus(positive(open), total(parts.map(({ amount }) => readTypedMoney(amount, currency) ?? NOTHING)));
  return (
    <Dialog
      unsaved={isDirty}
      open
      wide
      onClose={onClose}
      title="Book this line"
      description={`Charges, interest or anything without a customer. ${showMoney(positive(open), currency)} ${currency} ${open < 0n ? 'went out' : 'came in'}.`}
    >
      <form onSubmit={submit} noValidate>
        <RowsField
          form={form}
          name="parts"
          what="part"
          columns={[
            {
              field: 'account',
              label: 'Account',
              width: '2fr',
              options: [
                ['', 'Choose…'] as const,
                ...accounts.filter(isOffered).map(({ code, name }) => [code, `${code} ${name}`] as const),
              ],
            },
            { field: 'amount', label: `Amount, ${currency}`, width: '1fr' },
          ]}
          blank={{ account: '', amount: left > 0n ? showMoney(left, currency) : '' }}
          errorAt={errorAt}
        />
        {left !== NOTHING && (
          <p className="mb-2 text-soft">
            {left > 0n
              ? `${showMoney(left, currency)} of the line stays open.`
              : `${showMoney(negated(left), currency)} more than the line.`}
          </p>
        )}
        <label className="mb-2 flex items-center gap-2">
          <input type="checkbox" {...form.register('remember')} />
          Always book lines like this to the first account
        </label>
        {remember && (
          <TextField label="Lines whose text holds" hint="In capitals or small letters" {...field('contains')} />
        )}
        <SlipFoot label="Book it" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}

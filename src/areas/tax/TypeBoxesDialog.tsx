'use client';

import { toast } from 'sonner';
import { writeMoney } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { typedMoney } from '@/core/kernel/typedMoney';
import { isOffered } from '@/core/ledger/account';
import { type Span, spanName } from '@/core/returns/calendar';
import type { ReturnForm } from '@/core/returns/form';
import type { TypedBox } from '@/core/returns/statedForm';
import { typeBoxes } from '@/store/tax/actions/typedBoxes';
import { Dialog } from '@/ui/Dialog';
import { SlipFoot } from '../shared/FormFoot';
import { RowsField } from '../shared/RowsField';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

interface TypeBoxesDialogProps {
  readonly span: Span;
  readonly form: ReturnForm;
  readonly typed: readonly TypedBox[];
  readonly onClose: () => void;
}

interface Typed {
  readonly typed: { box: string; amount: string; words: string; account: string }[];
}

/** What other books feed into boxes of a return, and adjustments; each with a word, posted to an account or not. */
export function TypeBoxesDialog({ span, form: { boxes }, typed, onClose }: TypeBoxesDialogProps) {
  const { registration, accounts, currency: home } = useOpenBook();
  const { filingCurrency: currency } = registration;
  const choices = boxes.filter((box) => box.typed);
  const isHome = currency === home;
  const { form, submit, errorAt, general, busy, isDirty } = useActionForm<Typed, unknown>({
    initial: {
      typed: typed.map(({ box, amount, words, account }) => ({
        box,
        amount: writeMoney(amount, currency),
        words,
        account,
      })),
    },
    run: async (value) => {
      const read = value.typed.map((row, i) => ({
        row,
        amount: typedMoney(row.amount, currency, `typed[${i}].amount`),
      }));
      const wrong = read.flatMap(({ amount }) => (amount.ok ? [] : amount.refusals));
      if (wrong.length > 0) return refuse(...wrong);
      const rows = read.flatMap(({ row, amount }): TypedBox[] => (amount.ok ? [{ ...row, amount: amount.value }] : []));
      const kept = await act(typeBoxes, { registrationId: registration.id, start: span.start, typed: rows });
      return kept.ok ? accept(kept.value) : kept;
    },
    onDone: () => {
      toast(`The amounts of ${spanName(span)} are saved`);
      onClose();
    },
  });
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      wide
      title={`Amounts from other books, ${spanName(span)}`}
      description={`Input tax, acquisitions, adjustments: in ${currency}, each with a word on where it comes from. ${isHome ? 'With an account it is posted against tax payable as the return is filed; without one it stands on the form alone.' : 'They stand on the form alone.'}`}
    >
      <form onSubmit={submit} noValidate>
        <RowsField
          form={form}
          name="typed"
          what="amount"
          columns={[
            {
              field: 'box',
              label: 'Box',
              width: '1.4fr',
              options: choices.map(({ id, words }) => [id, `${id} ${words}`] as const),
            },
            { field: 'amount', label: `Amount, ${currency}`, width: '110px' },
            { field: 'words', label: 'Where it comes from', width: '1fr' },
            ...(isHome
              ? [
                  {
                    field: 'account',
                    label: 'Account',
                    width: '150px',
                    options: [
                      ['', 'not posted'],
                      ...accounts.filter(isOffered).map(({ code, name }) => [code, `${code} ${name}`] as const),
                    ] as const,
                  },
                ]
              : []),
          ]}
          blank={{ box: choices[0]?.id ?? '', amount: '', words: '', account: '' }}
          errorAt={errorAt}
        />
        <SlipFoot label="Save the amounts" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}

'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { discountsTakenBack } from '@/core/documents/discountNote';
import { blankDraft, blankLine } from '@/core/documents/draft';
import { type Minor, NOTHING, writeMoney } from '@/core/kernel/money';
import { accept, type Result } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import type { Receipt } from '@/core/settlement/receipt';
import { dishonourReceipt } from '@/store/payments/actions/dishonour';
import { discountNotes } from '@/store/payments/queries/receiptFile';
import { keepDraft } from '@/store/sales/actions/drafts';
import { CheckField } from '@/ui/CheckField';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import { DateField } from '../shared/DateField';
import { SlipFoot } from '../shared/FormFoot';
import { MoneyField } from '../shared/MoneyField';
import { WouldPost } from '../shared/settlement/WouldPost';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act, moment, today, useBook } from '../shell/book';
import { routes } from '../shell/routes';

interface DishonourDialogProps {
  readonly receipt: Receipt;
  readonly onClose: () => void;
}

/** A cheque or direct debit came back unpaid: what it settled is open again, and the bank’s fee is paid. */
export function DishonourDialog({ receipt, onClose }: DishonourDialogProps) {
  const router = useRouter();
  const { currency: home, registration, accounts } = useOpenBook();
  const { id, number, amount, currency, customerId } = receipt;
  const notes = useBook((db) => discountNotes(db, receipt), [receipt.id]) ?? [];
  const feeLine = (lineId: string, fee: Minor) => ({
    ...blankLine(lineId, accounts.find(({ type, role }) => type === 'income' && role === '')?.code ?? ''),
    description: `Bank fee for ${number}, which was returned unpaid`,
    quantity: '1',
    price: writeMoney(fee, home),
  });
  const inputOf = (value: { date: string; reason: string; fee: string }) => ({
    fee: typedMoney(value.fee, home, 'fee', NOTHING),
    rest: { receiptId: id, date: typedDay(value.date), reason: value.reason },
  });
  const { form, submit, field, general, busy, isDirty } = useActionForm({
    initial: { date: 'today', reason: '', fee: '', charged: false, discounts: false },
    run: async (value): Promise<Result<string>> => {
      const { fee, rest } = inputOf(value);
      if (!fee.ok) return fee;
      const done = await act(dishonourReceipt, { ...rest, fee: fee.value });
      if (!done.ok) return done;
      const draftId = moment().newId();
      const lines = [
        ...(value.charged && fee.value !== NOTHING ? [feeLine(`${draftId}-fee`, fee.value)] : []),
        ...(value.discounts ? discountsTakenBack(notes, (at) => `${draftId}-${at}`) : []),
      ];
      if (lines.length === 0) return accept('');
      const priceMode = notes[0]?.content.priceMode ?? 'net';
      const draft = { ...blankDraft(draftId, 'invoice', registration.id, today()), customerId, priceMode, lines };
      const drafted = await act(keepDraft, draft);
      return drafted.ok ? accept(draftId) : drafted;
    },
    onDone: (_, draftId) => {
      toast(`${number} was returned unpaid; what it settled is open again`);
      onClose();
      if (draftId !== '') router.push(routes.draft(draftId));
    },
  });
  const { fee, rest } = inputOf(form.watch());
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`${number} was returned unpaid`}
      description={`All of it is reversed on that date: ${showMoney(amount, currency)} ${currency}, tax withheld with it too. What it was allocated to is open again; credit notes for discounts stay.`}
    >
      <form onSubmit={submit}>
        <div className="grid grid-cols-2 gap-x-4">
          <DateField label="Date returned" autoFocus {...field('date')} />
          <MoneyField label="Bank charge" currency={home} placeholder="none" {...field('fee')} />
        </div>
        <TextField label="Reason, such as the bank gives it" {...field('reason')} />
        <CheckField label="Draft an invoice for the fee" {...field('charged')} />
        {notes.length > 0 && (
          <CheckField
            label={`Draft an invoice that takes ${notes.map((note) => note.number).join(', ')} back, for discounts`}
            {...field('discounts')}
          />
        )}
        <WouldPost action={dishonourReceipt} input={fee.ok ? { ...rest, fee: fee.value } : null} />
        <SlipFoot
          label="Record the return"
          grave
          busy={busy}
          general={general}
          leave="Leave it as it is"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}

'use client';

import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import { showMoney } from '@/core/kernel/show';
import { readTypedDate } from '@/core/parties/terms';
import type { Allocation } from '@/core/settlement/allocation';
import { undoAllocation } from '@/store/payments/actions/allocate';
import { Dialog } from '@/ui/Dialog';
import { act, today } from '../../shell/book';
import { DateField } from '../DateField';
import { SlipFoot } from '../FormFoot';
import { useActionForm } from '../useActionForm';

interface UndoDialogProps {
  readonly allocation: Allocation;
  readonly onClose: () => void;
}

/** Takes an allocation back: what it settled is open again, and the credit is there to be used. */
export function UndoDialog({ allocation, onClose }: UndoDialogProps) {
  const { creditId, creditNumber, debtId, debtNumber, amount, currency } = allocation;
  const { submit, field, general, busy } = useActionForm({
    initial: { date: '' },
    run: ({ date }) =>
      act(undoAllocation, {
        creditId,
        debtId,
        date: date.trim() === '' ? today() : (readTypedDate(date, today(), today()) ?? date),
      }),
    onDone: () => {
      toast(`${creditNumber} no longer settles ${debtNumber}`);
      onClose();
    },
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Undo ${creditNumber} to ${debtNumber}`}
      description={`${showMoney(amount, currency)} ${currency} of ${debtNumber} is open again, and stands on account. What was posted is taken back on the day; both stay to be seen.`}
    >
      <form onSubmit={submit}>
        <DateField label="Day" placeholder={writeDate(today())} hint="Empty for today" {...field('date')} />
        <SlipFoot label="Undo it" busy={busy} general={general} leave="Leave it as it is" onClose={onClose} />
      </form>
    </Dialog>
  );
}

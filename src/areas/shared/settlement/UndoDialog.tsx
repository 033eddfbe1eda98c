'use client';

import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import { showMoney } from '@/core/kernel/show';
import type { Allocation } from '@/core/settlement/allocation';
import { undoAllocation } from '@/store/payments/actions/allocate';
import { undoRefund } from '@/store/payments/actions/refund';
import { undoWriteOff } from '@/store/payments/actions/writeOff';
import type { Action } from '@/store/perform';
import { Dialog } from '@/ui/Dialog';
import { act, today } from '../../shell/book';
import { DateField } from '../DateField';
import { SlipFoot } from '../FormFoot';
import { typedDay } from '../typedDay';
import { useActionForm } from '../useActionForm';
import { WouldPost } from './WouldPost';

interface Undoing<Input> {
  readonly title: string;
  readonly description: string;
  readonly done: string;
  readonly action: Action<Input, unknown>;
  readonly inputOn: (date: string) => Input;
}

interface SlipProps<Input> extends Undoing<Input> {
  readonly onClose: () => void;
}

function UndoSlip<Input>({ title, description, done, action, inputOn, onClose }: SlipProps<Input>) {
  const dayOf = (typed: string) => (typed.trim() === '' ? today() : typedDay(typed));
  const { form, submit, field, general, busy, isDirty } = useActionForm({
    initial: { date: '' },
    run: ({ date }) => act(action, inputOn(dayOf(date))),
    onDone: () => {
      toast(done);
      onClose();
    },
  });
  return (
    <Dialog unsaved={isDirty} open onClose={onClose} title={title} description={description}>
      <form onSubmit={submit}>
        <DateField label="Date" placeholder={writeDate(today())} hint="Empty for today" {...field('date')} />
        <WouldPost action={action} input={inputOn(dayOf(form.watch('date')))} />
        <SlipFoot label="Undo" busy={busy} general={general} leave="Leave it as it is" onClose={onClose} />
      </form>
    </Dialog>
  );
}

interface UndoDialogProps {
  readonly allocation: Allocation;
  readonly onClose: () => void;
}

/**
 * Takes back what settled a document: an allocation with the differences closed with it, a refund, or a write-off. What was
 * posted is taken back on the day; all records stay to be seen.
 */
export function UndoDialog({ allocation, onClose }: UndoDialogProps) {
  const { id, creditId, creditKind, creditNumber, debtId, debtKind, debtNumber, amount, currency } = allocation;
  const sum = `${showMoney(amount, currency)} ${currency}`;
  if (creditKind === 'write-off')
    return (
      <UndoSlip
        title={`Undo the write-off of ${debtNumber}`}
        description={`${sum} of ${debtNumber} is open again. The posting is reversed on that date; the record remains visible.`}
        done={`${debtNumber} is open again`}
        action={undoWriteOff}
        inputOn={(date) => ({ id, date })}
        onClose={onClose}
      />
    );
  if (debtKind === 'refund')
    return (
      <UndoSlip
        title={`Undo refund ${debtNumber}`}
        description={`For money that was never paid out: ${sum} stands on ${creditNumber} again. Both remain visible.`}
        done={`${debtNumber} is cancelled`}
        action={undoRefund}
        inputOn={(date) => ({ id: debtId, date })}
        onClose={onClose}
      />
    );
  return (
    <UndoSlip
      title={`Undo ${creditNumber} to ${debtNumber}`}
      description={`${sum} of ${debtNumber} is open again, and stays on account. The posting is reversed on that date, with any small difference closed with it; the record remains visible.`}
      done={`${creditNumber} no longer settles ${debtNumber}`}
      action={undoAllocation}
      inputOn={(date) => ({ creditId, debtId, date })}
      onClose={onClose}
    />
  );
}

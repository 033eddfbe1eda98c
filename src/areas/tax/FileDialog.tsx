'use client';

import { toast } from 'sonner';
import type { Minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { type Span, spanName } from '@/core/returns/calendar';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { Dialog } from '@/ui/Dialog';
import { AreaField } from '@/ui/Field';
import { SlipFoot } from '../shared/FormFoot';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

interface FileDialogProps {
  readonly span: Span;
  readonly tax: Minor;
  /** The proof shows differences, or the form does not state all of it. */
  readonly asksWhy: boolean;
  readonly onClose: () => void;
}

/** Files a return, after saying what that does. Differences need a word of explanation. */
export function FileDialog({ span, tax, asksWhy, onClose }: FileDialogProps) {
  const { registration, currency } = useOpenBook();
  const { submit, field, general, busy, isDirty } = useActionForm({
    initial: { note: '' },
    run: ({ note }) => act(fileReturn, { registrationId: registration.id, start: span.start, note }),
    onDone: () => {
      toast(`${spanName(span)} is filed`);
      onClose();
    },
  });
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`File the ${spanName(span)} return`}
      description={`${showMoney(tax, currency)} ${currency} moves from output tax to tax payable, and the period is locked: later documents go to the next one. The newest return can be reopened with a reason.`}
    >
      <form onSubmit={submit}>
        {asksWhy && (
          <AreaField
            label="The reconciliation or the form shows differences. Why are they accepted?"
            {...field('note')}
          />
        )}
        <SlipFoot label={`File ${spanName(span)}`} busy={busy} general={general} leave="Not yet" onClose={onClose} />
      </form>
    </Dialog>
  );
}

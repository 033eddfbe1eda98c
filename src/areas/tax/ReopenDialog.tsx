'use client';

import { toast } from 'sonner';
import { type Span, spanName } from '@/core/returns/calendar';
import { reopenReturn } from '@/store/tax/actions/reopenReturn';
import { Dialog } from '@/ui/Dialog';
import { AreaField } from '@/ui/Field';
import { SlipFoot } from '../shared/FormFoot';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

/** Opens the newest filed return again, with a reason. */
export function ReopenDialog({ span, onClose }: { readonly span: Span; readonly onClose: () => void }) {
  const { registration } = useOpenBook();
  const { submit, field, general, busy, isDirty } = useActionForm({
    initial: { reason: '' },
    run: ({ reason }) => act(reopenReturn, { registrationId: registration.id, start: span.start, reason }),
    onDone: () => {
      toast(`${spanName(span)} is open again`);
      onClose();
    },
  });
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`Reopen the ${spanName(span)} return`}
      description="Its settlement is reversed and the period takes documents again. What was filed is kept as a version; documents that went to later periods and payments stay."
    >
      <form onSubmit={submit}>
        <AreaField label="Reason" autoFocus {...field('reason')} />
        <SlipFoot label="Reopen it" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}

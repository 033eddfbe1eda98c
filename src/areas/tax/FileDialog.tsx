'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Minor } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { type Span, spanName } from '@/core/returns/calendar';
import type { Proof } from '@/core/returns/proof';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { AreaField } from '@/ui/Field';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

interface FileDialogProps {
  readonly span: Span;
  readonly tax: Minor;
  readonly proof: Proof;
  readonly onClose: () => void;
}

/** Files a return, after saying what that does. Differences need a word of explanation. */
export function FileDialog({ span, tax, proof, onClose }: FileDialogProps) {
  const { registration, currency } = useOpenBook();
  const [note, setNote] = useState('');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [filing, setFiling] = useState(false);
  const noteRefusal = refusals.find((refusal) => refusal.path === 'note');
  const others = refusals.filter((refusal) => refusal.path !== 'note');
  const file = async () => {
    setFiling(true);
    try {
      const result = await act(fileReturn, { registrationId: registration.id, start: span.start, note });
      if (!result.ok) return setRefusals(result.refusals);
      toast(`${spanName(span)} is filed`);
      onClose();
    } finally {
      setFiling(false);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`File the ${spanName(span)} return`}
      description={`${showMoney(tax, currency)} ${currency} moves from output tax to tax payable, and the period is locked: later documents go to the next one. This can not be undone here.`}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void file();
        }}
      >
        {!proof.holds && (
          <AreaField
            label="The proof names differences. Why are they accepted?"
            value={note}
            error={noteRefusal && wordRefusal(noteRefusal)}
            onChange={(event) => setNote(event.target.value)}
          />
        )}
        {others.length > 0 && (
          <p role="alert" className="mb-3 text-brick">
            ▲ {wordRefusals(others)}
          </p>
        )}
        <div className="mt-2 flex gap-2.5">
          <Button weight="main" type="submit" disabled={filing}>
            File {spanName(span)}
          </Button>
          <Button onClick={onClose}>Not yet</Button>
        </div>
      </form>
    </Dialog>
  );
}

'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import type { IssuedDocument } from '@/core/documents/issued';
import { writeDate } from '@/core/kernel/date';
import type { Refusal } from '@/core/kernel/result';
import { readTypedDate } from '@/core/parties/terms';
import { creditInvoice } from '@/store/actions/creditInvoice';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import { act, today } from '../../shell/book';
import { wordRefusal, wordRefusals } from '../../shell/wording';

interface CreditDialogProps {
  readonly document: IssuedDocument;
  readonly open: boolean;
  readonly onClose: () => void;
}

/** Takes an invoice back whole. */
export function CreditDialog({ document, open, onClose }: CreditDialogProps) {
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [date, setDate] = useState('');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const errorAt = (path: string) => {
    const found = refusals.find((refusal) => refusal.path === path);
    return found && wordRefusal(found);
  };
  const credit = async () => {
    const day = date.trim() === '' ? today() : readTypedDate(date, today(), document.issueDate);
    const result = await act(creditInvoice, { documentId: document.id, date: day ?? date, reason });
    if (!result.ok) return setRefusals(result.refusals);
    toast(`${result.value.number} credits ${document.number}`);
    onClose();
    router.push(`/sales/doc/${result.value.id}`);
  };
  const others = refusals.filter((refusal) => refusal.path !== 'reason' && refusal.path !== 'date');
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title={`Credit ${document.number} whole`}
      description="A credit note with the same lines and rates takes it back. The invoice stays in the book; this can not be undone, only invoiced again."
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void credit();
        }}
      >
        <TextField
          label="Reason, printed on the credit note"
          value={reason}
          error={errorAt('reason')}
          onChange={(e) => setReason(e.target.value)}
          autoFocus
        />
        <TextField
          label="Date"
          value={date}
          placeholder={writeDate(today())}
          hint="Empty for today"
          error={errorAt('date')}
          onChange={(e) => setDate(e.target.value)}
        />
        {others.length > 0 && (
          <p role="alert" className="mb-3 text-brick">
            ▲ {wordRefusals(others)}
          </p>
        )}
        <div className="mt-2 flex gap-2.5">
          <Button weight="main" type="submit">
            Credit {document.number}
          </Button>
          <Button onClick={onClose}>Leave it as it is</Button>
        </div>
      </form>
    </Dialog>
  );
}

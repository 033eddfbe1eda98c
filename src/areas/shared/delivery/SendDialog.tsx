'use client';

import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { LookUp } from '@/core/delivery/accessPoint';
import type { IssuedDocument } from '@/core/documents/issued';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { sendEInvoices } from '@/store/delivery/actions/sending';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Mark, type MarkKind } from '@/ui/Mark';
import { act } from '../../shell/book';
import { accessPoint } from '../../shell/delivery/accessPoint';

interface SendDialogProps {
  readonly document: IssuedDocument;
  readonly onClose: () => void;
}

const FOUND: Readonly<Record<LookUp['kind'], readonly [MarkKind, string]>> = {
  takes: ['good', 'The receiver is registered and accepts e-invoices.'],
  unknown: [
    'wrong',
    'Nobody is registered at this address. Ask the customer for the right one; an invoice that names the wrong one is corrected and sent again.',
  ],
  refused: ['wrong', 'The access point does not accept this address. Check it on the customer’s record.'],
  unreachable: ['warning', 'The directory of receivers does not answer. It can go into the queue and is tried again.'],
};

/** Asks whether the receiver is there, and puts the e-invoice of a document into the queue. */
export function SendDialog({ document, onClose }: SendDialogProps) {
  const { number, content, customerName } = document;
  const { endpoint } = content.buyer;
  const [found, setFound] = useState<LookUp | null>(null);
  const [fault, setFault] = useState('');
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    let here = true;
    void accessPoint.lookUp(endpoint).then((answer) => here && setFound(answer));
    return () => {
      here = false;
    };
  }, [endpoint]);
  const main = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    // Enter sends as soon as the directory has answered.
    if (found !== null) main.current?.focus();
  }, [found]);
  const send = async () => {
    setBusy(true);
    setFault('');
    try {
      const result = await act(sendEInvoices, { documentIds: [document.id] });
      const refused = result.ok ? result.value[0]?.fault : null;
      if (!result.ok) setFault(wordRefusals(result.refusals));
      else if (refused) setFault(wordRefusal(refused));
      else {
        toast(`${number} is on its way`);
        onClose();
      }
    } finally {
      setBusy(false);
    }
  };
  const [mark, words] = found === null ? (['open', 'Asking the directory…'] as const) : FOUND[found.kind];
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Send ${number} as e-invoice`}
      description="It goes to the receiver through the access point, which is simulated here. It cannot be recalled: a wrong document is credited and sent again."
    >
      <dl className="mb-3 grid grid-cols-[90px_1fr] gap-y-1">
        <dt className="text-soft">To</dt>
        <dd className="break-words">{customerName}</dd>
        <dt className="text-soft">Address</dt>
        <dd className="break-all">
          {endpoint.scheme}:{endpoint.id}
        </dd>
      </dl>
      <p role="status" className="mb-3 flex gap-1.5">
        <Mark kind={mark} />
        <span>{words}</span>
      </p>
      {fault !== '' && (
        <p role="alert" className="mb-3 text-brick">
          ▲ {fault}
        </p>
      )}
      <div className="flex gap-2.5">
        <Button
          weight="main"
          ref={main}
          disabled={busy || found === null || found.kind === 'unknown'}
          onClick={() => void send()}
        >
          Send {number}
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}

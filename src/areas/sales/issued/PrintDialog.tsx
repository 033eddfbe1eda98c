'use client';

import { useEffect, useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { Dialog } from '@/ui/Dialog';
import { printWorker } from '@/workers/client';

/** The document as a PDF, made in a worker. */
export function printedPdf(document: IssuedDocument): Promise<Uint8Array> {
  return printWorker().pdf(document);
}

/** The real PDF, shown by the browser. */
export function PrintDialog({
  document,
  onClose,
}: {
  readonly document: IssuedDocument;
  readonly onClose: () => void;
}) {
  const [url, setUrl] = useState('');
  const [fault, setFault] = useState('');
  useEffect(() => {
    let made = '';
    let current = true;
    printedPdf(document).then(
      (bytes) => {
        if (!current) return;
        made = URL.createObjectURL(new Blob([bytes as BlobPart], { type: 'application/pdf' }));
        setUrl(made);
      },
      (error: Error) => setFault(error.message),
    );
    return () => {
      current = false;
      URL.revokeObjectURL(made);
    };
  }, [document]);
  return (
    <Dialog
      open
      onClose={onClose}
      title={`${document.number} as it prints`}
      description="This is the file that the customer gets. Esc steps back."
      wide
    >
      {fault !== '' && <p role="alert">It could not be printed: {fault}</p>}
      {fault === '' && url === '' && <p role="status">Setting the page…</p>}
      {url !== '' && (
        <iframe
          src={`${url}#toolbar=0&navpanes=0`}
          title={`${document.number}.pdf`}
          className="h-[62vh] w-full border border-rule"
        />
      )}
    </Dialog>
  );
}

'use client';

import { fileName } from '@/print/words';
import type { ReceiptFile } from '@/store/payments/queries/receiptFile';
import { Dialog } from '@/ui/Dialog';
import { PdfSlip } from '../shared/PdfSlip';
import { receiptPdf } from './paymentMail';

/** A receipt as it prints, under its own number and in the customer’s language. */
export function ReceiptPrint({ file, onClose }: { readonly file: ReceiptFile; readonly onClose: () => void }) {
  const { receipt } = file;
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Print preview of ${receipt.number}`}
      description="This is the file that the customer gets. Esc closes it."
      wide
    >
      <PdfSlip
        title={`Receipt ${receipt.number}`}
        name={fileName(receipt, 'pdf')}
        make={() => receiptPdf(file)}
        of={receipt}
        onClose={onClose}
      />
    </Dialog>
  );
}

'use client';

import { standing } from '@/core/settlement/allocation';
import { printedReceipt } from '@/print/account';
import { fileName } from '@/print/words';
import type { ReceiptFile } from '@/store/payments/queries/receiptFile';
import { Dialog } from '@/ui/Dialog';
import { accountHead, pagesAsPdf } from '../shared/accountPrint';
import { PdfSlip } from '../shared/PdfSlip';

/** A receipt as it prints, under its own number and in the customer’s language. */
export function ReceiptPrint({ file, onClose }: { readonly file: ReceiptFile; readonly onClose: () => void }) {
  const { receipt, allocations, withheld } = file;
  const make = async () => {
    const head = await accountHead(receipt.customerId);
    if (head === null) throw new Error('its customer is not in the book');
    const settles = standing(allocations).filter(({ closing }) => closing === undefined);
    return pagesAsPdf([printedReceipt(head, receipt, [...settles].reverse(), withheld)]);
  };
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
        make={make}
        of={receipt}
        onClose={onClose}
      />
    </Dialog>
  );
}

'use client';

import { standing } from '@/core/settlement/allocation';
import { printedReceipt } from '@/print/account';
import { fileName } from '@/print/words';
import type { ReceiptFile } from '@/store/payments/queries/receiptFile';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { accountHead, pagesAsPdf } from '../shared/accountPrint';
import { PdfFrame } from '../shared/PdfFrame';
import { savePdf } from '../shared/savePdf';

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
      <PdfFrame
        title={`Receipt ${receipt.number}`}
        make={make}
        of={receipt}
        className="h-[60vh] w-full border border-rule"
      />
      <div className="mt-3 flex gap-2.5">
        <Button weight="main" onClick={() => void savePdf(fileName(receipt, 'pdf'), make)}>
          Save PDF
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}

'use client';

import { grouped } from '@/core/kernel/grouped';
import type { Withheld } from '@/core/settlement/withholding';
import { printedLetter } from '@/print/account';
import { Dialog } from '@/ui/Dialog';
import { accountHead, pagesAsPdf } from '../shared/accountPrint';
import { PdfSlip } from '../shared/PdfSlip';
import { useOpenBook } from '../shell/BookContext';
import { today } from '../shell/book';

interface LetterDialogProps {
  /** What is withheld without the certificate that it needs. */
  readonly missing: readonly Withheld[];
  readonly onClose: () => void;
}

/** A letter to each customer whose certificates are missing, in its own language. */
export function LetterDialog({ missing, onClose }: LetterDialogProps) {
  const { currency: home } = useOpenBook();
  const byCustomer = [...grouped(missing, ({ customerId }) => customerId)];
  const make = async () => {
    const heads = await Promise.all(byCustomer.map(([customerId]) => accountHead(customerId)));
    return pagesAsPdf(
      byCustomer.flatMap(([, rows], i) => {
        const head = heads[i];
        return head ? [printedLetter(head, rows, home, today())] : [];
      }),
    );
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Letters about missing certificates"
      description={
        byCustomer.length === 0
          ? 'No certificate is missing.'
          : `One for each of ${byCustomer.length} ${byCustomer.length === 1 ? 'customer' : 'customers'}, in its language.`
      }
      wide
    >
      <PdfSlip
        title="Letters about missing certificates"
        name="missing-certificates.pdf"
        make={byCustomer.length === 0 ? null : make}
        of={missing.length}
        onClose={onClose}
      />
    </Dialog>
  );
}

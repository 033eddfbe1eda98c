'use client';

import { grouped } from '@/core/kernel/grouped';
import type { Withheld } from '@/core/settlement/withholding';
import { Dialog } from '@/ui/Dialog';
import { pagesAsPdf } from '../shared/accountPrint';
import { MailBatch } from '../shared/delivery/MailBatch';
import { PdfSlip } from '../shared/PdfSlip';
import { letterPages, writeCertificateRequest } from './paymentMail';

interface LetterDialogProps {
  /** What is withheld without the certificate that it needs. */
  readonly missing: readonly Withheld[];
  readonly onClose: () => void;
}

/** A letter to each customer whose certificates are missing, in its own language: on paper or by mail. */
export function LetterDialog({ missing, onClose }: LetterDialogProps) {
  const byCustomer = grouped(missing, ({ customerId }) => customerId);
  const nobody = byCustomer.size === 0;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Letters about missing certificates"
      description={
        nobody
          ? 'No certificate is missing.'
          : `One for each of ${byCustomer.size} ${byCustomer.size === 1 ? 'customer' : 'customers'}, in its language.`
      }
      wide
    >
      <PdfSlip
        title="Letters about missing certificates"
        name="missing-certificates.pdf"
        make={nobody ? null : async () => pagesAsPdf(await letterPages(byCustomer))}
        of={missing.length}
        onClose={onClose}
      />
      <MailBatch
        what="Withholding certificates"
        all={[...byCustomer].map(([id, rows]) => ({
          id,
          name: rows[0]?.customerName ?? id,
          write: () => writeCertificateRequest(id, rows),
        }))}
      />
    </Dialog>
  );
}

'use client';

import { useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { type Allocation, standing } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import { LANGUAGES } from '@/core/tax/taxCode';
import { WORDINGS } from '@/print/wording';
import type { Variant } from '@/print/wording/wording';
import { printName } from '@/print/words';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField } from '@/ui/Field';
import { PdfSlip } from '../../shared/PdfSlip';
import { printedPdf } from '../../shell/documentPrint';

interface PrintDialogProps {
  readonly document: IssuedDocument;
  /** What settled it. */
  readonly receipts: readonly Receipt[];
  readonly allocations: readonly Allocation[];
  readonly onClose: () => void;
}

const VARIANTS: readonly (readonly [Variant, string])[] = [
  ['document', 'The document itself'],
  ['delivery-note', 'Delivery note'],
  ['receipt', 'Receipt'],
];

/** The real PDF, in any language and as a delivery note or receipt too. */
export function PrintDialog({ document, receipts, allocations, onClose }: PrintDialogProps) {
  const [variant, setVariant] = useState<Variant>('document');
  const [language, setLanguage] = useState(document.content.buyer.language ?? 'en');
  const received = standing(allocations)
    .filter(({ debtId }) => debtId === document.id)
    .reverse()
    .flatMap(({ creditId, date, amount }) =>
      receipts
        .filter(({ id }) => id === creditId)
        .map(({ parts }) => ({ date, method: parts[0]?.method ?? 'other', amount })),
    );
  const make = () => printedPdf(document, { variant, language, received });
  const paid = KINDS[document.kind].owed && document.open === 0n && document.received !== 0n;
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Print preview of ${document.number}`}
      description="This is the file that the customer gets. Esc closes it."
      wide
    >
      <div className="mb-1 flex items-start gap-4">
        <ChoiceField
          label="Printed as"
          className="w-[190px]"
          options={VARIANTS.filter(([key]) => key !== 'receipt' || paid)}
          value={variant}
          onChange={(event) => setVariant(event.target.value as Variant)}
        />
        <ChoiceField
          label="Language"
          className="w-[150px]"
          options={WORDINGS.map(
            (wording) => [wording.language, LANGUAGES[wording.language] ?? wording.language] as const,
          )}
          value={language}
          onChange={(event) => setLanguage(event.target.value)}
        />
      </div>
      <PdfSlip
        title={`${document.number}.pdf`}
        name={printName(document.content, variant)}
        make={make}
        of={`${variant} ${language}`}
        onClose={onClose}
      />
    </Dialog>
  );
}

'use client';

import { useEffect, useState } from 'react';
import { figuresOf } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import type { Setting } from '@/core/documents/setting';
import type { Customer } from '@/core/parties/customer';
import { wordRefusals } from '@/core/wording/refusals';
import { stylesFor } from '@/store/sales/queries/styles';
import { TextButton } from '@/ui/TextButton';
import { inPrinter } from '@/workers/client';
import { PdfFrame } from '../../shared/PdfFrame';
import { bookDb } from '../../shell/book';

/** The page is set again this long after the last key. */
const PAUSE = 700;

interface PreviewColumnProps {
  readonly draft: Draft;
  readonly customer: Customer | null;
  readonly number: string;
  readonly setting: Setting;
  readonly onClose: () => void;
}

/** The draft as the customer will see it, beside the sheet, a moment behind the keys. */
export function PreviewColumn({ draft, customer, number, setting, onClose }: PreviewColumnProps) {
  const [settled, setSettled] = useState(draft);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(draft), PAUSE);
    return () => clearTimeout(timer);
  }, [draft]);
  const frozen = freezeDraft(settled, number || 'DRAFT', customer, setting);
  const make = async () => {
    if (!frozen.ok) throw new Error('it is not whole yet');
    const [style] = await stylesFor(bookDb(), [settled]);
    const issuedAt = `${frozen.value.issueDate}T12:00:00.000Z`;
    const content = frozen.value;
    return inPrinter((face) =>
      face.pdf({ content, figures: figuresOf(content), issuedAt, draft: true, ...(style && { style }) }),
    );
  };
  return (
    <aside
      aria-label="Print preview"
      className="flex min-h-0 w-[440px] shrink-0 flex-col border-margin-rule border-l-[3px] border-double px-3 pt-4 pb-3"
    >
      <div className="mb-2 flex justify-between">
        <h2 className="font-semibold font-serif">Print preview</h2>
        <TextButton onClick={onClose}>Back to the margin</TextButton>
      </div>
      {frozen.ok ? (
        <PdfFrame
          title={`${number}.pdf`}
          make={make}
          of={JSON.stringify(frozen.value)}
          className="min-h-0 w-full flex-1 border border-rule"
        />
      ) : (
        <p className="text-soft">The page appears here once this is complete: {wordRefusals(frozen.refusals)}</p>
      )}
    </aside>
  );
}

'use client';

import { Button } from '@/ui/Button';
import { saveFile } from '../shell/saveFile';
import { Frame } from './PdfFrame';
import { usePdf } from './usePdf';

interface PdfSlipProps {
  readonly title: string;
  /** Name of the file. */
  readonly name: string;
  /** Makes the file, again when `of` changes; null where there is nothing to print. */
  readonly make: (() => Promise<Uint8Array>) | null;
  readonly of: unknown;
  readonly onClose: () => void;
}

/** What a slip shows of a PDF: the file itself, and that very file to save. */
export function PdfSlip({ title, name, make, of, onClose }: PdfSlipProps) {
  const { pdf, isCurrent, fault } = usePdf(make, of);
  return (
    <>
      {make !== null && (
        <Frame title={title} className="h-[40vh] w-full border border-rule" url={pdf?.url ?? ''} fault={fault} />
      )}
      <div className="mt-3 flex gap-2.5">
        <Button
          weight="main"
          disabled={!isCurrent}
          onClick={() => pdf !== null && saveFile(name, pdf.bytes, 'application/pdf')}
        >
          Save PDF
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </>
  );
}

'use client';

import { usePdf } from './usePdf';

interface FrameProps {
  readonly title: string;
  readonly className: string;
  readonly url: string;
  readonly fault: string;
}

/** A PDF as the browser shows it, that it is still made, or why it could not be. */
export function Frame({ title, className, url, fault }: FrameProps) {
  if (fault !== '') return <p role="alert">It could not be printed: {fault}</p>;
  if (url === '') return <p role="status">Setting the page…</p>;
  return <iframe src={`${url}#toolbar=0&navpanes=0&view=FitH`} title={title} className={className} />;
}

interface PdfFrameProps {
  readonly title: string;
  /** Makes the file; the frame shows it again when `of` changes. */
  readonly make: () => Promise<Uint8Array>;
  readonly of: unknown;
  readonly className: string;
}

/** The real PDF, shown by the browser. */
export function PdfFrame({ title, make, of, className }: PdfFrameProps) {
  const { pdf, fault } = usePdf(make, of);
  return <Frame title={title} className={className} url={pdf?.url ?? ''} fault={fault} />;
}

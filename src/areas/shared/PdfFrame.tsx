'use client';

import { useEffect, useState } from 'react';

interface PdfFrameProps {
  readonly title: string;
  /** Makes the file; the frame shows it again when `of` changes. */
  readonly make: () => Promise<Uint8Array>;
  readonly of: unknown;
  readonly className: string;
}

/** The real PDF, shown by the browser. */
export function PdfFrame({ title, make, of, className }: PdfFrameProps) {
  const [url, setUrl] = useState('');
  const [fault, setFault] = useState('');
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is printed decides, not the function that prints it
  useEffect(() => {
    let made = '';
    let current = true;
    make().then(
      (bytes) => {
        if (!current) return;
        made = URL.createObjectURL(new Blob([bytes as BlobPart], { type: 'application/pdf' }));
        setFault('');
        setUrl(made);
      },
      (error: Error) => current && setFault(error.message),
    );
    return () => {
      current = false;
      // The frame may still be reading the file that the next one replaces.
      if (made !== '') setTimeout(() => URL.revokeObjectURL(made), 10_000);
    };
  }, [of]);
  if (fault !== '') return <p role="alert">It could not be printed: {fault}</p>;
  if (url === '') return <p role="status">Setting the page…</p>;
  return <iframe src={`${url}#toolbar=0&navpanes=0&view=FitH`} title={title} className={className} />;
}

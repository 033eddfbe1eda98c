'use client';

import { useEffect, useState } from 'react';

interface MadePdf {
  readonly bytes: Uint8Array;
  /** Where the browser finds it. */
  readonly url: string;
  readonly of: unknown;
}

interface PdfState {
  /** The last one that was made; null before the first. */
  readonly pdf: MadePdf | null;
  /** Whether it is that of what is asked for now. */
  readonly isCurrent: boolean;
  /** Why it could not be made; empty where it could. */
  readonly fault: string;
}

/**
 * A PDF that is made again when `of` changes, or when there is something to make at all.
 * @param make null where there is nothing to print.
 */
export function usePdf(make: (() => Promise<Uint8Array>) | null, of: unknown): PdfState {
  const [pdf, setPdf] = useState<MadePdf | null>(null);
  const [fault, setFault] = useState('');
  const isAsked = make !== null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is printed decides, not the function that prints it
  useEffect(() => {
    if (make === null) return;
    let url = '';
    let current = true;
    make().then(
      (bytes) => {
        if (!current) return;
        url = URL.createObjectURL(new Blob([bytes as BlobPart], { type: 'application/pdf' }));
        setFault('');
        setPdf({ bytes, url, of });
      },
      (error: Error) => current && setFault(error.message),
    );
    return () => {
      current = false;
      // The frame may still be reading the file that the next one replaces.
      if (url !== '') setTimeout(() => URL.revokeObjectURL(url), 10_000);
    };
  }, [of, isAsked]);
  return { pdf, isCurrent: isAsked && fault === '' && pdf !== null && pdf.of === of, fault };
}

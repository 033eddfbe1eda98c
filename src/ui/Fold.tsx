'use client';

import { type ReactNode, useEffect, useState } from 'react';

interface FoldProps {
  /** What lies in it. */
  readonly words: string;
  /** Opened from outside; once it is open the person decides. */
  readonly open: boolean;
  readonly children: ReactNode;
}

/** The rest of a form, folded away until somebody wants it. */
export function Fold({ words, open, children }: FoldProps) {
  const [isOpen, setOpen] = useState(open);
  useEffect(() => {
    if (open) setOpen(true);
  }, [open]);
  return (
    <details open={isOpen} onToggle={(event) => setOpen(event.currentTarget.open)} className="mb-3">
      <summary className="cursor-pointer py-1 text-soft hover:text-ink">{words}</summary>
      <div className="mt-2">{children}</div>
    </details>
  );
}

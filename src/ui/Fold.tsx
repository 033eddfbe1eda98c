'use client';

import { type ReactNode, useEffect, useId, useState } from 'react';

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
  const id = useId();
  useEffect(() => {
    if (open) setOpen(true);
  }, [open]);
  return (
    <div className="mb-3">
      <button
        type="button"
        aria-expanded={isOpen}
        aria-controls={id}
        onClick={() => setOpen(!isOpen)}
        className="cursor-pointer py-1 text-left text-soft hover:text-ink"
      >
        <span aria-hidden="true">{isOpen ? '▼' : '▶'}</span> {words}
      </button>
      <div id={id} hidden={!isOpen} className="mt-2">
        {children}
      </div>
    </div>
  );
}

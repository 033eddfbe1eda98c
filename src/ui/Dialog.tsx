'use client';

import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

interface DialogProps {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  /** One sentence that says what will happen. */
  readonly description: ReactNode;
  readonly children?: ReactNode;
  readonly wide?: boolean;
}

/** A slip of paper over the desk. Esc and a click outside step back. */
export function Dialog({ open, onClose, title, description, children, wide = false }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/30 [[data-theme=night]_&]:bg-paper/70" />
        <Radix.Content
          className={`fixed top-[10vh] left-1/2 z-50 max-h-[82vh] w-[92vw] -translate-x-1/2 overflow-auto border border-rule bg-sheet px-6 py-5 shadow-xl ${wide ? 'max-w-[760px]' : 'max-w-[480px]'}`}
        >
          <Radix.Title className="font-serif text-xl">{title}</Radix.Title>
          <Radix.Description className="mt-1 mb-4 text-soft">{description}</Radix.Description>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

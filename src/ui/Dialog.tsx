'use client';

import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useRef, useState } from 'react';
import { Button } from './Button';
import { SlipForms } from './unsaved';

interface DialogProps {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  /** One sentence that says what will happen. */
  readonly description: ReactNode;
  readonly children?: ReactNode;
  readonly wide?: boolean;
  /** Something is typed in a form that lies around the slip; forms on it say so themselves. */
  readonly unsaved?: boolean;
}

/** A slip of paper over the desk. Esc and a click outside step back, after a question where something is typed on it. */
export function Dialog({ open, onClose, title, description, children, wide = false, unsaved = false }: DialogProps) {
  const [forms] = useState(() => new Set<symbol>());
  const [asking, setAsking] = useState(false);
  /** What had the focus before: a key opens a slip as often as a button does, which the library would look for. */
  const before = useRef<Element | null>(null);
  const stepBack = () => {
    if ((unsaved || forms.size > 0) && !asking) return setAsking(true);
    setAsking(false);
    onClose();
  };
  return (
    <Radix.Root open={open} onOpenChange={(now) => !now && stepBack()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/30 [[data-theme=night]_&]:bg-paper/70" />
        <Radix.Content
          onOpenAutoFocus={() => {
            before.current = document.activeElement;
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (before.current instanceof HTMLElement && before.current.isConnected) before.current.focus();
          }}
          className={`fixed top-[10vh] left-1/2 z-50 max-h-[82vh] w-[92vw] -translate-x-1/2 overflow-auto border border-rule bg-sheet px-6 py-5 shadow-xl ${wide ? 'max-w-[760px]' : 'max-w-[480px]'}`}
        >
          <Radix.Title className="font-serif text-xl">{title}</Radix.Title>
          <Radix.Description className="mt-1 mb-4 text-soft">{description}</Radix.Description>
          <SlipForms value={forms}>{children}</SlipForms>
          {asking && (
            <div role="alert" className="mt-4 flex items-center gap-2.5 border-rule border-t pt-3">
              <span className="flex-1">Close without saving what you typed?</span>
              <Button autoFocus onClick={() => setAsking(false)}>
                Go on
              </Button>
              <Button weight="grave" onClick={stepBack}>
                Close
              </Button>
            </div>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

'use client';

import type { ReactNode } from 'react';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Progress } from '@/ui/Progress';
import type { Run } from './useRun';

interface RunDialogProps {
  readonly title: string;
  readonly description: string;
  readonly run: Run;
  /** What is counted: `Printed so far`. */
  readonly label: string;
  /** The buttons that begin it. */
  readonly choices: ReactNode;
  readonly onClose: () => void;
  /** What came of it beyond words. */
  readonly children?: ReactNode;
}

/** Asks for long work, shows how far it is, and what came of it. Closing it stops the work. */
export function RunDialog({ title, description, run, label, choices, onClose, children }: RunDialogProps) {
  const { doing, said, stop } = run;
  const close = () => {
    stop();
    onClose();
  };
  return (
    <Dialog open onClose={close} title={title} description={description}>
      {doing === null ? (
        <div className="flex flex-wrap gap-2.5">
          {choices}
          <Button weight="quiet" onClick={close}>
            {said === '' ? 'Not now' : 'Close'}
          </Button>
        </div>
      ) : (
        <div>
          <Progress label={label} {...doing} />
          <p className="flex items-center justify-between">
            {doing.of > 0 && `${doing.done} of ${doing.of}`}
            <Button onClick={stop}>Stop</Button>
          </p>
        </div>
      )}
      <p role="status" className="min-h-[22px] pt-2">
        {said}
      </p>
      {children}
    </Dialog>
  );
}

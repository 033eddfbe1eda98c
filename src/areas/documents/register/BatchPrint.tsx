'use client';

import { useRef, useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Progress } from '@/ui/Progress';
import { printBatch, Stopped } from '@/workers/client';
import { saveFile } from '../../shell/saveFile';
import { printJobs } from '../print';

interface BatchPrintProps {
  /** Gives every document of the list, not only those on screen. */
  readonly all: () => Promise<readonly IssuedDocument[]>;
  readonly onClose: () => void;
}

type Doing = { readonly done: number; readonly of: number } | null;

/** Prints a whole list to one PDF, or to a zip with a PDF each. Shows how far it is and can be stopped. */
export function BatchPrint({ all, onClose }: BatchPrintProps) {
  const [doing, setDoing] = useState<Doing>(null);
  const [said, setSaid] = useState('');
  const stop = useRef<AbortController | null>(null);
  const print = async (as: 'batch' | 'zip') => {
    const controller = new AbortController();
    stop.current = controller;
    setSaid('');
    try {
      const documents = (await all()).filter((d) => d.kind !== 'takings' && d.kind !== 'opening');
      if (documents.length === 0) return setSaid('Nothing in this list prints.');
      setDoing({ done: 0, of: documents.length });
      const jobs = await printJobs(documents);
      const onDone = (done: number) => stop.current === controller && setDoing({ done, of: documents.length });
      const bytes = await printBatch(jobs, as, onDone, controller.signal);
      if (as === 'batch') saveFile('documents.pdf', bytes, 'application/pdf');
      else saveFile('documents.zip', bytes, 'application/zip');
      setSaid(`${documents.length} ${documents.length === 1 ? 'document is' : 'documents are'} printed.`);
    } catch (error) {
      setSaid(
        error instanceof Stopped
          ? 'Stopped; nothing was saved.'
          : `It could not be printed: ${(error as Error).message}`,
      );
    } finally {
      setDoing(null);
      stop.current = null;
    }
  };
  return (
    <Dialog
      open
      onClose={() => {
        stop.current?.abort();
        onClose();
      }}
      title="Print the list"
      description="Every document that the list holds, each in its own style and language."
    >
      {doing === null ? (
        <div className="flex flex-wrap gap-2.5">
          <Button weight="main" onClick={() => void print('batch')}>
            One PDF
          </Button>
          <Button onClick={() => void print('zip')}>A zip with a PDF each</Button>
          <Button weight="quiet" onClick={onClose}>
            Not now
          </Button>
        </div>
      ) : (
        <div>
          <Progress label="Printed so far" {...doing} />
          <p className="flex items-center justify-between">
            {doing.done} of {doing.of}
            <Button onClick={() => stop.current?.abort()}>Stop</Button>
          </p>
        </div>
      )}
      <p role="status" className="min-h-[22px] pt-2">
        {said}
      </p>
    </Dialog>
  );
}

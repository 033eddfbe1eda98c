'use client';

import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { Button } from '@/ui/Button';
import { printBatch } from '@/workers/client';
import { RunDialog } from '../../shared/RunDialog';
import { useRun } from '../../shared/useRun';
import { printJobs } from '../../shell/documentPrint';
import { saveFile } from '../../shell/saveFile';

interface BatchPrintProps {
  /** Gives every document of the list, not only those on screen. */
  readonly all: () => Promise<readonly IssuedDocument[]>;
  readonly onClose: () => void;
}

/** Prints a whole list to one PDF, or to a zip with a PDF each. */
export function BatchPrint({ all, onClose }: BatchPrintProps) {
  const run = useRun();
  const print = (as: 'batch' | 'zip') =>
    run.start(
      async ({ signal, tell }) => {
        const documents = (await all()).filter(({ kind }) => KINDS[kind].goesOut);
        const of = documents.length;
        if (of === 0) return 'Nothing in this list prints.';
        tell({ done: 0, of });
        const bytes = await printBatch(await printJobs(documents), as, (done) => tell({ done, of }), signal);
        if (as === 'batch') saveFile('documents.pdf', bytes, 'application/pdf');
        else saveFile('documents.zip', bytes, 'application/zip');
        return `${of} ${of === 1 ? 'document is' : 'documents are'} printed.`;
      },
      (fault) => (fault === null ? 'Stopped; nothing was saved.' : `It could not be printed: ${fault.message}`),
    );
  return (
    <RunDialog
      title="Print the list"
      description="Every document in the list, each in its own style and language."
      run={run}
      label="Printed so far"
      choices={
        <>
          <Button weight="main" onClick={() => void print('batch')}>
            One PDF
          </Button>
          <Button onClick={() => void print('zip')}>A zip with a PDF each</Button>
        </>
      }
      onClose={onClose}
    />
  );
}

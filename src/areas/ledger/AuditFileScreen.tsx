'use client';

import { proxy } from 'comlink';
import { useState } from 'react';
import { isIsoDate } from '@/core/kernel/date';
import { Button } from '@/ui/Button';
import { Sheet, SheetTitle } from '@/ui/Page';
import { Progress } from '@/ui/Progress';
import { onBook } from '@/workers/client';
import { DateField } from '../shared/DateField';
import { typedDay } from '../shared/typedDay';
import { useRun } from '../shared/useRun';
import { today } from '../shell/book';
import { saveFile } from '../shell/saveFile';

/** The audit file between two days, for whoever audits the book: written in a worker, and stopped where that is asked. */
export function AuditFileScreen() {
  const [typed, setTyped] = useState(() => ({ from: `${today().slice(0, 4)}-01-01`, until: today() as string }));
  const [from, until] = [typedDay(typed.from), typedDay(typed.until)];
  const span = isIsoDate(from) && isIsoDate(until) && from <= until ? { from, until } : null;
  const run = useRun();
  const save = () =>
    run.start(
      async ({ signal, tell }) => {
        if (span === null) return 'Enter days in their order.';
        const onDone = proxy((done: number, of: number) => tell({ done, of }));
        const file = await onBook((face) => face.auditFile(span, today(), onDone), signal);
        saveFile(`audit-${span.from}-${span.until}.xml`, file, 'application/xml');
        return 'The audit file is saved.';
      },
      (fault) => (fault === null ? 'Stopped: no file was saved.' : `It could not be written: ${fault.message}`),
    );
  return (
    <Sheet label="Audit file">
      <SheetTitle>Audit file</SheetTitle>
      <p className="mb-4 max-w-[640px] text-soft">
        The Standard Audit File for Tax of the OECD, version 2.0, in home currency: accounts and customers with their
        balances, tax codes, every entry of the ledger, invoices and credit notes with their lines, and receipts.
      </p>
      <div className="flex items-start gap-x-4">
        <DateField
          label="From"
          className="w-[160px]"
          value={typed.from}
          onChange={(event) => setTyped({ ...typed, from: event.target.value })}
        />
        <DateField
          label="Until"
          className="w-[160px]"
          value={typed.until}
          error={span !== null ? undefined : 'Enter days in their order.'}
          onChange={(event) => setTyped({ ...typed, until: event.target.value })}
        />
      </div>
      <div className="mt-2 flex items-center gap-3">
        {run.doing === null ? (
          <Button weight="main" disabled={span === null} onClick={() => void save()}>
            Save the audit file
          </Button>
        ) : (
          <>
            <Progress label="Written so far" {...run.doing} />
            <Button onClick={run.stop}>Stop</Button>
          </>
        )}
      </div>
      <p role="status" className="min-h-[22px] pt-2">
        {run.said}
      </p>
    </Sheet>
  );
}

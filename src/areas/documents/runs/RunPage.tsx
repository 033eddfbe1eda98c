'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import { toast } from 'sonner';
import type { RunDoes } from '@/core/decisions/sales/run';
import type { Run, RunRow, RunState } from '@/core/documents/run';
import { writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { recordOf } from '@/store/records';
import { keepRun, makeRunDocument, undoRunDrafts } from '@/store/sales/actions/runs';
import { numbersOfRun, type RunReview, rowsOfRun } from '@/store/sales/queries/runs';
import type { BookDb } from '@/store/schema';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Mark, type MarkKind } from '@/ui/Mark';
import { Empty, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Progress } from '@/ui/Progress';
import { reviewInWorker, runInWorker } from '@/workers/client';
import { DateField } from '../../shared/DateField';
import { SendEachList } from '../../shared/delivery/SendEachList';
import { FormFoot } from '../../shared/FormFoot';
import { typedDay } from '../../shared/typedDay';
import { useActionForm } from '../../shared/useActionForm';
import { useRun } from '../../shared/useRun';
import { act, bookDb, moment, today, useBook, useBookAtRest } from '../../shell/book';
import { routes } from '../../shell/routes';
import { AddCustomers } from './AddCustomers';
import { RunGrid } from './RunGrid';

const STATES: Readonly<Record<RunState, readonly [MarkKind, string]>> = {
  planned: ['open', 'planned'],
  waits: ['warning', 'waits'],
  draft: ['draft', 'draft'],
  issued: ['issued', 'issued'],
};

/** Customers that are looked at in one question to the worker. */
const AT_ONCE = 25;

/** One run: its customers with their figures, what each will get, and what came of it. */
export function RunPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const run = useBook((db) => recordOf(db, 'runs', id), [id]);
  if (run === undefined) return <Sheet label="Run">{null}</Sheet>;
  if (run === null)
    return (
      <Sheet label="Run">
        <Empty action={<Button onClick={() => router.push(routes.runs)}>All runs</Button>}>There is no such run.</Empty>
      </Sheet>
    );
  return <Known run={run} />;
}

async function readRun(db: BookDb, runId: string) {
  const rows: readonly RunRow[] = await rowsOfRun(db, runId);
  return { rows, numbers: await numbersOfRun(db, rows) };
}

const NOTHING_READ: Awaited<ReturnType<typeof readRun>> = { rows: [], numbers: new Map() };

function Known({ run }: { readonly run: Run }) {
  const router = useRouter();
  const work = useRun();
  const [sending, setSending] = useState(false);
  // Not after each row that is made, nor after each document that is sent.
  const { rows: all, numbers } = useBookAtRest((db) => readRun(db, run.id), [run.id]) ?? NOTHING_READ;
  const [reviews, setReviews] = useState<ReadonlyMap<string, RunReview>>(new Map());
  const planned = all.filter(({ state, left }) => state === 'planned' && !left);
  const counts = (Object.keys(STATES) as RunState[]).map((state) => all.filter((row) => row.state === state).length);
  const drafts = all.some(({ state }) => state === 'draft' || state === 'waits');
  const issued = all.filter(({ state, documentId }) => state === 'issued' || numbers.has(documentId));

  const review = () =>
    work.start(
      async ({ signal, tell }) => {
        const found = new Map<string, RunReview>();
        for (let from = 0; from < planned.length; from += AT_ONCE) {
          tell({ done: from, of: planned.length });
          for (const one of await reviewInWorker(planned.slice(from, from + AT_ONCE), today(), signal))
            found.set(one.rowId, one);
          setReviews(new Map(found));
        }
        const asked = [...found.values()].filter(({ finding }) => finding !== '').length;
        return asked === 0 ? 'All are sound.' : `${asked} should be looked at.`;
      },
      (fault) => (fault === null ? 'Stopped.' : `It could not go on: ${fault.message}`),
    );
  const make = (does: RunDoes) => {
    const came = { issued: 0, draft: 0, waits: 0, planned: 0 };
    const sum = () =>
      [
        came.issued > 0 ? `${came.issued} issued` : '',
        came.draft > 0 ? `${came.draft} kept as drafts` : '',
        came.waits > 0 ? `${came.waits} wait as drafts` : '',
      ]
        .filter(Boolean)
        .join(', ') || 'Nothing was done';
    return work.start(
      async ({ signal, tell }) => {
        let done = 0;
        tell({ done, of: planned.length });
        const onDone = (row: RunRow) => {
          came[row.state] += 1;
          done += 1;
          tell({ done, of: planned.length });
        };
        const result = await runInWorker(
          planned.map(({ id }) => id),
          does,
          moment(),
          onDone,
          signal,
        );
        // A last word of the worker may come after its answer: what came of each stands in the book.
        const asked = new Set(planned.map(({ id }) => id));
        const after = (await rowsOfRun(bookDb(), run.id)).filter((row) => asked.has(row.id));
        for (const state of Object.keys(came) as RunState[])
          came[state] = after.filter((row) => row.state === state).length;
        return `${result.ok ? '' : `${wordRefusals(result.refusals)} `}${sum()}.`;
      },
      (fault) => `${fault === null ? 'Stopped.' : `It could not go on: ${fault.message}`} ${sum()}.`,
    );
  };
  // The very same function, so that the grid is not drawn again for each step of the work.
  const open = useCallback(
    async (row: RunRow) => {
      const made = await act(makeRunDocument, { rowId: row.id, does: 'drafts' });
      if (!made.ok) return void toast.error(wordRefusals(made.refusals));
      router.push(routes.draft(made.value.documentId));
    },
    [router],
  );
  const undo = async () => {
    const result = await act(undoRunDrafts, { runId: run.id });
    toast(result.ok ? `${result.value} drafts are taken back` : wordRefusals(result.refusals));
  };

  return (
    <>
      <Sheet label={run.name}>
        <SheetTitle aside={writeDate(run.date)}>{run.name}</SheetTitle>
        <p className="-mt-3 mb-3">
          <Link href={routes.draft(run.id)} className="underline decoration-rule underline-offset-4">
            Edit what it says
          </Link>
        </p>
        <RunHead key={run.id} run={run} />
        <AddCustomers runId={run.id} rows={all} />
        <RunGrid rows={all} reviews={reviews} numbers={numbers} states={STATES} onOpen={open} />
        <div className="mt-4 flex flex-wrap gap-2.5">
          {work.doing === null ? (
            <>
              <Button disabled={planned.length === 0} onClick={() => void review()}>
                Review
              </Button>
              <Button weight="main" disabled={planned.length === 0} onClick={() => void make('issue-sound')}>
                Issue those without findings
              </Button>
              <Button disabled={planned.length === 0} onClick={() => void make('issue-all')}>
                Issue all {planned.length}
              </Button>
              <Button disabled={planned.length === 0} onClick={() => void make('drafts')}>
                Keep as drafts
              </Button>
              <Button disabled={issued.length === 0} onClick={() => setSending(true)}>
                Send what is issued…
              </Button>
              {drafts && (
                <Button weight="quiet" onClick={() => void undo()}>
                  Take the drafts back
                </Button>
              )}
            </>
          ) : (
            <>
              <Progress label="Done so far" {...work.doing} />
              <Button onClick={work.stop}>Stop</Button>
            </>
          )}
        </div>
        <p role="status" className="min-h-[22px] pt-2">
          {work.said}
        </p>
        {sending && (
          <SendEachList
            all={async () => issued.map(({ documentId }) => documentId)}
            onClose={() => setSending(false)}
          />
        )}
      </Sheet>
      <Margin>
        <Note title="Summary">
          <ul>
            {(Object.keys(STATES) as RunState[]).map((state, i) => (
              <li key={state} className="flex gap-2 border-rule border-b py-1">
                <Mark kind={STATES[state][0]} />
                <span className="flex-1">{STATES[state][1]}</span>
                <span className="tabular-nums">{counts[i]}</span>
              </li>
            ))}
          </ul>
          <p className="mt-2 text-soft text-sm">
            A run that was stopped goes on where it was: what is issued is not issued again.
          </p>
        </Note>
      </Margin>
    </>
  );
}

/** Its name and the day of its documents. */
function RunHead({ run }: { readonly run: Run }) {
  const { submit, field, general, busy } = useActionForm<{ name: string; date: string }, Run>({
    initial: { name: run.name, date: run.date },
    run: ({ name, date }) => act(keepRun, { ...run, name: name.trim(), date: typedDay(date) as Run['date'] }),
    onDone: () => void toast('The run is saved'),
  });
  return (
    <form onSubmit={submit} noValidate className="mb-3 flex items-end gap-4">
      <TextField label="Name" className="flex-1" {...field('name')} />
      <DateField label="Issue date" className="w-[160px]" {...field('date')} />
      <div className="pb-[18px]">
        <FormFoot label="Save" busy={busy} general={general} />
      </div>
    </form>
  );
}

'use client';

import { proxy } from 'comlink';
import { useState } from 'react';
import { type BookCheck, type BookCheckName, bookHolds } from '@/core/returns/bookProof';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { Progress } from '@/ui/Progress';
import { onBook } from '@/workers/client';
import { useRun } from '../shared/useRun';
import { useOpenBook } from '../shell/BookContext';
import { usePicked } from '../shell/period';
import { routes } from '../shell/routes';

/** What each check says when it holds, and what to do when it does not. */
const WORDS: Readonly<Record<BookCheckName, readonly [holds: string, remedy: string]>> = {
  entries: ['Debits are credits in every entry', 'Bring back a saved book from before.'],
  'kept-balances': [
    'Balances kept by month are those of the entries',
    'Save the book to a file and open it: they are made anew.',
  ],
  periods: [
    'Documents, tax entries and tax account agree in every period',
    'Look at the reconciliation of the period.',
  ],
  receivables: [
    'Receivables are what customers owe, less money on account',
    'Reverse manual journals on receivables, and record receipts and credit notes instead.',
  ],
  withholding: [
    'Withholding claims are what was withheld less what was claimed',
    'Reverse manual journals on that account.',
  ],
  'deferred-income': ['Deferred income is what is still to be earned', 'Reverse manual journals on that account.'],
  unrealised: ['Nothing is left of revaluations that were taken back', 'Reverse manual journals on that account.'],
  bank: [
    'Bank accounts are as they were reconciled',
    'Open the bank reconciliation of the day: an entry was dated back, or a match was undone.',
  ],
  rows: [
    'Rows are whole and say of each other what they are',
    'Save the book to a file and open it: what is kept beside the truth is made anew. Else bring back a saved book.',
  ],
  seals: ['Every document fits its seal, and numbers have no gap', 'Bring back a saved book from before.'],
};

/** Differences beyond these are counted, not listed. */
const MOST = 20;

const ended = (fault: Error | null) => (fault === null ? 'Stopped.' : `The book could not be proven: ${fault.message}`);

/** Holds the whole book against itself, in a worker; each thing that does not fit is named with its cause and the way out. */
export function ProveScreen() {
  const [checks, setChecks] = useState<readonly BookCheck[] | null>(null);
  const run = useRun();
  const prove = () =>
    run.start(async ({ signal, tell }) => {
      const onDone = proxy((done: number, of: number) => tell({ done, of }));
      const found = await onBook((face) => face.proveBook(onDone), signal);
      setChecks(found);
      return bookHolds(found) ? 'All of it holds.' : 'Something does not fit.';
    }, ended);
  return (
    <Sheet label="Prove the book">
      <SheetTitle>Prove the book</SheetTitle>
      <p className="mb-4 text-soft">
        Everything is recomputed from the entries and the sealed documents, and held against what the book keeps.
        Nothing is changed.
      </p>
      <div className="mb-5 flex items-center gap-3">
        {run.doing === null ? (
          <Button weight="main" onClick={() => void prove()}>
            Prove the book
          </Button>
        ) : (
          <>
            <div className="w-[260px]">
              <Progress label="Proven so far" {...run.doing} />
            </div>
            <Button onClick={run.stop}>Stop</Button>
          </>
        )}
        <span role="status">{run.said}</span>
      </div>
      {checks !== null && (
        <ul aria-label="Checks of the book">
          {checks.map((check) => (
            <Check key={check.check} {...check} />
          ))}
        </ul>
      )}
    </Sheet>
  );
}

function Check({ check, holds, compared, differences }: BookCheck) {
  const { currency } = useOpenBook();
  const { pick, pickRegistration } = usePicked();
  const [words, remedy] = WORDS[check];
  return (
    <li className="border-rule border-b py-1.5">
      <div className="flex items-baseline gap-2">
        <Mark kind={holds ? 'good' : 'wrong'} label={holds ? 'holds' : 'does not hold'} />
        <span className="flex-1">{words}</span>
        {compared !== null && (
          <span>
            <Money amount={compared.found} currency={currency} />
            {!holds && (
              <>
                {' '}
                <span className="text-soft">instead of</span> <Money amount={compared.expected} currency={currency} />
              </>
            )}
          </span>
        )}
      </div>
      {!holds && (
        <>
          <ul className="mt-1 pl-6 text-sm">
            {differences.slice(0, MOST).map(({ subject, cause, amount, period }, i) => (
              <li key={i} className="flex gap-3">
                <span className="flex-1">
                  {subject} {subject !== '' && cause !== '' && '·'} {cause}
                </span>
                {period !== undefined && (
                  <Link
                    href={routes.tax}
                    className="underline decoration-rule underline-offset-4"
                    onClick={() => {
                      pickRegistration(period.registrationId);
                      pick(period.start);
                    }}
                  >
                    Open its reconciliation
                  </Link>
                )}
                {amount !== null && <Money amount={amount} currency={currency} />}
              </li>
            ))}
            {differences.length > MOST && <li className="text-soft">and {differences.length - MOST} more</li>}
          </ul>
          <p className="pl-6 text-soft text-sm">{remedy}</p>
        </>
      )}
    </li>
  );
}

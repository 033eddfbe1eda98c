'use client';

import { useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { filledForm } from '@/core/decisions/tax/fileReturn';
import { dayOf, writeDate } from '@/core/kernel/date';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { returnReport } from '@/core/reports/returnReport';
import { nextToFile, periodIdOf, spanName } from '@/core/returns/calendar';
import { formFaults } from '@/core/returns/form';
import { formOf } from '@/core/returns/forms';
import type { TaxReturn } from '@/core/returns/return';
import { recordOf } from '@/store/records';
import { entriesBehindAll, periodReturn, periodState } from '@/store/tax/queries/periods';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { IndexColumn, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Tabs } from '@/ui/Tabs';
import { inPrinter } from '@/workers/client';
import { useOpenBook } from '../shell/BookContext';
import { bookDb, moment, today, useBook } from '../shell/book';
import { PERIOD_WORDS, usePicked } from '../shell/period';
import { routes } from '../shell/routes';
import { saveFile } from '../shell/saveFile';
import { usePeriodSpan } from '../shell/usePeriodSpan';
import { AccountSteps } from './AccountSteps';
import { AuthorityNote } from './AuthorityNote';
import { Behind, behindOf } from './Behind';
import { ClosingSteps } from './ClosingSteps';
import { FileDialog } from './FileDialog';
import { PeriodList } from './PeriodList';
import { ProofNote } from './ProofNote';
import { ReopenDialog } from './ReopenDialog';
import { ReturnBoxes } from './ReturnBoxes';
import { ReturnByCode } from './ReturnByCode';
import { ReturnByForm } from './ReturnByForm';
import { ReturnByJurisdiction } from './ReturnByJurisdiction';
import { useProof } from './useProof';
import { VersionChanges } from './VersionChanges';

type ReturnView = 'closing' | 'form' | 'code' | 'jurisdiction' | 'document';

const CLOSING = { tab: 'closing', words: 'Closing' } as const;

const VIEWS = [
  { tab: 'form', words: 'By box' },
  { tab: 'code', words: 'By tax code' },
  { tab: 'jurisdiction', words: 'By jurisdiction' },
  { tab: 'document', words: 'By document' },
] as const satisfies readonly { readonly tab: ReturnView; readonly words: string }[];

/** The return of the picked period, its figures opening their documents, and its proof. */
export function TaxScreen() {
  const { registration, currency, accounts, business } = useOpenBook();
  const span = usePeriodSpan();
  const { pick } = usePicked();
  const [opened, setOpened] = useState('');
  const [filing, setFiling] = useState(false);
  const [reopening, setReopening] = useState(false);
  const found = useBook(
    (db) => periodReturn(db, registration, span.start),
    [registration.id, span.start],
    [registration],
  );
  const boxes = useBook(
    (db) => recordOf(db, 'returnBoxes', periodIdOf(registration.id, span.start)),
    [registration.id, span.start],
  );
  const asked = useSearchParams().get('view');
  const [view, setView] = useState<ReturnView>(asked === 'closing' ? 'closing' : 'form');
  // Asked for from here, too.
  useEffect(() => {
    if (asked === 'closing') setView('closing');
  }, [asked]);
  const pickView = (picked: ReturnView) => {
    setView(picked);
    setOpened('');
  };
  const proof = useProof(registration.id, span.start, found);
  const { start } = span;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another period closes the detail
  useEffect(() => setOpened(''), [start]);

  const period = found?.period ?? null;
  const figures = found?.figures;
  const filed = period?.filed ?? null;
  const form = formOf(registration);
  const views = [...(filed === null ? [CLOSING] : []), ...(form === null ? VIEWS.slice(1) : VIEWS)];
  const usual = form === null ? 'code' : 'form';
  const shown = views.some((one) => one.tab === view) ? view : usual;
  const behind = behindOf(form, figures?.rows ?? [], opened);
  const typed = filed?.typed ?? boxes?.typed ?? [];
  const late = (figures?.rows ?? []).reduce((sum, { lateEntries }) => sum + lateEntries, 0);
  const faults = filed === null && figures !== undefined && form !== null ? formFaults(form, figures.rows) : [];
  const next = nextToFile(registration);
  const name = spanName(span);
  const waits =
    span.start !== next.start
      ? `${spanName(next)} is filed first.`
      : span.end >= today()
        ? `It ends on ${writeDate(span.end)} and can be filed from the day after.`
        : '';
  const print = async (shownFigures: TaxReturn) => {
    try {
      const entries = await entriesBehindAll(bookDb(), shownFigures.rows);
      const stated = filed?.form ?? filledForm(registration, shownFigures, typed)?.stated ?? null;
      const report = returnReport({
        ...{ from: span.start, until: span.end, registration, home: currency },
        ...{ figures: shownFigures, stated, typed, entries },
      });
      const bytes = await inPrinter((face) => face.report(report, business.name, moment().now));
      saveFile(`return-${registration.id}-${span.start}.pdf`, bytes, 'application/pdf');
    } catch (error) {
      toast.error(`It could not be printed: ${(error as Error).message}`);
    }
  };
  const state = useBook(
    (db) => periodState(db, registration, span, today()),
    [registration.id, span.start],
    [registration],
  );
  return (
    <>
      <IndexColumn title="Periods">
        <PeriodList picked={span.start} onPick={pick} />
      </IndexColumn>
      <Sheet label={`Return ${name}`}>
        <SheetTitle
          aside={
            filed === null ? (
              state !== undefined && (
                <>
                  <Mark kind={state} /> {PERIOD_WORDS[state]}
                </>
              )
            ) : (
              <>
                <Mark kind="filed" /> filed {writeDate(dayOf(filed.at))} by {filed.operator}
              </>
            )
          }
        >
          Return {name}
        </SheetTitle>
        <p className="mb-3 text-soft">
          {registration.authority}, number {registration.number}, {writeDate(span.start)} to {writeDate(span.end)}
        </p>
        {figures !== undefined && (
          <>
            <Tabs label="Views of the return" tabs={views} shown={shown} onPick={pickView} />
            {shown === 'closing' && (
              <ClosingSteps span={span} proof={proof} unplaced={[...new Set(faults.map(({ codeName }) => codeName))]} />
            )}
            {shown === 'form' && form !== null && (
              <ReturnByForm
                span={span}
                figures={figures}
                filed={filed}
                typed={typed}
                opened={opened}
                onOpen={setOpened}
              />
            )}
            {late > 0 && shown !== 'closing' && (
              <p className="mb-2 text-ochre">
                △ {late} late: {late === 1 ? 'its own period was' : 'their own periods were'} filed before. By document
                says which.
              </p>
            )}
            {figures.rows.length === 0 && shown !== 'closing' && (
              <p className="mb-2 text-soft">No document has its tax point in this period.</p>
            )}
            {figures.rows.length > 0 && shown === 'code' && (
              <ReturnByCode name={name} figures={figures} opened={opened} onOpen={setOpened} />
            )}
            {figures.rows.length > 0 && shown === 'jurisdiction' && (
              <ReturnByJurisdiction figures={figures} registration={registration} />
            )}
            {figures.rows.length > 0 && shown === 'document' && (
              <Behind rows={figures.rows} title="All of the return" />
            )}
          </>
        )}
        {figures !== undefined && shown === 'code' && form === null && (
          <ReturnBoxes figures={figures} registration={registration} opened={opened} onOpen={setOpened} />
        )}
        {behind !== null && <Behind {...behind} onClose={() => setOpened('')} />}
        {figures !== undefined && <VersionChanges span={span} figures={figures} filed={filed} typed={typed} />}
        {proof.state === 'done' && shown !== 'closing' && (
          <AccountSteps
            account={outputAccountOf(registration, accounts)}
            bridge={proof.proof.account}
            currency={currency}
          />
        )}
        <div className="mt-auto flex items-center gap-3 pt-6">
          {filed === null && (
            <Button weight="main" onClick={() => setFiling(true)} disabled={waits !== '' || proof.state !== 'done'}>
              File the {name} return
            </Button>
          )}
          {filed === null && waits !== '' && <span className="text-soft">{waits}</span>}
          {figures !== undefined && (
            <Button weight="quiet" onClick={() => void print(figures)}>
              Save PDF
            </Button>
          )}
          {filed !== null && (
            <Link href={routes.entry(filed.entryId)} className="underline underline-offset-4">
              Tax settlement journal
            </Link>
          )}
          {filed !== null && registration.filedUntil === span.end && (
            <Button weight="quiet" onClick={() => setReopening(true)}>
              Reopen…
            </Button>
          )}
          {filed !== null && filed.note !== '' && <span className="text-soft">Differences accepted: {filed.note}</span>}
        </div>
      </Sheet>
      <Margin>
        <Note title={`Reconciliation — ${name}`}>
          <ProofNote proof={proof} currency={currency} />
        </Note>
        <AuthorityNote span={span} />
      </Margin>
      {reopening && <ReopenDialog span={span} onClose={() => setReopening(false)} />}
      {filing && proof.state === 'done' && figures !== undefined && (
        <FileDialog
          span={span}
          tax={figures.tax}
          asksWhy={!proof.proof.holds || faults.length > 0}
          onClose={() => setFiling(false)}
        />
      )}
    </>
  );
}

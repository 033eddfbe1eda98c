'use client';

import { useEffect, useState } from 'react';
import { dayOf, writeDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import type { Minor } from '@/core/kernel/money';
import { showNumber } from '@/core/kernel/show';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { nextToFile, spanName } from '@/core/returns/calendar';
import { rowKey, type TaxBalance } from '@/core/returns/return';
import { periodReturn, periodState } from '@/store/tax/queries/periods';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Empty, IndexColumn, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { PERIOD_WORDS, usePicked } from '../shell/period';
import { routes } from '../shell/routes';
import { usePeriodSpan } from '../shell/usePeriodSpan';
import { AccountSteps } from './AccountSteps';
import { AuthorityNote } from './AuthorityNote';
import { ALL, Behind, behindOf } from './Behind';
import { FileDialog } from './FileDialog';
import { PeriodList } from './PeriodList';
import { ProofNote } from './ProofNote';
import { ReopenDialog } from './ReopenDialog';
import { ReturnSums } from './ReturnSums';
import { useProof } from './useProof';

/** The return of the picked period, its figures opening their documents, and its proof. */
export function TaxScreen() {
  const { registration, currency, accounts } = useOpenBook();
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
  const proof = useProof(registration.id, span.start, found);
  const { start } = span;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another period closes the detail
  useEffect(() => setOpened(''), [start]);

  const period = found?.period ?? null;
  const figures = found?.figures;
  const filed = period?.filed ?? null;
  const several = new Set(figures?.rows.map((r) => r.jurisdictionId)).size > 1;
  const behind = behindOf(figures?.rows ?? [], opened);
  const next = nextToFile(registration);
  const name = spanName(span);
  const waits =
    span.start !== next.start
      ? `${spanName(next)} is filed first.`
      : span.end >= today()
        ? `It ends on ${writeDate(span.end)} and can be filed from the day after.`
        : '';
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
        {figures !== undefined && figures.rows.length === 0 && (
          <Empty>No document has its tax point in this period.</Empty>
        )}
        {figures !== undefined && figures.rows.length > 0 && (
          <Ruled
            caption={`Return ${name} by tax code`}
            rows={figures.rows}
            keyOf={rowKey}
            columns={[
              {
                head: 'Tax code',
                cell: (r) => (
                  <>
                    {r.codeName} <span className="text-soft text-xs">{r.category}</span>
                    {r.kind === 'exempt' && <span className="text-soft text-sm"> exempt</span>}
                  </>
                ),
              },
              ...(several
                ? [{ head: 'Jurisdiction', width: '120px', cell: (r: TaxBalance) => r.jurisdictionName } as const]
                : []),
              { head: 'Rate', align: 'right', width: '64px', cell: (r) => `${showNumber(decimal(r.percent))} %` },
              {
                head: 'Entries',
                align: 'right',
                width: '72px',
                cell: (r) => (
                  <>
                    {r.lateEntries > 0 && <span className="text-soft text-sm">{r.lateEntries} late · </span>}
                    {r.entries}
                  </>
                ),
              },
              {
                head: 'Taxable amount',
                align: 'right',
                width: '104px',
                cell: (r) => (
                  <OpenFigure
                    id={rowKey(r)}
                    label={`Taxable amount of ${r.codeName}`}
                    amount={r.base}
                    opened={opened}
                    onOpen={setOpened}
                  />
                ),
              },
              {
                head: 'Tax',
                align: 'right',
                width: '96px',
                cell: (r) => (
                  <OpenFigure
                    id={rowKey(r)}
                    label={`Tax of ${r.codeName}`}
                    amount={r.tax}
                    opened={opened}
                    onOpen={setOpened}
                  />
                ),
              },
            ]}
            sums={[
              'Output tax',
              ...(several ? [''] : []),
              '',
              '',
              <OpenFigure
                key="base"
                id={ALL}
                label="Total taxable amount"
                amount={figures.base}
                opened={opened}
                onOpen={setOpened}
              />,
              <OpenFigure
                key="tax"
                id={ALL}
                label="Total tax"
                amount={figures.tax}
                opened={opened}
                onOpen={setOpened}
              />,
            ]}
          />
        )}
        {figures !== undefined && (
          <ReturnSums figures={figures} registration={registration} opened={opened} onOpen={setOpened} />
        )}
        {behind !== null && <Behind {...behind} onClose={() => setOpened('')} />}
        {proof.state === 'done' && (
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
        <FileDialog span={span} tax={figures.tax} proof={proof.proof} onClose={() => setFiling(false)} />
      )}
    </>
  );
}

interface OpenFigureProps {
  readonly id: string;
  readonly label: string;
  readonly amount: Minor;
  readonly opened: string;
  readonly onOpen: (id: string) => void;
}

/** A figure that opens what is behind it. */
function OpenFigure({ id, label, amount, opened, onOpen }: OpenFigureProps) {
  const { currency } = useOpenBook();
  return (
    <button
      type="button"
      aria-expanded={id === opened}
      aria-label={`${label}: open the documents`}
      onClick={() => onOpen(id === opened ? '' : id)}
      className="cursor-pointer underline decoration-rule underline-offset-4 hover:decoration-ink"
    >
      <Money amount={amount} currency={currency} />
    </button>
  );
}

'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import { dayOf, writeDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { showNumber } from '@/core/kernel/show';
import { nextToFile, spanName } from '@/core/periods/calendar';
import { rowKey, type TaxBalance } from '@/core/periods/return';
import { entriesBehind, periodReturn } from '@/store/queries/periods';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Empty, IndexColumn, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';
import { usePicked } from '../shell/period';
import { usePeriodSpan } from '../shell/usePeriodSpan';
import { FileDialog } from './FileDialog';
import { PeriodList } from './PeriodList';
import { ProofNote } from './ProofNote';
import { ReturnSums } from './ReturnSums';
import { useProof } from './useProof';

/** The return of the picked period, its figures opening their documents, and its proof. */
export function TaxScreen() {
  const { registration, currency } = useOpenBook();
  const span = usePeriodSpan();
  const { pick } = usePicked();
  const [opened, setOpened] = useState('');
  const [filing, setFiling] = useState(false);
  const found = useBook((db) => periodReturn(db, registration, span.start), [registration, span.start]);
  const proof = useProof(registration.id, span.start, found);
  const { start } = span;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another period closes the detail
  useEffect(() => setOpened(''), [start]);

  const period = found?.period ?? null;
  const figures = found?.figures;
  const filed = period?.filed ?? null;
  const several = new Set(figures?.rows.map((r) => r.jurisdictionId)).size > 1;
  const row = figures?.rows.find((r) => rowKey(r) === opened);
  const next = nextToFile(registration);
  const name = spanName(span);
  return (
    <>
      <IndexColumn title="Periods">
        <PeriodList picked={span.start} onPick={pick} />
      </IndexColumn>
      <Sheet label={`Return ${name}`}>
        <SheetTitle
          aside={
            filed === null ? (
              <>
                <Mark kind="open" /> open
              </>
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
                head: 'Base',
                align: 'right',
                width: '104px',
                cell: (r) => <OpenFigure row={r} figure="base" opened={opened} onOpen={setOpened} />,
              },
              {
                head: 'Tax',
                align: 'right',
                width: '96px',
                cell: (r) => <OpenFigure row={r} figure="tax" opened={opened} onOpen={setOpened} />,
              },
            ]}
            sums={[
              'Output tax',
              ...(several ? [''] : []),
              '',
              '',
              <Money key="base" amount={figures.base} currency={currency} />,
              <Money key="tax" amount={figures.tax} currency={currency} />,
            ]}
          />
        )}
        {figures !== undefined && <ReturnSums figures={figures} registration={registration} />}
        {row !== undefined && <Behind row={row} onClose={() => setOpened('')} />}
        <div className="mt-auto flex items-center gap-3 pt-6">
          {filed === null && (
            <Button
              weight="main"
              onClick={() => setFiling(true)}
              disabled={span.start !== next.start || proof.state !== 'done'}
            >
              File the {name} return
            </Button>
          )}
          {filed === null && span.start !== next.start && (
            <span className="text-soft">{spanName(next)} is filed first.</span>
          )}
          {filed !== null && (
            <Link href={`/ledger?entry=${filed.entryId}`} className="underline underline-offset-4">
              Entry of the filing
            </Link>
          )}
          {filed !== null && filed.note !== '' && <span className="text-soft">Differences accepted: {filed.note}</span>}
        </div>
      </Sheet>
      <Margin>
        <Note title={`Proof — ${name}`}>
          <ProofNote proof={proof} currency={currency} />
        </Note>
      </Margin>
      {filing && proof.state === 'done' && figures !== undefined && (
        <FileDialog span={span} tax={figures.tax} proof={proof.proof} onClose={() => setFiling(false)} />
      )}
    </>
  );
}

interface OpenFigureProps {
  readonly row: TaxBalance;
  readonly figure: 'base' | 'tax';
  readonly opened: string;
  readonly onOpen: (id: string) => void;
}

/** A figure that opens what is behind it. */
function OpenFigure({ row, figure, opened, onOpen }: OpenFigureProps) {
  const { currency } = useOpenBook();
  const id = rowKey(row);
  return (
    <button
      type="button"
      aria-expanded={id === opened}
      aria-label={`${figure === 'base' ? 'Base' : 'Tax'} of ${row.codeName}: open the documents`}
      onClick={() => onOpen(id === opened ? '' : id)}
      className="cursor-pointer underline decoration-rule underline-offset-4 hover:decoration-ink"
    >
      <Money amount={row[figure]} currency={currency} />
    </button>
  );
}

/** The documents behind one row of the return. */
function Behind({ row, onClose }: { readonly row: TaxBalance; readonly onClose: () => void }) {
  const { currency } = useOpenBook();
  const entries = useBook((db) => entriesBehind(db, row), [rowKey(row), row.periodId]) ?? [];
  return (
    <section aria-label={`Documents behind ${row.codeName}`} className="mt-6">
      <div className="mb-2 flex items-baseline justify-between">
        <h2 className="font-semibold font-serif">
          {row.codeName}, {showNumber(decimal(row.percent))} %: documents
        </h2>
        <Button weight="quiet" onClick={onClose}>
          Fold
        </Button>
      </div>
      <Ruled
        caption={`Documents behind ${row.codeName}`}
        rows={entries}
        keyOf={(entry) => entry.id}
        columns={[
          {
            head: 'Document',
            cell: (e) => (
              <Link href={`/sales/doc/${e.documentId}`} className="underline decoration-rule underline-offset-4">
                {e.documentNumber}
              </Link>
            ),
          },
          { head: 'Customer', cell: (e) => e.customerName },
          {
            head: 'Tax point',
            cell: (e) => (
              <>
                {writeDate(e.taxPoint)} {e.late && <span className="text-ochre text-sm">△ late</span>}
              </>
            ),
          },
          { head: 'Base', align: 'right', cell: (e) => <Money amount={e.base} currency={currency} /> },
          { head: 'Tax', align: 'right', cell: (e) => <Money amount={e.tax} currency={currency} /> },
        ]}
        sums={[
          '',
          '',
          '',
          <Money key="b" amount={row.base} currency={currency} />,
          <Money key="t" amount={row.tax} currency={currency} />,
        ]}
      />
    </section>
  );
}

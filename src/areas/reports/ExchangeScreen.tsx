'use client';

import { isIsoDate, writeDate } from '@/core/kernel/date';
import { exchangeReport } from '@/core/reports/exchangeDifferences';
import { exchangeMaterial } from '@/store/ledger/queries/exchangeDifferences';
import { Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { typedDay } from '../shared/typedDay';
import { today, useBook } from '../shell/book';
import { ReportTables } from './ReportTables';
import { useReportSpan } from './useReportSpan';

/** Differences of exchange between two days: realised by settlements, and unrealised of what is still open. */
export function ExchangeScreen() {
  const { typed, setTyped } = useReportSpan(() => ({ from: `${today().slice(0, 4)}-01-01`, until: today() }));
  const [from, until] = [typedDay(typed.from), typedDay(typed.until)];
  const right = isIsoDate(from) && isIsoDate(until) && from <= until;
  const report = useBook(
    async (db) =>
      isIsoDate(from) && isIsoDate(until) && from <= until
        ? exchangeReport(await exchangeMaterial(db, from, until))
        : null,
    [from, until],
  );
  return (
    <Sheet label="Exchange differences">
      <SheetTitle aside={right ? `${writeDate(from)} to ${writeDate(until)}` : ''}>Exchange differences</SheetTitle>
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
          error={right ? undefined : 'Enter days in their order.'}
          onChange={(event) => setTyped({ ...typed, until: event.target.value })}
        />
      </div>
      {report && <ReportTables report={report} />}
    </Sheet>
  );
}

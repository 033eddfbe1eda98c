'use client';

import { toast } from 'sonner';
import { isIsoDate } from '@/core/kernel/date';
import { daysOf } from '@/print/reportPdf';
import { type ReportKind, reportKind } from '@/store/reports/catalogue';
import { Button } from '@/ui/Button';
import { ChoiceField } from '@/ui/Field';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { inPrinter } from '@/workers/client';
import { DateField } from '../shared/DateField';
import { typedDay } from '../shared/typedDay';
import { useOpenBook } from '../shell/BookContext';
import { moment, today, useBook } from '../shell/book';
import { saveFile } from '../shell/saveFile';
import { ReportTables } from './ReportTables';
import { useReport } from './useReport';
import { useReportSpan } from './useReportSpan';

/** A report between two days, or as at one: made in a worker, printed, and saved. */
export function ReportScreen({ name }: { readonly name: string }) {
  const kind = reportKind(name);
  return kind === null ? <Empty>There is no such report.</Empty> : <Known kind={kind} />;
}

function Known({ kind: { name, title, days, choice } }: { readonly kind: ReportKind }) {
  const { business } = useOpenBook();
  const asAt = days === 'day';
  const { typed, setTyped } = useReportSpan(() => ({ from: `${today().slice(0, 4)}-01-01`, until: today() }));
  const options = useBook(async (db) => choice?.options(db) ?? [], [name]) ?? [];
  const until = typedDay(typed.until);
  const from = asAt ? until : typedDay(typed.from);
  const span = isIsoDate(from) && isIsoDate(until) && from <= until ? { from, until } : null;
  const { value: report, running, fault, stop, again } = useReport(name, span, typed.chosen);
  const print = async () => {
    if (report === null) return;
    try {
      const bytes = await inPrinter((face) => face.report(report, business.name, moment().now));
      saveFile(`${name}-${report.until}.pdf`, bytes, 'application/pdf');
    } catch (error) {
      toast.error(`It could not be printed: ${(error as Error).message}`);
    }
  };
  return (
    <Sheet label={title}>
      <SheetTitle aside={report === null ? '' : daysOf(report)}>{title}</SheetTitle>
      <div className="flex items-start gap-x-4">
        {!asAt && (
          <DateField
            label="From"
            className="w-[160px]"
            value={typed.from}
            onChange={(event) => setTyped({ ...typed, from: event.target.value })}
          />
        )}
        <DateField
          label={asAt ? 'As at' : 'Until'}
          className="w-[160px]"
          value={typed.until}
          error={span !== null ? undefined : 'Enter days in their order.'}
          onChange={(event) => setTyped({ ...typed, until: event.target.value })}
        />
        {choice !== undefined && (
          <ChoiceField
            label={choice.label}
            className="w-[200px]"
            value={typed.chosen}
            options={options.map(({ value, words }) => [value, words])}
            onChange={(event) => setTyped({ ...typed, chosen: event.target.value })}
          />
        )}
        <div className="pt-[18px]">
          <Button disabled={report === null} onClick={() => void print()}>
            Save PDF
          </Button>
        </div>
      </div>
      {running && report === null && (
        <p role="status">
          Adding it up…{' '}
          <Button weight="quiet" onClick={stop}>
            Stop
          </Button>
        </p>
      )}
      {fault !== '' && (
        <p role="status">
          {fault}{' '}
          <Button weight="quiet" onClick={again}>
            Make it again
          </Button>
        </p>
      )}
      {report !== null && <ReportTables report={report} />}
    </Sheet>
  );
}

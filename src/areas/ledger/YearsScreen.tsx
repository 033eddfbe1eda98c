'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { dayOf, monthName, writeDate } from '@/core/kernel/date';
import { type FiscalYear, type YearClosing, yearName } from '@/core/ledger/fiscalYear';
import { closeFiscalYear, keepLedgerDays, reopenFiscalYear } from '@/store/ledger/actions/years';
import { fiscalYears, type Years } from '@/store/ledger/queries/years';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { FormFoot, SlipFoot } from '../shared/FormFoot';
import { WouldPost } from '../shared/settlement/WouldPost';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { WordDayDialog } from '../shared/WordDayDialog';
import { act, today, useBook } from '../shell/book';
import { routes } from '../shell/routes';

const LINK = 'underline decoration-rule underline-offset-4';
const MONTHS = Array.from({ length: 12 }, (_, i) => [String(i + 1), monthName(i + 1)] as const);

/** Fiscal years, closed and open, and the day up to which nothing is posted any more. */
export function YearsScreen() {
  const years = useBook(fiscalYears);
  const [closing, setClosing] = useState<FiscalYear | null>(null);
  const [reopening, setReopening] = useState<YearClosing | null>(null);
  if (years === undefined) return <Sheet label="Years and lock">{null}</Sheet>;
  const { next, closings } = years;
  const newest = closings.find(({ isClosed }) => isClosed);
  return (
    <Sheet label="Years and lock">
      <SheetTitle>Years and lock</SheetTitle>
      <DaysForm key={`${years.lockedUntil}|${years.yearStart}`} years={years} />
      <h2 className="mt-4 mb-1 font-semibold font-serif">Fiscal years</h2>
      {next === null && <Empty>Nothing is posted yet: the first entry begins the first year.</Empty>}
      <ul>
        {next !== null && (
          <li className="flex items-baseline gap-3 border-rule border-b py-1.5">
            <Mark kind="open" />
            <span className="flex-1">
              {yearName(next)}, {writeDate(next.start)} to {writeDate(next.end)}
            </span>
            <Link href={`${routes.report('income-statement')}?from=${next.start}&until=${next.end}`} className={LINK}>
              Income statement
            </Link>
            {next.end < today() ? (
              <Button onClick={() => setClosing(next)}>Close {yearName(next)}…</Button>
            ) : (
              <span className="text-soft">ends {writeDate(next.end)}</span>
            )}
          </li>
        )}
        {closings.map((one) => (
          <li key={one.id} className="flex items-baseline gap-3 border-rule border-b py-1.5">
            <Mark kind={one.isClosed ? 'filed' : 'open'} />
            <span className="flex-1">
              {yearName(one)},{' '}
              {one.isClosed
                ? `closed ${writeDate(dayOf(one.at))} by ${one.operator}`
                : `opened again: ${one.reopened.at(-1)?.reason ?? ''}`}
            </span>
            {one.isClosed && (
              <Link href={routes.entry(one.entryId)} className={LINK}>
                Journal
              </Link>
            )}
            {one === newest && (
              <Button weight="quiet" onClick={() => setReopening(one)}>
                Reopen…<span className="sr-only"> {yearName(one)}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
      {closing !== null && <CloseDialog year={closing} onClose={() => setClosing(null)} />}
      {reopening !== null && (
        <WordDayDialog
          title={`Reopen ${yearName(reopening)}`}
          description="The entry of its closing is mirrored on the same day, and its days can be posted to again."
          words="Why it is opened again"
          action={`Reopen ${yearName(reopening)}`}
          onDo={async (reason) => {
            const result = await act(reopenFiscalYear, { id: reopening.id, reason });
            if (result.ok) setReopening(null);
            return result;
          }}
          onClose={() => setReopening(null)}
        />
      )}
    </Sheet>
  );
}

/** The day of the lock and the first month of the year. */
function DaysForm({ years: { lockedUntil, yearStart } }: { readonly years: Years }) {
  const { submit, field, general, busy } = useActionForm<{ lockedUntil: string; yearStart: string }, unknown>({
    initial: { lockedUntil, yearStart: String(yearStart) },
    run: (typed) =>
      act(keepLedgerDays, {
        lockedUntil: typed.lockedUntil.trim() === '' ? '' : typedDay(typed.lockedUntil),
        yearStart: Number(typed.yearStart),
      }),
    onDone: () => void toast('The days are saved'),
  });
  return (
    <form onSubmit={submit} noValidate>
      <div className="flex items-start gap-4">
        <DateField
          label="Locked until"
          className="w-[190px]"
          hint="Nothing is posted up to this day; empty for no lock"
          {...field('lockedUntil')}
        />
        <ChoiceField label="Fiscal year begins in" className="w-[190px]" options={MONTHS} {...field('yearStart')} />
      </div>
      <FormFoot label="Save" busy={busy} general={general} />
    </form>
  );
}

function CloseDialog({ year, onClose }: { readonly year: FiscalYear; readonly onClose: () => void }) {
  const name = yearName(year);
  const { submit, general, busy } = useActionForm({
    initial: {},
    run: () => act(closeFiscalYear, { end: year.end }),
    onDone: () => {
      toast(`${name} is closed`);
      onClose();
    },
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Close ${name}`}
      description={`Income and expenses go to retained earnings on ${writeDate(year.end)}, and nothing is posted up to that day any more. The newest closed year can be opened again with a reason.`}
    >
      <form onSubmit={submit}>
        <WouldPost action={closeFiscalYear} input={{ end: year.end }} />
        <SlipFoot label={`Close ${name}`} busy={busy} general={general} leave="Not yet" onClose={onClose} />
      </form>
    </Dialog>
  );
}

import type { IsoDate } from '@/core/kernel/date';
import { outputAccountOf } from '@/core/ledger/posting';
import { nextToFile, periodIdOf, type Span, spansUntil } from '@/core/periods/calendar';
import { returnOf, type TaxBalance, type TaxPeriod, type TaxReturn } from '@/core/periods/return';
import type { TaxEntry } from '@/core/periods/taxEntry';
import type { Registration } from '@/core/tax/registration';
import type { BookDb } from '../schema';
import { manualTaxLines } from './proofMaterial';

export type PeriodState = 'open' | 'closing' | 'filed' | 'trouble';

/** One cell of the period ribbon. */
export interface RibbonCell {
  readonly span: Span;
  readonly state: PeriodState;
  readonly figures: TaxReturn;
}

/** A period's row, if it has one, and its return from the kept balances (the snapshot once filed). */
export async function periodReturn(
  db: BookDb,
  registration: Registration,
  start: IsoDate,
): Promise<{ period: TaxPeriod | null; figures: TaxReturn }> {
  const id = periodIdOf(registration.id, start);
  const [period, balances] = await Promise.all([
    db.taxPeriods.get(id),
    db.taxRows.where('periodId').equals(id).toArray(),
  ]);
  return { period: period ?? null, figures: period?.filed?.figures ?? returnOf(balances) };
}

/**
 * The last periods of a registration up to today, oldest first. A period that ended and is not filed
 * is closing; one with manual journals in the tax account is in trouble.
 */
export async function ribbon(
  db: BookDb,
  registration: Registration,
  today: IsoDate,
  count: number,
): Promise<RibbonCell[]> {
  const spans = spansUntil(registration, today).slice(-count);
  const account = outputAccountOf(registration, await db.accounts.toArray());
  return Promise.all(
    spans.map(async (span): Promise<RibbonCell> => {
      const [{ period, figures }, manual] = await Promise.all([
        periodReturn(db, registration, span.start),
        manualTaxLines(db, account, span),
      ]);
      const state = period?.filed ? 'filed' : manual.length > 0 ? 'trouble' : span.end < today ? 'closing' : 'open';
      return { span, state, figures };
    }),
  );
}

/** The next return of each registration whose period has ended, with its figures. */
export async function returnsToFile(
  db: BookDb,
  registrations: readonly Registration[],
  today: IsoDate,
): Promise<{ readonly registration: Registration; readonly span: Span; readonly figures: TaxReturn }[]> {
  const due = registrations.map((registration) => ({ registration, span: nextToFile(registration) }));
  return Promise.all(
    due
      .filter(({ span }) => span.end < today)
      .map(async ({ registration, span }) => ({
        registration,
        span,
        figures: (await periodReturn(db, registration, span.start)).figures,
      })),
  );
}

/** The tax entries behind one row of a return, by document number. */
export function entriesBehind(
  db: BookDb,
  row: Pick<TaxBalance, 'periodId' | 'code' | 'percent' | 'jurisdictionId' | 'taxId' | 'kind'>,
): Promise<TaxEntry[]> {
  const from = [row.periodId, row.code, row.percent, row.jurisdictionId, row.taxId, row.kind];
  return db.taxEntries
    .where('[periodId+code+percent+jurisdictionId+taxId+kind+documentNumber]')
    .between([...from, ''], [...from, '\uffff'])
    .toArray();
}

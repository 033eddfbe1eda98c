import type { IsoDate } from '@/core/kernel/date';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { uncleared } from '@/core/returns/accountBridge';
import { isAfterEnd, nextToFile, periodIdOf, type Span, spansUntil } from '@/core/returns/calendar';
import { returnOf, type TaxBalance, type TaxPeriod, type TaxReturn } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { Registration } from '@/core/tax/registration';
import type { BookDb } from '../../schema';
import { manualTaxLines } from './proofMaterial';

/** `differing`: manual journals on its tax account are not cleared. */
export type PeriodState = 'open' | 'closing' | 'filed' | 'differing';

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

/** Where a period stands on a day: one that ended and is not filed is closing. */
async function stateOn(db: BookDb, account: string, span: Span, filed: boolean, today: IsoDate): Promise<PeriodState> {
  if (filed) return 'filed';
  const manual = uncleared(await manualTaxLines(db, account, span.end));
  return manual.length > 0 ? 'differing' : span.end < today ? 'closing' : 'open';
}

/** Where one period of a registration stands on a day. */
export async function periodState(
  db: BookDb,
  registration: Registration,
  span: Span,
  today: IsoDate,
): Promise<PeriodState> {
  const period = await db.taxPeriods.get(periodIdOf(registration.id, span.start));
  const account = outputAccountOf(registration, await db.accounts.toArray());
  return stateOn(db, account, span, Boolean(period?.filed), today);
}

/** The last periods of a registration up to today, oldest first. */
export async function ribbon(
  db: BookDb,
  registration: Registration,
  today: IsoDate,
  count: number,
): Promise<RibbonCell[]> {
  const next = nextToFile(registration);
  const behind = isAfterEnd(registration, next) && (await hasEntries(db, registration, next));
  const spans = [...spansUntil(registration, today), ...(behind ? [next] : [])].slice(-count);
  const account = outputAccountOf(registration, await db.accounts.toArray());
  return Promise.all(
    spans.map(async (span): Promise<RibbonCell> => {
      const { period, figures } = await periodReturn(db, registration, span.start);
      return { span, figures, state: await stateOn(db, account, span, Boolean(period?.filed), today) };
    }),
  );
}

/** Whether anything is reported in a period. */
async function hasEntries(db: BookDb, registration: Registration, { start }: Span): Promise<boolean> {
  return (await db.taxRows.where('periodId').equals(periodIdOf(registration.id, start)).count()) > 0;
}

/** The next return of each registration whose period has ended, with its figures. */
export async function returnsToFile(
  db: BookDb,
  registrations: readonly Registration[],
  today: IsoDate,
): Promise<{ readonly registration: Registration; readonly span: Span; readonly figures: TaxReturn }[]> {
  const due = await Promise.all(
    registrations.map(async (registration) => {
      const span = nextToFile(registration);
      const asked = !isAfterEnd(registration, span) || (await hasEntries(db, registration, span));
      return asked && span.end < today ? [{ registration, span }] : [];
    }),
  );
  return Promise.all(
    due.flat().map(async ({ registration, span }) => ({
      registration,
      span,
      figures: (await periodReturn(db, registration, span.start)).figures,
    })),
  );
}

/** What says which entries a row of a return sums. */
type RowOfReturn = Pick<TaxBalance, 'periodId' | 'code' | 'percent' | 'jurisdictionId' | 'taxId' | 'kind'>;

/** From a document's number on. */
function behind(db: BookDb, row: RowOfReturn, from = '') {
  const key = [row.periodId, row.code, row.percent, row.jurisdictionId, row.taxId, row.kind];
  return db.taxEntries
    .where('[periodId+code+percent+jurisdictionId+taxId+kind+documentNumber]')
    .between([...key, from], [...key, '\uffff']);
}

/** The tax entries behind one row of a return, by document number. */
export function entriesBehind(db: BookDb, row: RowOfReturn): Promise<TaxEntry[]> {
  return behind(db, row).toArray();
}

const byNumber = (a: TaxEntry, b: TaxEntry): number =>
  a.documentNumber < b.documentNumber ? -1 : a.documentNumber > b.documentNumber ? 1 : 0;

/** The tax entries behind several rows, by document number. */
export async function entriesBehindAll(db: BookDb, rows: readonly RowOfReturn[]): Promise<TaxEntry[]> {
  return (await Promise.all(rows.map((row) => entriesBehind(db, row)))).flat().sort(byNumber);
}

/** The first of the tax entries behind several rows, by document number: little more is read than is given. */
export async function firstBehind(db: BookDb, rows: readonly RowOfReturn[], limit: number): Promise<TaxEntry[]> {
  const sources = rows.map((row) => ({ row, read: [] as TaxEntry[], more: true }));
  for (;;) {
    const found = sources.flatMap(({ read }) => read).sort(byNumber);
    const last = found[limit - 1];
    // A row whose entries end before the last that is wanted may hold one that comes before it.
    const short = sources.filter(({ read, more }) => {
      const end = read.at(-1);
      return more && (last === undefined || end === undefined || byNumber(end, last) < 0);
    });
    if (short.length === 0) return found.slice(0, limit);
    // None that is not read yet comes before these; as many of the others are read as may be wanted.
    const certain = found.filter((one) =>
      short.every(({ read }) => {
        const end = read.at(-1);
        return end !== undefined && byNumber(one, end) <= 0;
      }),
    ).length;
    const step = Math.ceil((limit - certain) / short.length) + 1;
    await Promise.all(
      short.map(async (source) => {
        // A document may have several entries in one row: its own that were read come again.
        const end = source.read.at(-1)?.documentNumber;
        const known = source.read.filter(({ documentNumber }) => documentNumber === end).length;
        const next = await behind(db, source.row, end)
          .limit(known + step)
          .toArray();
        source.read.push(...next.slice(known));
        source.more = next.length === known + step;
      }),
    );
  }
}

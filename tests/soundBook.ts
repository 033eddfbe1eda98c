import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import type { ReportCell, ReportRow } from '@/core/reports/report';
import { prove } from '@/core/returns/proof';
import { archiveBook } from '@/store/archive';
import { present } from '@/store/load';
import { openArchive } from '@/store/openArchive';
import { reportKind } from '@/store/reports/catalogue';
import { BookDb } from '@/store/schema';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';
import { proveBook } from '@/store/tax/queries/proveBook';

/** Whatever was done, the book opens from its own file, its periods prove, and so does the whole of it. */
export async function expectSoundBook(db: BookDb): Promise<void> {
  const other = new BookDb(`opened-${Math.random()}`);
  const opened = await openArchive(other, await archiveBook(db, '2026-12-31T12:00:00.000Z'));
  expect(opened.ok ? [] : opened.refusals).toEqual([]);
  await other.delete();
  for (const { registrationId, start } of await db.taxPeriods.toArray()) {
    const registration = present(await db.registrations.get(registrationId), 'registration');
    expect(prove(await proofMaterial(db, registration, start))).toMatchObject({ holds: true });
  }
  expect((await proveBook(db, () => undefined)).filter(({ holds }) => !holds)).toEqual([]);
  await expectReportsAgree(db);
}

const amountOf = (cell: ReportCell | undefined): Minor =>
  cell === undefined || typeof cell === 'string' ? NOTHING : cell.amount;

/** Balances that are not nothing, by name. */
function balances(rows: readonly ReportRow[], at: number): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const { cells } of rows) {
    const balance = cells[at];
    if (balance === undefined || typeof balance === 'string') continue;
    const name = `${cells[0]} ${balance.currency}`;
    if (balance.amount === NOTHING) found.delete(name);
    else found.set(name, String(balance.amount));
  }
  return found;
}

/**
 * Of whatever days, the statements are equal on both sides, the bridge adds up, sales are told apart to the same sum, and the
 * ledger of customers ends with what is open.
 */
async function expectReportsAgree(db: BookDb): Promise<void> {
  const days = [...new Set((await db.journal.toArray()).map(({ date }) => date))].sort();
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return;
  const middle = days[Math.floor(days.length / 2)] ?? first;
  for (const span of [
    { from: first, until: last },
    { from: middle, until: last },
    { from: first, until: middle },
  ]) {
    const report = (name: string, of?: string) => {
      const kind = reportKind(name);
      if (kind === null) throw new Error(name);
      return kind.make(db, span, of);
    };
    const trial = (await report('trial-balance')).tables[0]?.sums ?? [];
    expect([amountOf(trial[1]), amountOf(trial[2])]).toEqual([NOTHING, NOTHING]);
    expect(amountOf(trial[3])).toBe(amountOf(trial[4]));
    expect((await report('balance-sheet')).notes).toEqual([]);
    expect((await report('income-against-cash')).notes).toEqual([]);
    const net = async (by: string) => amountOf((await report(`sales-by-${by}`)).tables[0]?.sums?.[1]);
    const tax = async (by: string) => amountOf((await report(`sales-by-${by}`)).tables[0]?.sums?.[2]);
    expect(await net('item')).toBe(await net('customer'));
    expect(await net('salesperson')).toBe(await net('customer'));
    expect(await tax('item')).toBe(await tax('customer'));
    const ledger = (await report('customer-ledger')).tables[0]?.rows ?? [];
    const aged = (await report('aged-receivables')).tables.flatMap(({ rows }) => rows);
    expect(balances(ledger, 5)).toEqual(balances(aged, aged[0]?.cells.length ? aged[0].cells.length - 1 : 0));
    const accounts = (await report('general-ledger', 'all')).tables;
    expect(accounts.reduce((sum, { sums }) => plus(sum, amountOf(sums?.[4])), NOTHING)).toBe(NOTHING);
  }
}

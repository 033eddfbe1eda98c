import { type Minor, NOTHING } from '@/core/kernel/money';
import type { ReportCell } from '@/core/reports/report';
import { prove } from '@/core/returns/proof';
import { archiveBook, openArchive } from '@/store/archive';
import { present } from '@/store/load';
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

/** Of whatever days, the statements are equal on both sides, the bridge adds up, and sales are told apart to the same sum. */
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
    const report = (name: string) => {
      const kind = reportKind(name);
      if (kind === null) throw new Error(name);
      return kind.make(db, span);
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
  }
}

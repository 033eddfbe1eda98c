import { addDays, endOfMonth, isoDate } from '@/core/kernel/date';
import { minor, negated } from '@/core/kernel/money';
import { leftOf } from '@/core/returns/taxPayment';
import { revalueOpenItems } from '@/store/ledger/actions/revalue';
import { present } from '@/store/load';
import { perform } from '@/store/perform';
import { payAuthority, undoAuthorityPayment } from '@/store/tax/actions/payTax';
import { reopenReturn } from '@/store/tax/actions/reopenReturn';
import { owedReturns } from '@/store/tax/queries/owed';
import { momentOn } from './book';
import type { Command, Running } from './running';

/* What is done at the end of a period, for random sequences of everything. */

/** Pays a part of a filed return, or takes back a part of what the authority owes. */
export class PayTaxCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
  ) {}
  check = () => true;
  async run(_: unknown, { db, today }: Running) {
    const registration = present(await db.registrations.get('ie-vat'), 'registration');
    const { returns } = await owedReturns(db, registration, await db.accounts.toArray());
    const owed = returns.filter((one) => leftOf(one) !== 0n);
    const one = owed[this.pick % Math.max(1, owed.length)];
    if (one === undefined) return;
    const left = leftOf(one);
    const amount = minor(((left < 0n ? negated(left) : left) * BigInt(this.percent)) / 100n);
    if (amount === 0n) return;
    const input = { registrationId: 'ie-vat', start: one.period.start, date: today, amount };
    const result = await perform(db, payAuthority, input, momentOn(today));
    // Withheld tax may have been set against it, or more than all was asked for.
    if (!result.ok) expect(result.refusals[0]?.code).toBe('over-paid');
  }
  toString = () => `payTax(${this.pick}, ${this.percent} %)`;
}

/** Undoes a payment to the authority. */
export class UndoPaymentCommand implements Command {
  constructor(private readonly pick: number) {}
  check = () => true;
  async run(_: unknown, { db, today }: Running) {
    const standing = (await db.taxPayments.toArray()).filter(({ undone }) => undone === null);
    const one = standing[this.pick % Math.max(1, standing.length)];
    if (one === undefined) return;
    expect((await perform(db, undoAuthorityPayment, { id: one.id, date: today }, momentOn(today))).ok).toBe(true);
  }
  toString = () => `undoPayment(${this.pick})`;
}

/** Opens the newest filed return again. */
export class ReopenCommand implements Command {
  check = () => true;
  async run(_: unknown, { db, today, filed }: Running) {
    const registration = present(await db.registrations.get('ie-vat'), 'registration');
    const newest = (await db.taxPeriods.toArray()).find(({ end }) => end === registration.filedUntil);
    if (newest === undefined) return;
    const input = { registrationId: 'ie-vat', start: newest.start, reason: 'left out' };
    expect((await perform(db, reopenReturn, input, momentOn(today))).ok).toBe(true);
    filed.delete(newest.id);
  }
  toString = () => 'reopen';
}

/** Revalues what is open in dollars at the end of the month before. */
export class RevalueCommand implements Command {
  check = () => true;
  async run(_: unknown, { db, today }: Running) {
    const date = addDays(isoDate(`${today.slice(0, 7)}-01`), -1);
    expect(date).toBe(endOfMonth(date));
    expect((await perform(db, revalueOpenItems, { date }, momentOn(today))).ok).toBe(true);
  }
  toString = () => 'revalue';
}

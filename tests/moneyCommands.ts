import { onePart } from '@/core/decisions/payments/onePart';
import type { SettlingInput } from '@/core/decisions/payments/settleAll';
import type { IssuedDocument } from '@/core/documents/issued';
import { addDays, isoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, total } from '@/core/kernel/money';
import type { Result } from '@/core/kernel/result';
import { roomIn } from '@/core/settlement/withholding';
import { dishonourReceipt } from '@/store/payments/actions/dishonour';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { undoRefund } from '@/store/payments/actions/refund';
import { claimWithheld, enterCertificate } from '@/store/payments/actions/withholding';
import { undoWriteOff, writeOffDebt } from '@/store/payments/actions/writeOff';
import { type Action, perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';
import { momentOn, refusalCodes, wholeBook } from './book';
import { type Command, picked, type Running } from './running';

/* Actions on money for random sequences. What may be refused is named; a refusal changes nothing. */

const acts = (model: { issued: number }) => model.issued > 0;

/** Does an action that may be refused for these reasons; then the book is as it was. */
async function mayDo<I, V>(
  real: Running,
  action: Action<I, V>,
  input: I,
  codes: readonly string[],
): Promise<Result<V>> {
  const before = await wholeBook(real.db);
  const result = await perform(real.db, action, input, momentOn(real.today));
  if (result.ok) return result;
  for (const code of refusalCodes(result)) expect(codes).toContain(code);
  expect(await wholeBook(real.db)).toEqual(before);
  return result;
}

const openDebts = async (db: BookDb): Promise<IssuedDocument[]> =>
  (await db.documents.toArray()).filter((d) => d.kind === 'invoice' && d.open > 0n);

const percentOf = (amount: Minor, percent: number): Minor => minor((amount * BigInt(percent)) / 100n);

/** A receipt of two parts over several invoices, with tax withheld, a discount and a small difference. */
export class ReceiveManyCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
    private readonly withheld: number,
    private readonly discount: number,
    private readonly difference: bigint,
    private readonly charge: bigint,
  ) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const debts = await openDebts(real.db);
    const first = picked(debts, this.pick);
    if (first === undefined) return;
    const own = debts
      .filter((d) => d.customerId === first.customerId && d.content.currency === first.content.currency)
      .slice(0, 3);
    const to = own.map((debt, i): SettlingInput => {
      const kept = this.withheld === 0 ? NOTHING : percentOf(debt.open, this.withheld);
      const money = percentOf(debt.open, this.percent);
      const discount = i > 0 ? NOTHING : percentOf(debt.open, this.discount);
      const rest = debt.open - kept - money - discount;
      const difference =
        rest > 0n && this.difference > 0n ? minor(rest < this.difference ? rest : this.difference) : null;
      return {
        documentId: debt.id,
        number: debt.number,
        money,
        withheld: kept === NOTHING ? [] : [{ typeId: 'W5', amount: kept }],
        discount,
        ...(difference !== null && { difference: { amount: difference, account: '7910' } }),
      };
    });
    const money = total(to.map((one) => one.money));
    const half = minor(money / 2n);
    const charge = minor(this.charge < money - half ? this.charge : 0n);
    await mayDo(
      real,
      recordReceipt,
      {
        customerId: first.customerId,
        date: real.today,
        reference: '',
        currency: first.content.currency,
        parts: [
          { method: 'bank', amount: minor(money - half), charge },
          { method: 'cash', amount: half },
        ],
        to,
        agreed: true,
      },
      // A half, or what is taken of an invoice, may round to nothing; a discount may meet what notes took already; a book may
      // know no tax that is withheld.
      ['invalid', 'over-allocated', 'over-credited', 'number-order', 'already-credited', 'not-found'],
    );
  }
  toString = () =>
    `receiveMany(${this.percent} %, withheld ${this.withheld} %, discount ${this.discount} %, difference ${this.difference})`;
}

/** A cheque that is dated later. */
export class ChequeCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly days: number,
  ) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const debt = picked(await openDebts(real.db), this.pick);
    if (debt === undefined) return;
    const allocations = [{ documentId: debt.id, number: debt.number, amount: debt.open }];
    const head = {
      customerId: debt.customerId,
      date: real.today,
      method: 'cheque' as const,
      reference: '',
      allocations,
    };
    const { parts, ...input } = onePart(head);
    const chequeDate = addDays(isoDate(real.today), this.days);
    await mayDo(real, recordReceipt, { ...input, parts: parts.map((part) => ({ ...part, chequeDate })) }, []);
  }
  toString = () => `cheque(${this.pick}, ${this.days} days later)`;
}

export class DishonourCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly fee: bigint,
  ) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const receipt = picked(await real.db.receipts.toArray(), this.pick);
    if (receipt === undefined) return;
    const input = { receiptId: receipt.id, date: real.today, reason: 'No funds', fee: minor(this.fee) };
    await mayDo(real, dishonourReceipt, input, ['dishonoured', 'used-since', 'invalid']);
  }
  toString = () => `dishonour(${this.pick}, ${this.fee})`;
}

export class WriteOffCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
    private readonly relief: boolean,
  ) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const debt = picked(await openDebts(real.db), this.pick);
    const amount = debt === undefined ? NOTHING : percentOf(debt.open, this.percent);
    if (debt === undefined || amount === NOTHING) return;
    const input = { documentId: debt.id, date: real.today, amount, relief: this.relief, reason: 'Insolvent' };
    await mayDo(real, writeOffDebt, input, ['no-relief']);
  }
  toString = () => `writeOff(${this.pick}, ${this.percent} %${this.relief ? ', relief' : ''})`;
}

/** Takes back a write-off or a refund by its id. */
export class TakeBackCommand implements Command {
  constructor(private readonly pick: number) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const made = (await real.db.allocations.toArray()).filter(
      ({ creditKind, debtKind, undone }) => undone === null && (creditKind === 'write-off' || debtKind === 'refund'),
    );
    const one = picked(made, this.pick);
    if (one === undefined) return;
    if (one.debtKind === 'refund') await mayDo(real, undoRefund, { id: one.debtId, date: real.today }, []);
    else await mayDo(real, undoWriteOff, { id: one.id, date: real.today }, []);
  }
  toString = () => `takeBack(${this.pick})`;
}

/** Money that comes after all for what was written off. */
export class LateMoneyCommand implements Command {
  constructor(private readonly pick: number) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const written = (await real.db.documents.toArray()).filter((d) => d.writtenOff > 0n);
    const debt = picked(written, this.pick);
    if (debt === undefined) return;
    const amount = minor(debt.open + (debt.writtenOff + 1n) / 2n);
    const allocations = [{ documentId: debt.id, number: debt.number, amount }];
    const head = { customerId: debt.customerId, date: real.today, method: 'bank' as const, reference: '', allocations };
    await mayDo(real, recordReceipt, onePart(head), []);
  }
  toString = () => `lateMoney(${this.pick})`;
}

export class CertifyCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
  ) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const rooms = roomIn(await real.db.withheld.toArray(), 'certified');
    const one = picked(rooms, this.pick);
    if (one === undefined) return;
    const { customerId, typeId } = one.withheld;
    const own = rooms.filter(({ withheld: w }) => w.customerId === customerId && w.typeId === typeId);
    const amount = percentOf(total(own.map(({ free }) => free)), this.percent);
    const withheldIds = own.map(({ withheld: { id } }) => id);
    const input = { customerId, typeId, number: `C-${this.pick}`, date: real.today, amount, withheldIds };
    await mayDo(real, enterCertificate, input, ['invalid', 'over-claimed']);
  }
  toString = () => `certify(${this.pick}, ${this.percent} %)`;
}

export class ClaimCommand implements Command {
  constructor(
    private readonly typeId: string,
    private readonly amount: bigint,
    private readonly back: boolean,
  ) {}
  check = acts;
  async run(_: { issued: number }, real: Running) {
    const input = {
      typeId: this.typeId,
      registrationId: 'ie-vat',
      date: real.today,
      amount: minor(this.amount),
      by: this.back ? ('refund' as const) : ('set-off' as const),
    };
    await mayDo(real, claimWithheld, input, ['over-claimed', 'not-found']);
  }
  toString = () => `claim(${this.typeId}, ${this.amount})`;
}

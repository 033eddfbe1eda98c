import { addDays, isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor, minus, total, writeMoney } from '@/core/kernel/money';
import { cardTakings } from '@/store/bank/queries/movements';
import { takeCardPayment } from '@/store/payments/actions/cardPayment';
import { perform } from '@/store/perform';
import { acceptNewLine } from './bankCommands';
import { EUR, momentOn, refusalCodes } from './book';
import { type Command, picked, type Running } from './running';

/* What comes of cards, for random sequences of everything. */

/** An open invoice is paid by card, in part or by too much, and the payment disputed later or not. */
export class CardCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
    private readonly disputed: boolean,
  ) {}
  check = () => true;
  async run(_: unknown, real: Running) {
    const { db } = real;
    const open = (await db.documents.toArray()).filter(
      ({ kind, open: left, content }) => kind === 'invoice' && left > 0n && content.currency === 'EUR',
    );
    const invoice = picked(open, this.pick);
    if (invoice === undefined) return;
    const amount = minor((invoice.open * BigInt(this.percent)) / 100n);
    if (amount === 0n) return;
    const payment = {
      id: `P${await db.receipts.count()}`,
      number: invoice.number,
      amount: decimal(writeMoney(amount, EUR)),
      currency: EUR,
      on: isoDate(real.today),
      disputedOn: '' as const,
    };
    const taken = await perform(db, takeCardPayment, payment, momentOn(real.today));
    expect(taken).toMatchObject({ ok: true, value: 'recorded' });
    if (!this.disputed) return;
    const disputedOn = addDays(real.today as never, 3);
    real.today = disputedOn;
    const back = await perform(db, takeCardPayment, { ...payment, disputedOn }, momentOn(disputedOn));
    expect(back).toMatchObject({ ok: true, value: 'disputed' });
  }
  toString = () => `card(${this.pick}, ${this.percent} %${this.disputed ? ', disputed' : ''})`;
}

/** The card company pays out all that it holds, less its fee, and the line is matched by its first suggestion. */
export class PayoutCommand implements Command {
  constructor(private readonly fee: bigint) {}
  check = () => true;
  async run(_: unknown, { db, today }: Running) {
    const held = total((await cardTakings(db, EUR, isoDate(today))).map(({ amount }) => amount));
    const amount = minus(held, minor(this.fee));
    if (held <= 0n || amount <= 0n) return;
    const result = await acceptNewLine(db, today, amount, 'Card payout');
    if (result !== null && !result.ok) expect(['stale', 'over-allocated']).toContain(refusalCodes(result)[0]);
  }
  toString = () => `payout(fee ${this.fee})`;
}

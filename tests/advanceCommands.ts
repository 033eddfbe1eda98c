import { takingOff } from '@/core/documents/advances';
import { advancesOf } from '@/store/sales/queries/advances';
import { draftOf, issued, lineOf } from './book';
import { type Command, picked, type Running } from './running';

/* Advance invoices and what takes them off, for random sequences of everything. */

/** An invoice for money before the supply. */
export class AdvanceCommand implements Command {
  constructor(
    private readonly lines: readonly { readonly price: string; readonly quantity: string; readonly taxCode: string }[],
    private readonly gross: boolean,
  ) {}
  check = () => true;
  async run(model: { issued: number }, { db, today }: Running) {
    const lines = this.lines.map(({ price, quantity, taxCode }) => lineOf({ price, quantity, taxCode }));
    await issued(db, { issueDate: today, advance: true, priceMode: this.gross ? 'gross' : 'net', lines });
    model.issued += 1;
  }
  toString = () => `advance(${this.lines.length} lines)`;
}

/** The final invoice takes off all that is left of an advance. */
export class FinalCommand implements Command {
  constructor(
    private readonly pick: number,
    /** What is supplied, in percent of what is taken off. */
    private readonly percent: number,
  ) {}
  check = () => true;
  async run(model: { issued: number }, { db, today }: Running) {
    const open = (await advancesOf(db, draftOf().customerId)).filter(({ parts }) => parts.length > 0);
    const advance = picked(open, this.pick);
    if (advance === undefined) return;
    let ids = 0;
    const off = takingOff(advance, 'Advance', () => `off-${model.issued}-${++ids}`);
    const supplied = off.map(({ takesOff: _, ...line }, i) => ({
      ...line,
      id: `${line.id}-of`,
      quantity: '1',
      price: ((Number(line.price) * this.percent) / 100).toFixed(2),
      description: `Supply ${i + 1}`,
    }));
    await issued(db, { issueDate: today, priceMode: advance.priceMode, lines: [...supplied, ...off] });
    expect(
      (await advancesOf(db, draftOf().customerId)).find((one) => one.documentId === advance.documentId)?.parts,
    ).toEqual([]);
    model.issued += 1;
  }
  toString = () => `final(${this.pick}, ${this.percent} %)`;
}

import { type CsvRow, cell } from '@/core/book/columns/columns';
import type { ReceiptInput } from '@/core/decisions/payments/recordReceipt';
import { type Currency, isCurrency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, total } from '@/core/kernel/money';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { moneySample, readTypedMoney } from '@/core/kernel/typedMoney';
import { readTypedDate } from '@/core/parties/terms';
import { readCsv } from './csv';
import { customerCall } from './importTable';

/** Heads of a file of receipts: a row for each document that one settles, or one that settles none. */
export const RECEIPT_HEADS = ['receipt', 'customer', 'date', 'reference', 'currency', 'settles', 'amount'] as const;

/** What of the book a file of receipts is read against. */
export interface ReceiptsMaterial {
  readonly home: Currency;
  /** Ids of customers by what a file may call them (see `customerCall`); null where several fit. */
  readonly customers: ReadonlyMap<string, string | null>;
  /** Ids of documents that can be settled, by number. */
  readonly documents: ReadonlyMap<string, string>;
  readonly today: IsoDate;
}

/** A receipt read from a file, with its first row; heads are row 1. */
export interface ReceiptRead {
  readonly row: number;
  readonly input: ReceiptInput;
}

/**
 * Reads receipts, money that reached the bank. Refused whole where it is no CSV of these heads; rows that name a customer, a
 * document, a day or an amount that there is none of are named in `wrong`.
 */
export function readReceipts(
  text: string,
  { home, customers, documents, today }: ReceiptsMaterial,
): Result<{ readonly receipts: readonly ReceiptRead[]; readonly wrong: readonly Refusal[] }> {
  const read = readCsv(text, RECEIPT_HEADS, ['reference', 'currency', 'settles']);
  if (!read.ok) return read;
  const wrong: Refusal[] = [];
  const at = (row: CsvRow, head: string) => `row ${row.row}, ${head}`;
  const receipts = [...grouped(read.value, (row) => cell(row, 'receipt')).values()].flatMap((rows): ReceiptRead[] => {
    const [first] = rows;
    if (first === undefined) return [];
    const said = (head: string) => cell(first, head);
    const customerId = customers.get(customerCall(said('customer'))) ?? '';
    if (customerId === '')
      wrong.push({ code: 'unknown', path: at(first, 'customer'), wanted: 'known-customer', found: said('customer') });
    const date = readTypedDate(said('date'), today, today);
    if (date === null)
      wrong.push({ code: 'invalid', path: at(first, 'date'), wanted: 'give-a-day', found: said('date') });
    const code = said('currency').toUpperCase();
    const currency = code === '' ? home : isCurrency(code) ? code : null;
    if (currency === null)
      wrong.push({ code: 'invalid', path: at(first, 'currency'), wanted: 'choose-currency', found: code });
    const own = currency ?? home;
    const parts = rows.map((row): { readonly documentId: string; readonly number: string; readonly money: Minor } => {
      const amount = readTypedMoney(cell(row, 'amount'), own);
      if (amount === null || amount <= 0n)
        wrong.push({
          code: 'invalid',
          path: at(row, 'amount'),
          wanted: { what: 'money-such-as', sample: moneySample(own) },
          found: cell(row, 'amount'),
        });
      const number = cell(row, 'settles');
      const documentId = number === '' ? '' : (documents.get(number) ?? '');
      if (number !== '' && documentId === '')
        wrong.push({ code: 'unknown', path: at(row, 'settles'), wanted: 'known-document', found: number });
      return { documentId, number, money: amount ?? NOTHING };
    });
    return [
      {
        row: first.row,
        input: {
          customerId,
          date: date ?? '',
          reference: said('reference'),
          currency: own,
          parts: [{ method: 'bank', amount: total(parts.map(({ money }) => money)) }],
          to: parts.filter(({ documentId }) => documentId !== ''),
          agreed: true,
        },
      },
    ];
  });
  return accept({ receipts, wrong });
}

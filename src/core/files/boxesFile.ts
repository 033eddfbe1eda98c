import { cell } from '@/core/book/columns/columns';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { typedMoney } from '@/core/kernel/typedMoney';
import { readTypedDate } from '@/core/parties/terms';
import { spanOf } from '@/core/returns/calendar';
import type { TypedBox } from '@/core/returns/statedForm';
import type { Registration } from '@/core/tax/registration';
import { readCsv } from './csv';

/** Heads of a file of amounts that other books feed into returns. */
export const BOX_HEADS = ['registration', 'period', 'box', 'amount', 'words', 'account'] as const;

/** What a file says of one return, with the row of each amount; heads are row 1. */
export interface BoxesOfReturn {
  readonly rows: readonly number[];
  readonly registration: Registration;
  /** First day of the period. */
  readonly start: IsoDate;
  readonly typed: readonly TypedBox[];
}

/**
 * Reads amounts for boxes of returns: the registration by its name or id, the period by any of its days, amounts in the
 * currency of the return. Refused whole where it is no CSV of these heads; what can't be read is named in `wrong`, by row.
 */
export function readBoxes(
  text: string,
  registrations: readonly Registration[],
  today: IsoDate,
): Result<{ readonly returns: readonly BoxesOfReturn[]; readonly wrong: readonly Refusal[] }> {
  const read = readCsv(text, BOX_HEADS, ['account']);
  if (!read.ok) return read;
  const wrong: Refusal[] = [];
  const found = read.value.flatMap((row) => {
    const path = (head: (typeof BOX_HEADS)[number]) => `row ${row.row}, ${head}`;
    const called = cell(row, 'registration').toLowerCase();
    const registration = registrations.find(({ id, name }) => [id, name.toLowerCase()].includes(called));
    const day = readTypedDate(cell(row, 'period'), today, today);
    if (registration === undefined)
      wrong.push({ code: 'unknown', path: path('registration'), wanted: 'known-registration', found: called });
    if (day === null)
      wrong.push({ code: 'invalid', path: path('period'), wanted: 'give-a-day', found: cell(row, 'period') });
    if (registration === undefined || day === null) return [];
    const amount = typedMoney(cell(row, 'amount'), registration.filingCurrency, path('amount'));
    if (!amount.ok) wrong.push(...amount.refusals);
    const { start } = spanOf(registration.frequency, day);
    const typed: TypedBox[] = amount.ok
      ? [{ box: cell(row, 'box'), amount: amount.value, words: cell(row, 'words'), account: cell(row, 'account') }]
      : [];
    return typed.map((one) => ({ row: row.row, registration, start, typed: one }));
  });
  const returns = [...grouped(found, ({ registration, start }) => `${registration.id} ${start}`).values()];
  return accept({
    wrong,
    returns: returns.flatMap((own) => {
      const [first] = own;
      if (first === undefined) return [];
      const { registration, start } = first;
      return [{ registration, start, rows: own.map(({ row }) => row), typed: own.map(({ typed }) => typed) }];
    }),
  });
}

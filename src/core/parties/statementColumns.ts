import * as yup from 'yup';

/** What a column of a bank's CSV file holds; empty for nothing that is needed. */
export const COLUMN_ROLES = [
  '',
  'date',
  'amount',
  'in',
  'out',
  'text',
  'name',
  'iban',
  'reference',
  'bank-reference',
  'balance',
] as const;
export type ColumnRole = (typeof COLUMN_ROLES)[number];

export type DateOrder = 'dmy' | 'mdy' | 'ymd';

/** How the CSV files of a bank are read; remembered with the account. */
export interface StatementColumns {
  /** Rows above the first line, the heads among them. */
  readonly skip: number;
  /** Heads of the columns, by which a file of the same form is known again; empty where it has none. */
  readonly heads: readonly string[];
  readonly roles: readonly ColumnRole[];
  readonly dates: DateOrder;
  /** The mark before decimals. */
  readonly decimal: '.' | ',';
  /** Money that comes in is below zero in this bank's files. */
  readonly reversed: boolean;
}

export const statementColumnsSchema = yup.object({
  skip: yup.number().integer().min(0).max(1000).defined(),
  heads: yup.array().of(yup.string().max(200).defined()).max(200).defined(),
  roles: yup
    .array()
    .of(
      yup
        .string()
        .oneOf([...COLUMN_ROLES])
        .defined(),
    )
    .max(200)
    .defined(),
  dates: yup.string().oneOf(['dmy', 'mdy', 'ymd']).defined(),
  decimal: yup.string().oneOf(['.', ',']).defined(),
  reversed: yup.boolean().defined(),
});

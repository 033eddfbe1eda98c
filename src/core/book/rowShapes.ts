import { DELIVERY_ROWS } from './rows/delivery';
import { DOCUMENT_ROWS } from './rows/documents';
import { LEDGER_ROWS } from './rows/ledger';
import { MONEY_ROWS } from './rows/money';
import { RETURN_ROWS } from './rows/returns';
import { SETUP_ROWS } from './rows/setup';
import type { Shape } from './shape';

/*
 * What every row of a book file must be like before anything looks at it. Records of the set-up have
 * schemas of their own besides; these are what a screen or a computation relies on without asking.
 */

/** The shape of each table's rows. */
export const ROW_SHAPES = {
  ...SETUP_ROWS,
  ...DOCUMENT_ROWS,
  ...MONEY_ROWS,
  ...RETURN_ROWS,
  ...LEDGER_ROWS,
  ...DELIVERY_ROWS,
} as const satisfies Readonly<Record<string, Shape>>;

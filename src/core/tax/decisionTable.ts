import * as yup from 'yup';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';

export type SupplyKind = 'goods' | 'service' | 'digital';
export const SUPPLY_KINDS: readonly SupplyKind[] = ['goods', 'service', 'digital'];

export type CustomerKind = 'business' | 'consumer' | 'government';
export const CUSTOMER_KINDS: readonly CustomerKind[] = ['business', 'consumer', 'government'];

/** What is known of the customer's tax number. */
export type NumberState = 'verified' | 'unverified' | 'none';
export const NUMBER_STATES: readonly NumberState[] = ['verified', 'unverified', 'none'];

/** How an address lies to the territory of a registration: in it, elsewhere in its country, in its customs union, outside. */
export type Relation = 'territory' | 'country' | 'union' | 'outside';
export const RELATIONS: readonly Relation[] = ['territory', 'country', 'union', 'outside'];

/** What a row decides. */
export type RowResult =
  | { readonly kind: 'code'; readonly code: string }
  /** The stack of the place that the goods or service go to. */
  | { readonly kind: 'stack' }
  /** Not decided by the table: the bookkeeper must, and is told why. */
  | { readonly kind: 'refuse'; readonly message: string };

/** A row of the decision table. An empty list or text means "any". */
export interface DecisionRow {
  readonly id: string;
  readonly name: string;
  /** Jurisdictions: the row holds while we are registered in one of them, and its relations are to that one. */
  readonly registeredIn: readonly string[];
  readonly supply: readonly SupplyKind[];
  readonly taxClass: readonly string[];
  readonly customer: readonly CustomerKind[];
  readonly number: readonly NumberState[];
  readonly shipFrom: readonly Relation[];
  readonly shipTo: readonly Relation[];
  readonly from: IsoDate | '';
  readonly until: IsoDate | '';
  readonly result: RowResult;
  /** Where it is written, in a few words. */
  readonly source: string;
}

const listOf = (values: readonly string[]) => yup.array().of(yup.string().oneOf(values).defined()).defined();
const names = () => yup.array().of(neededText('give-a-name')).defined();
const day = () =>
  yup
    .string()
    .defined()
    .test('day', wanted('day-or-nothing'), (v) => v === '' || isIsoDate(v));

export const decisionRowSchema = yup
  .object({
    id: neededText('give-id'),
    name: neededText('give-name-of-row', 80),
    registeredIn: names(),
    supply: listOf(SUPPLY_KINDS),
    taxClass: names(),
    customer: listOf(CUSTOMER_KINDS),
    number: listOf(NUMBER_STATES),
    shipFrom: listOf(RELATIONS),
    shipTo: listOf(RELATIONS),
    from: day(),
    until: day(),
    result: yup
      .object({
        kind: yup.string().oneOf(['code', 'stack', 'refuse']).defined(),
        code: yup.string(),
        message: yup.string(),
      })
      .defined(),
    source: optionalText(200),
  })
  .test('code', wanted('choose-code'), function code(row) {
    return row.result.kind !== 'code' || Boolean(row.result.code) || this.createError({ path: 'result.code' });
  })
  .test('message', wanted('say-what-to-do'), function message(row) {
    return (
      row.result.kind !== 'refuse' ||
      Boolean(row.result.message?.trim()) ||
      this.createError({ path: 'result.message' })
    );
  })
  .test('order', wanted('end-not-before-begin'), function order(row) {
    return row.from === '' || row.until === '' || row.from <= row.until || this.createError({ path: 'until' });
  });

import * as yup from 'yup';
import { type Decimal, isDecimal } from '@/core/kernel/decimal';
import { isUnit } from '@/core/kernel/unit';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { PriceMode } from '@/core/tax/calcTypes';
import { SUPPLY_KINDS, type SupplyKind } from '@/core/tax/decisionTable';
import { isPrice } from '@/core/tax/price';

/** Something we sell, with what a line takes from it. */
export interface Item {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  /** `HUR`, hour; `C62:reel` for an own word, see `unit.ts`. */
  readonly unit: string;
  /** Currency units for one unit. */
  readonly price: Decimal;
  /** Whether the price leaves the tax out (`net`) or holds it (`gross`). */
  readonly priceMode: PriceMode;
  /** Code of the income account. */
  readonly account: string;
  readonly taxClass: string;
  readonly supply: SupplyKind;
  /** Code that its lines carry whatever the decision table says; the table decides where it is empty or missing. */
  readonly taxCode?: string;
  /** Code of a customs or service classification, such as HS, HSN or SAC, that the law wants printed. */
  readonly itemCode?: string;
  /** Not offered any more; what was sold stays as it is. */
  readonly archived?: boolean;
}

export const itemSchema = yup.object({
  id: neededText('give-id'),
  name: neededText('give-a-name'),
  description: optionalText(1000),
  unit: yup.string().defined().test('unit', wanted('choose-unit'), isUnit),
  price: yup
    .string()
    .defined()
    .test('price', wanted('give-price'), (v) => isDecimal(v) && isPrice(v)),
  priceMode: yup.string().oneOf(['net', 'gross']).defined(),
  account: neededText('give-income-account'),
  taxClass: neededText('give-tax-class', 30),
  supply: yup.string().oneOf(SUPPLY_KINDS, wanted('choose-supply')).defined(),
  taxCode: yup.string(),
  itemCode: yup.string().max(20, wanted({ what: 'shorter-text', most: 20 })),
  archived: yup.boolean(),
});

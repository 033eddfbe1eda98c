import * as yup from 'yup';
import { type Decimal, isDecimal } from '@/core/kernel/decimal';
import { neededText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { PriceMode } from '@/core/tax/calcTypes';
import { isPrice } from '@/core/tax/price';
import type { Item } from './item';

/** Prices of some items for customers that take this list; others keep the item's own. */
export interface PriceList {
  readonly id: string;
  readonly name: string;
  /** Whether its prices leave the tax out (`net`) or hold it (`gross`). */
  readonly priceMode: PriceMode;
  /** Currency units for one unit. */
  readonly prices: readonly { readonly itemId: string; readonly price: Decimal }[];
}

export const priceListSchema = yup
  .object({
    id: neededText('give-id'),
    name: neededText('give-a-name', 60),
    priceMode: yup.string().oneOf(['net', 'gross']).defined(),
    prices: yup
      .array()
      .of(
        yup.object({
          itemId: neededText('give-item'),
          price: yup
            .string()
            .defined()
            .test('price', wanted('give-price'), (v) => isDecimal(v) && isPrice(v)),
        }),
      )
      .defined(),
  })
  .test('twice', wanted('item-twice'), function twice(list) {
    const ids = list.prices.map((row) => row.itemId);
    const at = ids.findIndex((id, i) => ids.indexOf(id) !== i);
    return at < 0 || this.createError({ path: `prices[${at}].itemId` });
  });

/** The price of an item by a list, else its own, and whether it holds the tax. */
export function priceOf(item: Item, list: PriceList | null): { readonly price: Decimal; readonly mode: PriceMode } {
  const listed = list?.prices.find((row) => row.itemId === item.id);
  return listed === undefined || list === null
    ? { price: item.price, mode: item.priceMode }
    : { price: listed.price, mode: list.priceMode };
}

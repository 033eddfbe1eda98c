import type { Item } from '@/core/catalogue/item';
import type { ItemRow } from '../rows';
import { type Columns, type CsvRow, cell, cellOr } from './columns';

/** What is only there where something is said. */
function more(row: CsvRow, before: Item | undefined): Pick<Item, 'taxCode' | 'itemCode' | 'archived'> {
  const taxCode = cellOr(row, 'tax code', before?.taxCode);
  const itemCode = cellOr(row, 'item code', before?.itemCode);
  const archived = cellOr(row, 'archived', before?.archived === true ? 'yes' : '');
  return {
    ...(taxCode !== '' && { taxCode }),
    ...(itemCode !== '' && { itemCode }),
    ...(archived !== '' && { archived: true }),
  };
}

export const ITEM_COLUMNS: Columns<ItemRow> = {
  title: 'Items',
  idFromName: true,
  optional: ['tax code', 'item code', 'archived'],
  heads: [
    'id',
    'name',
    'description',
    'unit',
    'price',
    'price holds',
    'account',
    'class',
    'supply',
    'tax code',
    'item code',
    'archived',
  ],
  write: (i) => [
    [
      ...[i.id, i.name, i.description, i.unit, i.price, i.priceMode, i.account, i.taxClass, i.supply],
      ...[i.taxCode ?? '', i.itemCode ?? '', i.archived ? 'yes' : ''],
    ],
  ],
  read: (rows, known) =>
    rows.map((row) => {
      const [id, name] = [cell(row, 'id'), cell(row, 'name')];
      const before = known(id);
      return {
        rows: [row.row],
        value: {
          id,
          name,
          description: cell(row, 'description'),
          unit: cell(row, 'unit') || before?.unit || 'C62',
          price: cell(row, 'price') as Item['price'],
          priceMode: (cell(row, 'price holds') || before?.priceMode || 'net') as Item['priceMode'],
          account: cell(row, 'account') || before?.account || '',
          taxClass: cell(row, 'class') || before?.taxClass || 'standard',
          supply: (cell(row, 'supply') || before?.supply || 'goods') as Item['supply'],
          ...more(row, before),
          keys: [],
        },
      };
    }),
  columnOf: (path) =>
    ({ priceMode: 'price holds', taxClass: 'class', taxCode: 'tax code', itemCode: 'item code' })[path] ?? path,
};

import { readTypedDecimal } from '@/core/kernel/decimal';
import { type OwnUnit, unitsOf } from '@/core/kernel/unit';

/** What pasted cells say of a line; all as it would be typed. */
export interface PastedLine {
  readonly description: string;
  readonly quantity: string;
  readonly unit: string;
  readonly price: string;
  readonly discount: string;
}

type Column = keyof PastedLine;

/** Heads that are understood in the first row, in lower case. */
const HEADS: Readonly<Record<string, Column>> = {
  item: 'description',
  description: 'description',
  text: 'description',
  quantity: 'quantity',
  qty: 'quantity',
  unit: 'unit',
  price: 'price',
  'unit price': 'price',
  less: 'discount',
  discount: 'discount',
};

/** What a cell calls a unit, by its word or its code, in small letters; undefined where it is none. */
type UnitIn = (cell: string) => string | undefined;

function unitReader(own: readonly OwnUnit[]): UnitIn {
  const called = new Map(
    unitsOf(own).flatMap(([unit, word]) => [
      [unit.toLowerCase(), unit],
      [word.toLowerCase(), unit],
    ]),
  );
  return (cell) => called.get(cell.trim().toLowerCase());
}

/** A number in a cell may carry its currency: `€ 1,200.00`. */
const figureOf = (cell: string): string => cell.replace(/[^\d.,%\u2212-]/g, '').trim();

const isFigure = (cell: string): boolean =>
  /\d/.test(cell) &&
  !/[\p{L}]{2,}/u.test(cell.replace(/\b[A-Z]{3}\b/, '')) &&
  readTypedDecimal(figureOf(cell).replace('%', '')) !== null;

function headed(row: readonly string[]): readonly (Column | undefined)[] | null {
  const columns = row.map((cell) => HEADS[cell.trim().toLowerCase()]);
  return columns.filter(Boolean).length >= 2 ? columns : null;
}

/** Without heads: words first, then quantity and price, or a price alone; a unit and a discount show themselves. */
function guessed(row: readonly string[], unitOf: UnitIn): PastedLine {
  const words: string[] = [];
  const figures: string[] = [];
  let unit = '';
  let discount = '';
  for (const cell of row) {
    const known = unitOf(cell);
    if (cell.trim() === '') continue;
    if (known !== undefined && words.length > 0) unit = known;
    else if (!isFigure(cell)) words.push(cell.trim());
    else if (cell.includes('%')) discount = figureOf(cell);
    else figures.push(figureOf(cell));
  }
  const [first = '', second] = figures;
  return {
    description: words.join('\n'),
    quantity: second === undefined ? '1' : first,
    unit: unit || 'C62',
    price: second ?? first,
    discount: discount || (figures.length > 3 ? '' : (figures[2] ?? '')),
  };
}

/**
 * Lines from a block of cells that was copied out of a spreadsheet. A first row with heads names the
 * columns; else they are told by what stands in them. Rows without words or figures are left out. `own` are the units
 * that the business has words of its own for.
 */
export function linesFromCells(
  rows: readonly (readonly string[])[],
  own: readonly OwnUnit[] = [],
): readonly PastedLine[] {
  const unitOf = unitReader(own);
  const [first, ...rest] = rows;
  const columns = first === undefined ? null : headed(first);
  const body = columns === null ? rows : rest;
  const lines = body.map((row): PastedLine => {
    if (columns === null) return guessed(row, unitOf);
    const cell = (column: Column) => row[columns.indexOf(column)]?.trim() ?? '';
    return {
      description: cell('description'),
      quantity: figureOf(cell('quantity')) || '1',
      unit: unitOf(cell('unit')) ?? 'C62',
      price: figureOf(cell('price')),
      discount: figureOf(cell('discount')),
    };
  });
  return lines.filter((line) => line.description !== '' || line.price !== '');
}

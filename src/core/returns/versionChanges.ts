import { type Minor, NOTHING } from '@/core/kernel/money';
import { type Filing, rowKey, type TaxBalance, type TaxReturn } from './return';
import type { StatedForm } from './statedForm';

/** A figure of a return that is another than in the version before. */
export interface FigureChange {
  /** Box of the form, or name of a code with its rate. */
  readonly name: string;
  readonly what: 'box' | 'base' | 'tax';
  /** In the currency of the return. */
  readonly before: Minor;
  readonly now: Minor;
}

/** A return as it stands now, filed or not. */
export interface Standing {
  readonly figures: Pick<TaxReturn, 'rows'>;
  readonly form: StatedForm | null;
}

function boxChanges(before: StatedForm | undefined, now: StatedForm | null): readonly FigureChange[] {
  if (before === undefined || now === null) return [];
  const [was, is] = [before, now].map(({ boxes }) => new Map(boxes.map(({ box, amount }) => [box, amount])));
  return [...new Set([...(was?.keys() ?? []), ...(is?.keys() ?? [])])].map((box) => ({
    name: box,
    what: 'box',
    before: was?.get(box) ?? NOTHING,
    now: is?.get(box) ?? NOTHING,
  }));
}

function rowChanges(before: readonly TaxBalance[], now: readonly TaxBalance[]): readonly FigureChange[] {
  const [was, is] = [before, now].map((rows) => new Map(rows.map((row) => [rowKey(row), row])));
  return [...new Set([...(was?.keys() ?? []), ...(is?.keys() ?? [])])].sort().flatMap((key): FigureChange[] => {
    const [old, own] = [was?.get(key), is?.get(key)];
    const row = own ?? old;
    if (row === undefined) return [];
    const name = `${row.codeName}, ${row.percent} %`;
    const of = (figure: 'filingBase' | 'filingTax') => ({
      before: old?.[figure] ?? NOTHING,
      now: own?.[figure] ?? NOTHING,
    });
    return [
      { name, what: 'base', ...of('filingBase') },
      { name, what: 'tax', ...of('filingTax') },
    ];
  });
}

/** What changed since a version of a return was filed: boxes of its form, then codes; empty where nothing did. */
export function versionChanges(before: Filing, now: Standing): readonly FigureChange[] {
  return [...boxChanges(before.form, now.form), ...rowChanges(before.figures.rows, now.figures.rows)].filter(
    (change) => change.before !== change.now,
  );
}

import { bookFigures } from '@/core/documents/bookFigures';
import { signed } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { type Minor, minus, NOTHING, total } from '@/core/kernel/money';
import type { Category } from '@/core/tax/calcTypes';

/**
 * What of a document is goods and what is services, of the codes of some categories, in home currency, signed. Discounts and
 * charges on the whole document go with services, unless all of a code is goods.
 */
export function goodsAndServices(
  { content, figures }: Pick<IssuedDocument, 'content' | 'figures'>,
  categories: readonly Category[],
): { readonly goods: Minor; readonly services: Minor } {
  const { groups, lineNets } = bookFigures(content, figures);
  const wanted = new Set(content.taxes.flatMap(({ code, category }) => (categories.includes(category) ? [code] : [])));
  const own = groups.filter(({ tax }) => wanted.has(tax));
  const goods = total(
    own.map(({ tax, net }) => {
      const lines = content.lines.flatMap((line, i) =>
        line.tax === tax ? [{ supply: line.supply, net: lineNets[i] ?? NOTHING }] : [],
      );
      const moved = lines.filter(({ supply }) => supply === 'goods');
      return moved.length > 0 && moved.length === lines.length ? net : total(moved.map((one) => one.net));
    }),
  );
  const all = total(own.map(({ net }) => net));
  return { goods: signed(content, goods), services: signed(content, minus(all, goods)) };
}

import type { FrozenTax, FrozenWithholding } from '@/core/documents/content';
import { taxLabel } from '@/core/documents/taxRows';
import type { TotalKey, TotalNames } from '@/core/tax/explainTotal';
import { componentNames } from '../shared/MarginNotes';

interface Named {
  readonly taxes: readonly FrozenTax[];
  readonly lines: readonly { readonly id: string; readonly account: string }[];
  readonly adjustments: readonly { readonly id: string; readonly text: string; readonly account: string }[];
  readonly withholding: readonly Pick<FrozenWithholding, 'id' | 'name'>[];
}

/** What the parts of a document are called in its workings. */
export function totalNames({ taxes, lines, adjustments, withholding }: Named): TotalNames {
  const taxNames = new Map(taxes.map((tax) => [tax.code, taxLabel(tax)]));
  const accounts = new Map([...lines, ...adjustments].map(({ id, account }) => [id, account]));
  const texts = new Map(adjustments.map(({ id, text }) => [id, text]));
  return {
    component: componentNames(taxes),
    tax: (code) => taxNames.get(code) ?? code,
    withholding: (id) => withholding.find((type) => type.id === id)?.name ?? id,
    adjustment: (id) => texts.get(id) || 'allowance or charge',
    account: (id) => accounts.get(id) ?? '',
  };
}

/** What a figure of the totals is called over its workings. */
export function totalTitle(key: TotalKey, names: TotalNames): string {
  const [kind = '', id = ''] = key.split(/:(.*)/s);
  switch (kind) {
    case 'group':
      return names.tax(id);
    case 'withheld':
      return names.withholding(id);
    case 'adjustment':
      return names.adjustment(id);
    case 'account':
      return `account ${id}`;
    case 'home':
      return 'home currency';
    case 'payable':
      return 'total';
    case 'openHome':
      return 'open in home currency';
    case 'expected':
      return 'net of withholding';
    default:
      return kind;
  }
}

/** The figure whose workings stand behind an amount that is posted. */
export function keyOfSide(
  { account, taxCode }: { readonly account: string; readonly taxCode: string },
  names: TotalNames,
  ids: readonly string[],
): TotalKey {
  if (taxCode !== '') return `group:${taxCode}`;
  return ids.some((id) => names.account(id) === account) ? `account:${account}` : 'payable';
}

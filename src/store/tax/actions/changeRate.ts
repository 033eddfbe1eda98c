import { changeRate } from '@/core/decisions/tax/rateChange';
import { refuse } from '@/core/kernel/result';
import type { TaxRate } from '@/core/tax/tax';
import { loadSetup } from '../../load';
import type { Action } from '../../perform';
import { usedUntil } from '../../setup/actions/taxSetup';
import { draftMaterials } from '../queries/rateChange';

/** Gives a tax a rate from a day on, and the chosen drafts with it. */
export const changeTaxRate: Action<
  { readonly taxId: string; readonly rate: TaxRate; readonly draftIds: readonly string[] },
  { readonly taken: number; readonly kept: number }
> = {
  name: 'change rate',
  async decide(db, { taxId, rate, draftIds }, moment) {
    const tax = await db.taxes.get(taxId);
    if (tax === undefined) return refuse({ code: 'not-found', path: 'taxId' });
    const [drafts, records, used] = [await draftMaterials(db), await loadSetup(db, null), await usedUntil(db, taxId)];
    return changeRate(tax, rate, new Set(draftIds), { drafts, records, usedUntil: used }, moment);
  },
};

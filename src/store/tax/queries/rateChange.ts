import { type DraftEffect, type DraftMaterial, effectOn } from '@/core/decisions/tax/rateChange';
import type { Tax, TaxRate } from '@/core/tax/tax';
import { loadSetting } from '../../load';
import type { BookDb } from '../../schema';

/** Every draft with what it is written against. */
export async function draftMaterials(db: BookDb): Promise<DraftMaterial[]> {
  const drafts = await db.drafts.toArray();
  const materials: DraftMaterial[] = [];
  for (const draft of drafts) {
    const customer = (await db.customers.get(draft.customerId)) ?? null;
    materials.push({ draft, customer, setting: await loadSetting(db, draft, customer) });
  }
  return materials;
}

/** The drafts that a rate change would touch, and how their totals would move. */
export async function effectsOf(db: BookDb, tax: Tax, rate: TaxRate): Promise<DraftEffect[]> {
  const materials = await draftMaterials(db);
  return materials.flatMap((material) => effectOn(material, tax, rate) ?? []);
}

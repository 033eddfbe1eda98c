import Dexie from 'dexie';
import { type DraftEffect, type DraftMaterial, effectOn } from '@/core/decisions/tax/rateChange';
import type { Draft } from '@/core/documents/draft';
import { draftFrom } from '@/core/documents/draftFrom';
import { nextFrom } from '@/core/documents/recurring';
import { type IsoDate, laterOf } from '@/core/kernel/date';
import type { Tax, TaxRate } from '@/core/tax/tax';
import { loadSetting } from '../../load';
import type { BookDb } from '../../schema';

/** Every draft with what it is written against; what recurring documents say is none. */
export async function draftMaterials(db: BookDb): Promise<DraftMaterial[]> {
  const drafts = await db.drafts
    .filter(({ recurringId, runId }) => recurringId === undefined && runId === undefined)
    .toArray();
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

/** What takes a new rate by itself, once it is in force: a recurring document on its dates, a quote when it is invoiced. */
export interface LaterEffect extends DraftEffect {
  readonly of: 'recurring' | 'quote';
  /** Its name or number. */
  readonly name: string;
}

/** Quotes that may still be invoiced, as an invoice on a day. */
async function quotesOn(
  db: BookDb,
  day: IsoDate,
): Promise<readonly { readonly name: string; readonly draft: Draft }[]> {
  const open = await Promise.all(
    (['sent', 'accepted', 'part-invoiced'] as const).map((state) =>
      db.documents.where('[state+issueDate]').between([state, Dexie.minKey], [state, Dexie.maxKey]).toArray(),
    ),
  );
  return open
    .flat()
    .filter(({ kind, cancelled }) => kind === 'quote' && cancelled === null)
    .map((quote) => {
      const origin = { how: 'copy', documentId: quote.id, number: quote.number, words: '', by: 'sum' } as const;
      return {
        name: quote.number,
        draft: draftFrom(quote, { id: quote.id, kind: 'invoice', origin, issueDate: day, due: '30d' }),
      };
    });
}

/** Recurring documents, each on its first date from a day on. */
async function recurringOn(
  db: BookDb,
  day: IsoDate,
): Promise<readonly { readonly name: string; readonly draft: Draft }[]> {
  const all = await db.recurring.toArray();
  const patterns = await db.drafts.bulkGet(all.map(({ id }) => id));
  return all.flatMap((recurring, i) => {
    const pattern = patterns[i];
    const date = nextFrom(recurring, laterOf(day, recurring.first));
    if (pattern === undefined || date === '') return [];
    return [{ name: recurring.name, draft: { ...pattern, issueDate: date, taxPoint: '', held: null } }];
  });
}

/** Quotes and recurring documents that a rate change would touch, and how their totals would move. */
export async function laterEffectsOf(db: BookDb, tax: Tax, rate: TaxRate): Promise<LaterEffect[]> {
  const effects: LaterEffect[] = [];
  for (const kind of ['quote', 'recurring'] as const)
    for (const { name, draft } of await (kind === 'quote' ? quotesOn(db, rate.from) : recurringOn(db, rate.from))) {
      const customer = (await db.customers.get(draft.customerId)) ?? null;
      const effect = effectOn({ draft, customer, setting: await loadSetting(db, draft, customer) }, tax, rate);
      if (effect !== null) effects.push({ ...effect, of: kind, name });
    }
  return effects;
}

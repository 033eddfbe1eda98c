import Dexie from 'dexie';
import { addPack } from '@/core/decisions/setup/pack';
import { type SetupRecords, type SetupTable, saveRecord } from '@/core/decisions/setup/records';
import { saveRegistration } from '@/core/decisions/setup/registration';
import type { IsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import type { NumberCheck } from '@/core/parties/customer';
import { type DecisionRow, decisionRowSchema } from '@/core/tax/decisionTable';
import { packOf } from '@/core/tax/packs';
import { type Keep, overlapsOf } from '@/core/tax/packs/overlap';
import type { PackPlan } from '@/core/tax/packs/plan';
import type { Registration } from '@/core/tax/registration';
import { loadRecords } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

/** Newest tax point of a tax entry of a tax, or null. */
export function usedUntil(db: BookDb, taxId: string): Promise<IsoDate | null> {
  return db.taxEntries
    .where('[taxId+taxPoint]')
    .between([taxId, Dexie.minKey], [taxId, Dexie.maxKey])
    .last()
    .then((newest) => newest?.taxPoint ?? null);
}

const keep = <T extends SetupTable>(
  table: T,
  name: string,
): Action<{ readonly value: SetupRecords[T]; readonly isNew: boolean }, SetupRecords[T]> => ({
  name,
  async decide(db, { value, isNew }) {
    const [before, records] = await Promise.all([db.table(table).get(value.id), loadRecords(db)]);
    const used = table === 'taxes' ? await usedUntil(db, value.id) : null;
    return saveRecord(table, value, { before, isNew, records, usedUntil: used });
  },
});

export const keepJurisdiction = keep('jurisdictions', 'keep jurisdiction');
export const keepTax = keep('taxes', 'keep tax');
export const keepTaxCode = keep('taxCodes', 'keep tax code');
export const keepPlace = keep('places', 'keep place');
export const keepWithholdingType = keep('withholdingTypes', 'keep withholding type');
export const keepCertificate = keep('certificates', 'keep certificate');
export const keepPriceList = keep('priceLists', 'keep price list');
export const keepStyle = keep('styles', 'keep style');
export const keepExchangeRate = keep('exchangeRates', 'keep exchange rate');

/** Takes a place out; documents keep the stack they were issued with. */
export const dropPlace: Action<{ id: string }, null> = {
  name: 'drop place',
  async decide(db, { id }) {
    const before = await db.places.get(id);
    if (before === undefined) return refuse({ code: 'not-found', path: 'id' });
    return accept({ value: null, changes: { remove: { places: [id] }, audit: { subject: before.name, before } } });
  },
};

export const keepRegistration: Action<{ value: Registration; isNew: boolean }, Registration> = {
  name: 'keep registration',
  async decide(db, { value, isNew }) {
    const [before, records, chart, periods, notYetDue] = await Promise.all([
      db.registrations.get(value.id),
      loadRecords(db),
      db.accounts.toArray(),
      db.taxPeriods.where('[registrationId+start]').between([value.id, Dexie.minKey], [value.id, Dexie.maxKey]).count(),
      // Documents on payment basis rest on a registration before any period knows them.
      db.taxRows.where('periodId').equals('').count(),
    ]);
    return saveRegistration(value, { before, isNew, records, chart, used: periods > 0 || notYetDue > 0 });
  },
};

/** Keeps the whole decision table in its order. `before` is what the screen began with: a table changed elsewhere is refused. */
export const keepDecisionTable: Action<
  { readonly rows: readonly DecisionRow[]; readonly before: readonly DecisionRow[] },
  readonly DecisionRow[]
> = {
  name: 'keep decision table',
  async decide(db, { rows, before }) {
    const stored = (await db.decisionTables.get('table'))?.rows ?? [];
    if (JSON.stringify(stored) !== JSON.stringify(before)) return refuse({ code: 'stale', path: '' });
    for (const row of rows) {
      const checked = validated<DecisionRow>(decisionRowSchema, row);
      if (!checked.ok) return refuse(...checked.refusals.map((r) => ({ ...r, path: `${row.id}.${r.path}` })));
    }
    return accept({
      value: rows,
      changes: {
        put: { decisionTables: [{ id: 'table', rows }] },
        audit: { subject: 'Decision table', before: stored, after: rows },
      },
    });
  },
};

/** Adds a starter pack; what the book has already stays as it is, unless `keep` has the pack's taxes charge. */
export const addStarterPack: Action<{ id: string; keep?: Keep }, PackPlan> = {
  name: 'add starter pack',
  async decide(db, { id, keep = null }) {
    const [records, placeIds] = await Promise.all([loadRecords(db), db.places.toCollection().primaryKeys()]);
    const used = new Map<string, IsoDate>();
    for (const { ours } of overlapsOf(packOf(id), records)) {
      const day = await usedUntil(db, ours.id);
      if (day !== null) used.set(ours.id, day);
    }
    return addPack(id, keep, { records, placeIds, usedUntil: used });
  },
};

/** Keeps what the registry answered on a customer's tax number, as evidence. */
export const keepNumberCheck: Action<
  { readonly customerId: string; readonly number: string; readonly check: NumberCheck },
  null
> = {
  name: 'verify tax number',
  async decide(db, { customerId, number, check }) {
    const customer = await db.customers.get(customerId);
    if (customer === undefined || !customer.taxNumbers.some((n) => n.number === number))
      return refuse({ code: 'not-found', path: 'number' });
    const taxNumbers = customer.taxNumbers.map((n) => (n.number === number ? { ...n, check } : n));
    return accept({
      value: null,
      changes: {
        put: { customers: [{ ...customer, taxNumbers }] },
        audit: { subject: `${customer.name}, ${number}`, after: check },
      },
    });
  },
};

import { filledForm } from '@/core/decisions/tax/fileReturn';
import type { IssuedDocument } from '@/core/documents/issued';
import { addDays, dayOf, type IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, total } from '@/core/kernel/money';
import type { AuthoritiesMaterial } from '@/core/reports/authorities';
import type { ReturnReportMaterial } from '@/core/reports/returnReport';
import type { ReportSpan } from '@/core/reports/span';
import type { EvidenceMaterial, LateMaterial } from '@/core/reports/taxEvidence';
import type { ExemptMaterial, OutputTaxMaterial, RecapitulativeMaterial } from '@/core/reports/taxLists';
import { periodIdOf, type Span, spanName, spanOf } from '@/core/returns/calendar';
import { restsOnEvidence } from '@/core/returns/closing';
import { returnOf } from '@/core/returns/return';
import type { TaxPayment } from '@/core/returns/taxPayment';
import type { Registration } from '@/core/tax/registration';
import { loadBook, present } from '../load';
import type { BookDb } from '../schema';
import { owedReturns } from '../tax/queries/owed';
import { entriesBehindAll, periodReturn } from '../tax/queries/periods';
import { documentsIssued } from './sales';

/* What reports of tax are made of. */

/** Days by which tax points and days of issue may lie apart. */
const AROUND = 366;

/** Documents with tax points between two days, by number. */
async function documentsTaxed(db: BookDb, { from, until }: ReportSpan): Promise<readonly IssuedDocument[]> {
  const issued = await documentsIssued(db, { from: addDays(from, -AROUND), until: addDays(until, AROUND) });
  return issued.filter(({ content: { taxPoint } }) => from <= taxPoint && taxPoint <= until);
}

export async function recapitulativeMaterial(db: BookDb, span: ReportSpan): Promise<RecapitulativeMaterial> {
  const [{ business }, documents] = await Promise.all([loadBook(db), documentsTaxed(db, span)]);
  const customers = await db.customers.bulkGet([...new Set(documents.map(({ customerId }) => customerId))]);
  return {
    ...span,
    home: business.homeCurrency,
    documents,
    customers: new Map(customers.flatMap((one) => (one === undefined ? [] : [[one.id, one] as const]))),
  };
}

export async function evidenceMaterial(db: BookDb, span: ReportSpan): Promise<EvidenceMaterial> {
  const material = await recapitulativeMaterial(db, span);
  const untaxed = material.documents.filter(({ content }) => restsOnEvidence(content));
  const files = await db.attachments
    .where('ownerId')
    .anyOf(untaxed.map(({ id }) => id))
    .toArray();
  const names = grouped(files, ({ ownerId }) => ownerId);
  return {
    ...material,
    documents: untaxed,
    files: new Map([...names].map(([id, own]) => [id, own.map(({ name }) => name)])),
  };
}

export async function lateMaterial(db: BookDb, { from, until }: ReportSpan): Promise<LateMaterial> {
  const [{ business }, registrations] = await Promise.all([loadBook(db), db.registrations.toArray()]);
  const late = await Promise.all(
    registrations.map(async (registration) => {
      const { id, name } = registration;
      const periods = await db.taxPeriods.where('[registrationId+start]').between([id, ''], [id, '~']).toArray();
      const own = periods.filter(({ start, end }) => start <= until && end >= from);
      const found = await Promise.all(
        own.map(async (period) => {
          const rows = await db.taxRows.where('periodId').equals(period.id).toArray();
          const entries = await entriesBehindAll(
            db,
            rows.filter(({ lateEntries }) => lateEntries > 0),
          );
          return entries
            .filter((entry) => entry.late)
            .map((entry) => ({
              entry,
              registration: name,
              reportedIn: period,
              own: spanOf(registration.frequency, entry.taxPoint),
            }));
        }),
      );
      return found.flat();
    }),
  );
  return { from, until, home: business.homeCurrency, late: late.flat() };
}

export async function exemptMaterial(db: BookDb, span: ReportSpan): Promise<ExemptMaterial> {
  const [{ business }, documents, certificates] = await Promise.all([
    loadBook(db),
    documentsTaxed(db, span),
    db.certificates.toArray(),
  ]);
  const ids = documents.map(({ id }) => id);
  const entries = await db.taxEntries.where('documentId').anyOf(ids).toArray();
  return { ...span, home: business.homeCurrency, entries, certificates };
}

export async function outputTaxMaterial(db: BookDb, span: ReportSpan): Promise<OutputTaxMaterial> {
  const [{ business }, registrations] = await Promise.all([loadBook(db), db.registrations.toArray()]);
  const periods = await Promise.all(
    registrations.map(async ({ id, name }) => {
      const own = await db.taxPeriods.where('[registrationId+start]').between([id, ''], [id, '~']).toArray();
      return Promise.all(
        own
          .filter(({ start, end }) => start <= span.until && end >= span.from)
          .map(async (period) => ({
            name: spanName(period),
            registration: name,
            rows: (
              period.filed?.figures ?? returnOf(await db.taxRows.where('periodId').equals(period.id).toArray())
            ).rows.map((row) => ({ codeName: row.codeName, percent: row.percent, base: row.base, tax: row.tax })),
          })),
      );
    }),
  );
  return { ...span, home: business.homeCurrency, periods: periods.flat() };
}

/** The return of the period that holds a day, of a registration, or of the first where none is named. */
export async function returnMaterial(db: BookDb, on: IsoDate, registrationId = ''): Promise<ReturnReportMaterial> {
  const { business } = await loadBook(db);
  const registration = present(
    (await db.registrations.get(registrationId)) ?? (await db.registrations.toCollection().first()),
    'a registration',
  );
  const { start, end } = spanOf(registration.frequency, on);
  const { period, figures } = await periodReturn(db, registration, start);
  const typed = period?.filed?.typed ?? (await db.returnBoxes.get(periodIdOf(registration.id, start)))?.typed ?? [];
  return {
    ...{ from: start, until: end, registration, home: business.homeCurrency, figures, typed },
    stated: period?.filed?.form ?? filledForm(registration, figures, typed)?.stated ?? null,
    entries: await entriesBehindAll(db, figures.rows),
  };
}

/** What authorities are owed at the end of a day. */
export async function authoritiesMaterial(db: BookDb, on: IsoDate): Promise<AuthoritiesMaterial> {
  const [{ business }, registrations, chart] = await Promise.all([
    loadBook(db),
    db.registrations.toArray(),
    db.accounts.toArray(),
  ]);
  const all = await Promise.all(
    registrations.map(async (registration) => ({
      name: registration.name,
      owed: await owedReturns(db, registration, chart),
      unfiled: await unfiledOf(db, registration),
    })),
  );
  return {
    on,
    home: business.homeCurrency,
    returns: all.flatMap(({ name, owed }) =>
      owed.returns
        .filter(({ period }) => period.filed !== null && dayOf(period.filed.at) <= on)
        .map((one) => ({
          ...one,
          registration: name,
          payments: one.payments.flatMap((payment) => paidUntil(payment, on)),
        })),
    ),
    unfiled: all.flatMap(({ name, unfiled }) => unfiled.map((one) => ({ ...one, registration: name }))),
    setOff: new Map(
      all.map(({ name, owed }) => [
        name,
        total(owed.claims.filter(({ by, date }) => by === 'set-off' && date <= on).map(({ amount }) => amount)),
      ]),
    ),
  };
}

/** What each period of a registration that is not filed comes to now, oldest first. */
async function unfiledOf(
  db: BookDb,
  { id }: Registration,
): Promise<readonly { readonly span: Span; readonly tax: Minor }[]> {
  const periods = await db.taxPeriods.where('[registrationId+start]').between([id, ''], [id, '~']).toArray();
  return Promise.all(
    periods
      .filter(({ filed }) => filed === null)
      .map(async (span) => ({ span, tax: returnOf(await db.taxRows.where('periodId').equals(span.id).toArray()).tax })),
  );
}

/** A payment as it stood at the end of a day: not made yet, or not undone yet. */
function paidUntil(payment: TaxPayment, on: IsoDate): readonly TaxPayment[] {
  if (payment.date > on) return [];
  return [payment.undone !== null && payment.undone.on > on ? { ...payment, undone: null } : payment];
}

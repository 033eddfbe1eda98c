import { standingAnswer } from '@/core/delivery/answer';
import { explainOpen } from '@/core/documents/explainOpen';
import { isoDate } from '@/core/kernel/date';
import { prove } from '@/core/returns/proof';
import { BookDb } from '@/store/schema';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';
import { buildDemo } from './buildDemo';

const TODAY = isoDate('2026-11-23');

async function demoBook(name: string): Promise<BookDb> {
  const db = new BookDb(name);
  await buildDemo(db, TODAY);
  return db;
}

describe('the demo book', () => {
  let db: BookDb;
  beforeAll(async () => {
    db = await demoBook('demo');
  });

  test('holds about 25 documents over three tax periods, one of them filed', async () => {
    expect(await db.documents.count()).toBe(27);
    expect(await db.drafts.count()).toBe(3);
    const periods = (await db.taxPeriods.toArray()).filter((p) => p.registrationId === 'ie-vat');
    expect(periods.map((p) => [p.start, p.filed !== null])).toEqual([
      ['2026-07-01', true],
      ['2026-09-01', false],
      ['2026-11-01', false],
    ]);
  });

  test('has one difference to find: the manual journal in the tax account', async () => {
    const registration = await db.registrations.get('ie-vat');
    if (registration === undefined) throw new Error('no registration');
    const proof = prove(await proofMaterial(db, registration, isoDate('2026-09-01')));
    expect(proof.documents).toBe(proof.taxEntries);
    expect(proof.differences).toEqual([
      expect.objectContaining({ cause: 'manual-journal', amount: 1840n, subject: 'Tax on own use, to be checked' }),
    ]);
    expect(prove(await proofMaterial(db, registration, isoDate('2026-07-01'))).holds).toBe(true);
    // Until somebody clears it, the journal stands in every later period.
    const later = prove(await proofMaterial(db, registration, isoDate('2026-11-01')));
    expect(later.differences.map((d) => [d.cause, d.amount])).toEqual([['manual-journal', 1840n]]);
  });

  test('explains what is open of every document by figures that add up', async () => {
    const posted = (await db.documents.toArray()).filter((d) => d.quote === null);
    for (const document of posted)
      for (const key of ['open', 'openHome'] as const) {
        const steps = explainOpen(document, key);
        const parts = steps.filter((step) => step.tone === 'step').reduce((sum, step) => sum + (step.amount ?? 0n), 0n);
        expect([document.number, parts]).toEqual([document.number, document[key]]);
        expect(steps.at(-1)?.amount).toBe(document[key]);
      }
    expect(posted.some((d) => d.received !== 0n) && posted.some((d) => d.credited !== 0n)).toBe(true);
  });

  test('has sent three e-invoices: one is accepted, one rejected, one met silence', async () => {
    const sent = await db.transmissions.toArray();
    expect(sent.map((t) => [t.customerName, standingAnswer(t.answers)?.code ?? '', t.phase]).sort()).toEqual([
      ['Ballyvaughan Harbour Board', 'RE', 'asks'],
      ['Kilkerrin Bay Harbour Commissioners', 'AP', 'answered'],
      ['Reederei Nordlicht Forschung GmbH', '', 'unanswered'],
    ]);
  });

  test('marks the document that came after its period was filed', async () => {
    const late = (await db.documents.toArray()).filter((d) => d.late);
    expect(late.map((d) => [d.customerName, d.content.taxPoint, d.periodId])).toEqual([
      ['Inishmaan Shellfish', '2026-08-28', 'ie-vat|2026-09-01'],
    ]);
  });
});

test.each(['2026-01-01', '2026-02-28', '2026-03-01', '2028-02-29', '2026-12-31'])(
  'opened on %s it is whole, with nothing dated later',
  async (today) => {
    const db = new BookDb(`demo-${today}`);
    await buildDemo(db, isoDate(today));
    const documents = await db.documents.toArray();
    expect(documents.length).toBe(27);
    expect(documents.filter((document) => document.issueDate > today)).toEqual([]);
    const periods = (await db.taxPeriods.toArray()).filter((period) => period.registrationId === 'ie-vat');
    expect(periods.map((period) => period.filed !== null)).toEqual([true, false, false]);
    expect((await db.transmissions.toArray()).every(({ receipt }) => receipt !== null)).toBe(true);
  },
);

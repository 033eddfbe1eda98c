import { act, attachmentOf, draftOf, issued, KEPT_FROM, lineOf, newBook } from 'tests/book';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { present } from '@/store/load';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { keepDraft } from '@/store/sales/actions/drafts';
import type { BookDb } from '@/store/schema';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { reopenReturn } from '@/store/tax/actions/reopenReturn';
import { closingOf } from '@/store/tax/queries/closing';
import { periodReturn } from '@/store/tax/queries/periods';
import type { ClosingStep } from './closing';
import { versionChanges } from './versionChanges';

const JANUARY = isoDate('2026-01-01');

/** Names of what a step has to look at. */
async function toLookAt(db: BookDb, step: ClosingStep, start = JANUARY): Promise<readonly string[]> {
  const registration = present(await db.registrations.get('ie-vat'), 'the registration');
  const checks = await closingOf(db, registration, start);
  return checks.find((check) => check.step === step)?.items.map(({ name, detail }) => `${name}: ${detail}`) ?? [];
}

const toGermany = (supply: 'goods' | 'service', taxCode: string) => ({
  customerId: 'nordlicht',
  lines: [lineOf({ supply, taxCode, taxByHand: true })],
});

const filed = (db: BookDb, day: string) =>
  act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, day);

describe('before a period is closed', () => {
  test('nothing is left of one in which all is well', async () => {
    const db = await newBook();
    await issued(db);
    const registration = present(await db.registrations.get('ie-vat'), 'the registration');
    expect((await closingOf(db, registration, JANUARY)).flatMap(({ items }) => items)).toEqual([]);
  });
  test('drafts are named whose tax point lies in it, by their own day or by that of the document', async () => {
    const db = await newBook();
    await act(db, keepDraft, draftOf({ issueDate: '2026-02-28' }), KEPT_FROM);
    await act(db, keepDraft, draftOf({ issueDate: '2026-03-02', taxPoint: '2026-02-27' }), KEPT_FROM);
    await act(db, keepDraft, draftOf({ issueDate: '2026-03-01' }), KEPT_FROM);
    expect(await toLookAt(db, 'drafts')).toHaveLength(2);
    expect(await toLookAt(db, 'drafts', isoDate('2026-03-01'))).toHaveLength(1);
  });
  test('numbers that were not verified, but only where the tax rests on them', async () => {
    const db = await newBook();
    const customer = present(await db.customers.get('nordlicht'), 'the customer');
    await db.customers.put({ ...customer, taxNumbers: customer.taxNumbers.map((one) => ({ ...one, check: null })) });
    const reversed = await issued(db, toGermany('service', 'IE-RC'));
    await issued(db);
    expect(await toLookAt(db, 'numbers')).toEqual([
      `${reversed.number}: Reederei Nordlicht Forschung GmbH, DE812345673 is not verified`,
    ]);
  });
  test('goods that went abroad without a paper', async () => {
    const db = await newBook();
    const kept = await issued(db, toGermany('goods', 'IE-IC'));
    const bare = await issued(db, toGermany('goods', 'IE-IC'));
    await issued(db, toGermany('service', 'IE-RC'));
    await db.attachments.add(attachmentOf({ ownerId: kept.id }));
    expect(await toLookAt(db, 'evidence')).toEqual([
      `${bare.number}: Reederei Nordlicht Forschung GmbH, no evidence of transport`,
    ]);
  });
  test('money on account, where tax falls due by payment', async () => {
    const db = await newBook();
    const amount = minor(12_300n);
    const parts = [{ method: 'bank', amount, charge: minor(0n) }] as const;
    const { content } = await issued(db);
    const paid = {
      customerId: 'clewbay',
      date: '2026-02-10',
      reference: '',
      currency: content.currency,
      parts,
      to: [],
    };
    await act(db, recordReceipt, paid, '2026-02-10');
    expect(await toLookAt(db, 'on-account')).toEqual([]);
    const registration = present(await db.registrations.get('ie-vat'), 'the registration');
    await db.registrations.put({ ...registration, basis: 'on-payment' });
    expect(await toLookAt(db, 'on-account')).toHaveLength(1);
  });
  test('what the return before left behind', async () => {
    const db = await newBook();
    await issued(db);
    await filed(db, '2026-03-10');
    const late = await issued(db, { issueDate: '2026-02-20' }, '2026-03-11');
    expect(await toLookAt(db, 'late', isoDate('2026-03-01'))).toEqual([
      `${late.number}: ${late.customerName}, tax point 20 Feb 2026, whose own return was filed`,
    ]);
  });
});

describe('versions of a return', () => {
  test('differ by what came in between, in boxes and codes', async () => {
    const db = await newBook();
    await issued(db);
    await filed(db, '2026-03-10');
    const reopened = { registrationId: 'ie-vat', start: '2026-01-01', reason: 'an invoice was forgotten' };
    await act(db, reopenReturn, reopened, '2026-03-11');
    const [version] = await db.reopenedFilings.toArray();
    const registration = present(await db.registrations.get('ie-vat'), 'the registration');
    const standing = async () => {
      const { figures, period } = await periodReturn(db, registration, JANUARY);
      return { figures, form: period?.filed?.form ?? null };
    };
    const before = present(version, 'the version');
    expect(versionChanges(before, await standing())).toEqual([]);
    await issued(db, { issueDate: '2026-02-20', lines: [lineOf({ price: '50' })] }, '2026-03-11');
    await filed(db, '2026-03-12');
    // 100.00 and 23.00 of tax first; 50.00 and 11.50 came in between: VAT on sales, and what is payable of it.
    expect(versionChanges(before, await standing())).toEqual([
      { name: 'T1', what: 'box', before: 2_300n, now: 3_450n },
      { name: 'T3', what: 'box', before: 2_300n, now: 3_450n },
      { name: 'Standard 23, 23 %', what: 'base', before: 10_000n, now: 15_000n },
      { name: 'Standard 23, 23 %', what: 'tax', before: 2_300n, now: 3_450n },
    ]);
  });
});

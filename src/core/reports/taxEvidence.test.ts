import { act, attachmentOf, issued, lineOf, newBook } from 'tests/book';
import { made, rowsOf } from 'tests/reports';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { payAuthority, undoAuthorityPayment } from '@/store/tax/actions/payTax';

const toGermany = (supply: 'goods' | 'service', taxCode: string, price: string) => ({
  customerId: 'nordlicht',
  lines: [lineOf({ supply, taxCode, price, taxClass: 'standard', taxByHand: true })],
});

describe('supplies inside the union', () => {
  test('are goods, services, or triangular: goods by reverse charge', async () => {
    const db = await newBook();
    await issued(db, toGermany('goods', 'IE-IC', '1000'));
    await issued(db, toGermany('service', 'IE-RC', '300'));
    await issued(db, toGermany('goods', 'IE-RC', '70'));
    const [row] = rowsOf(await made(db, 'recapitulative-list'));
    expect(row?.slice(2)).toEqual([100_000n, 30_000n, 7_000n]);
  });
  test('a discount on a document of both goes with its services', async () => {
    const db = await newBook();
    const lines = [
      lineOf({ supply: 'goods', taxCode: 'IE-RC', price: '100', taxByHand: true }),
      lineOf({ supply: 'service', taxCode: 'IE-RC', price: '50', taxByHand: true }),
    ];
    await issued(db, { customerId: 'nordlicht', lines });
    const [row] = rowsOf(await made(db, 'recapitulative-list'));
    expect(row?.slice(2)).toEqual([0n, 5_000n, 10_000n]);
  });
});

describe('what sales without tax rest on', () => {
  test('the customer’s verified number, and papers of the transport', async () => {
    const db = await newBook();
    const service = await issued(db, toGermany('service', 'IE-RC', '300'));
    const goods = await issued(db, toGermany('goods', 'IE-IC', '1000'));
    const other = await issued(db, toGermany('goods', 'IE-IC', '20'));
    await db.attachments.add(attachmentOf({ ownerId: goods.id, name: 'consignment note.pdf' }));
    const report = await made(db, 'tax-evidence');
    expect(rowsOf(report, 0).map((cells) => [cells[0], cells.at(-1)])).toEqual([[service.number, 30_000n]]);
    expect(rowsOf(report, 1).map((cells) => [cells[0], cells[4], cells[5]])).toEqual([
      [goods.number, 'consignment note.pdf', 100_000n],
      [other.number, 'none', 2_000n],
    ]);
    expect(report.notes.at(-1)).toContain(other.number);
    expect(report.notes.at(-1)).not.toContain(goods.number);
  });
  test('a number that was never verified is named', async () => {
    const db = await newBook();
    const customer = await db.customers.get('nordlicht');
    if (customer === undefined) throw new Error('the sample has it');
    await db.customers.put({
      ...customer,
      taxNumbers: customer.taxNumbers.map((one) => ({ ...one, check: null })),
    });
    const { number } = await issued(db, toGermany('service', 'IE-RC', '300'));
    const report = await made(db, 'tax-evidence');
    expect(rowsOf(report)[0]?.[5]).toBe('not verified');
    expect(report.notes).toEqual([`The customer’s number is not verified: ${number}.`]);
  });
});

describe('late entries', () => {
  test('say which period was filed before them', async () => {
    const db = await newBook();
    await issued(db);
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-10');
    const late = await issued(db, { issueDate: '2026-02-20' }, '2026-03-11');
    await issued(db, { issueDate: '2026-03-11' }, '2026-03-11');
    expect(rowsOf(await made(db, 'late-entries')).map((cells) => [cells[0], cells[4], cells[5], cells[7]])).toEqual([
      [late.number, 'Mar–Apr 2026', 'Jan–Feb 2026 was filed', 2_300n],
    ]);
  });
});

describe('what authorities are owed', () => {
  test('return by return, as at a day', async () => {
    const db = await newBook();
    await issued(db);
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-10');
    const on = (day: string) => ({ from: isoDate(day), until: isoDate(day) });
    expect(rowsOf(await made(db, 'authorities', on('2026-03-09')))).toEqual([]);
    expect(rowsOf(await made(db, 'authorities', on('2026-03-10'))).map((cells) => cells.slice(1))).toEqual([
      ['Jan–Feb 2026', '2026-03-10', 2_300n, 2_300n],
    ]);
  });
  test('less what was paid in parts until then, and undone since; with what is not filed beside', async () => {
    const db = await newBook();
    // 23 % of 1,000.00 in the period that is filed, 23 % of 50.00 in the one after it.
    await issued(db, { lines: [lineOf({ price: '1000' })] }, '2026-01-12');
    await issued(db, { lines: [lineOf({ price: '50' })] }, '2026-03-02');
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-05');
    const pay = { registrationId: 'ie-vat', start: '2026-01-01' };
    await act(db, payAuthority, { ...pay, date: '2026-03-18', amount: minor(20_000n) }, '2026-03-18');
    const rest = { ...pay, date: '2026-03-20', amount: minor(3_000n), interest: minor(120n) };
    const { id } = await act(db, payAuthority, rest, '2026-03-20');
    await act(db, undoAuthorityPayment, { id, date: '2026-03-25' }, '2026-03-25');
    const leftOn = async (day: string) => {
      const report = await made(db, 'authorities', { from: isoDate(day), until: isoDate(day) });
      expect(rowsOf(report, 1).map((cells) => cells.slice(1))).toEqual([['Mar–Apr 2026', '2026-04-30', 1_150n]]);
      return rowsOf(report).map((cells) => cells.at(-1));
    };
    expect(await leftOn('2026-03-17')).toEqual([23_000n]);
    expect(await leftOn('2026-03-18')).toEqual([3_000n]);
    expect(await leftOn('2026-03-20')).toEqual([]);
    expect(await leftOn('2026-03-25')).toEqual([3_000n]);
  });
});

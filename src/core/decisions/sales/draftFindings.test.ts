import { draftOf, lineOf, settingOf } from 'tests/book';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import type { Setting } from '@/core/documents/setting';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { draftFindings } from './draftFindings';

const TODAY = isoDate('2026-01-15');

function found(over: Partial<Draft> = {}, today: IsoDate = TODAY, setting: Setting = settingOf(), orderUsed = '') {
  const draft = draftOf({ customerId: 'clewbay', ...over });
  const customer = DEMO_CUSTOMERS.find(({ id }) => id === draft.customerId) ?? null;
  const frozen = freezeDraft(draft, 'INV-1', customer, setting);
  if (!frozen.ok) throw new Error(JSON.stringify(frozen.refusals));
  return draftFindings(draft, frozen.value, customer, setting, { today, orderUsed }).map(
    (f) => `${f.severity} ${f.rule} ${f.field}`,
  );
}

describe('a draft', () => {
  test('that is usual has nothing unusual', () => expect(found()).toEqual([]));
  test.each<[string, Partial<Draft>, string[]]>([
    ['issued years ahead', { issueDate: '2030-01-15' }, ['should DATE-ISSUE issueDate']],
    ['issued before the book', { issueDate: '2025-12-31', taxPoint: '2026-01-02' }, ['must DATE-BOOK issueDate']],
    ['with a tax point far away', { taxPoint: '2027-06-01' }, ['should DATE-TAX-POINT taxPoint']],
    ['due in two years', { due: '2028-01-15' }, ['should DATE-DUE due']],
  ])('%s', (_, over, findings) => expect(found(over)).toEqual(findings));
  test('issued long ago is asked about, a month ago is not', () => {
    expect(found({}, isoDate('2026-04-18'))).toEqual(['should DATE-ISSUE issueDate']);
    expect(found({}, isoDate('2026-02-15'))).toEqual([]);
  });
});

describe('a tax chosen manually', () => {
  test('that the table would give too is fine', () => {
    expect(found({ lines: [lineOf({ taxByHand: true })] })).toEqual([]);
  });
  test('that it would not give is asked about, at its line', () => {
    expect(found({ lines: [lineOf(), lineOf({ taxCode: 'IE-R', taxByHand: true })] })).toEqual([
      'should TAX-BY-HAND lines[1].taxCode',
    ]);
  });
  test('of another country is asked about', () => {
    const setting = settingOf();
    const kenya = { id: 'KE', name: 'Kenya', kind: 'country' as const, code: 'KE', parentId: '' };
    const rate = {
      taxClass: 'standard',
      from: isoDate('2020-01-01'),
      until: '',
      percent: decimal('16'),
      perUnit: '',
      source: '',
    } as const;
    const tax = { id: 'KE-VAT', jurisdictionId: 'KE', name: 'VAT', rates: [rate] };
    const component = { taxId: 'KE-VAT', taxClass: 'standard', family: '', compound: false };
    const code = {
      id: 'KE-S',
      name: 'Standard',
      category: 'S' as const,
      components: [component],
      legends: [],
      exemptionCode: '',
      boxBase: '',
      boxTax: '',
    };
    const { setup } = setting;
    const wider: Setting = {
      ...setting,
      setup: {
        ...setup,
        jurisdiction: new Map([...setup.jurisdiction, ['KE', kenya]]),
        tax: new Map([...setup.tax, ['KE-VAT', tax]]),
        code: new Map([...setup.code, ['KE-S', code]]),
      },
    };
    expect(found({ lines: [lineOf({ taxCode: 'KE-S', taxByHand: true })] }, TODAY, wider)).toEqual([
      'should TAX-BY-HAND lines[0].taxCode',
      'should TAX-ABROAD lines[0].taxCode',
    ]);
  });
});

describe('a typed tax', () => {
  const typed = (amount: string) => ({
    lines: [lineOf({ price: '106' })],
    overrides: [{ tax: 'IE-S', family: 'IE-VAT', amount, reason: 'as the till has it' }],
  });
  // 23 % of 106.00 is 24.38.
  test.each([
    ['a few cents off is fine', '24.50', []],
    ['a euro off is asked about', '25.38', ['should TAX-TYPED overrides[0].amount']],
    ['beyond half of what the lines come to is refused', '37.58', ['must TAX-TYPED overrides[0].amount']],
    ['far above is refused', '999', ['must TAX-TYPED overrides[0].amount']],
    ['nothing is refused', '0', ['must TAX-TYPED overrides[0].amount']],
  ])('%s', (_, amount, findings) => expect(found(typed(amount))).toEqual(findings));
});

test('an exchange rate of more than a month ago is asked about', () => {
  const on = (date: string) =>
    settingOf({ rateOf: () => ({ perHome: decimal('1.0850'), date: isoDate(date), source: 'test' }) });
  expect(found({ currency: 'USD' }, TODAY, on('2025-08-10'))).toEqual(['should RATE-OLD perHome']);
  expect(found({ currency: 'USD' }, TODAY, on('2026-01-05'))).toEqual([]);
});

test('a public customer without an e-invoice address is asked about, others are not', () => {
  const setting = settingOf();
  const draft = draftOf({ customerId: 'ballyvaughan' });
  const known = DEMO_CUSTOMERS.find(({ id }) => id === 'ballyvaughan') ?? null;
  if (known === null) throw new Error('no customer');
  const customer = { ...known, kind: 'government' as const, endpoint: { scheme: '', id: '' } };
  const frozen = freezeDraft(draft, 'INV-1', customer, setting);
  if (!frozen.ok) throw new Error(JSON.stringify(frozen.refusals));
  const rules = (kind: 'government' | 'business') =>
    draftFindings(draft, frozen.value, { ...customer, kind }, setting, { today: TODAY, orderUsed: '' }).map(
      ({ rule }) => rule,
    );
  expect([rules('government'), rules('business')]).toEqual([['E-INVOICE-ADDRESS'], []]);
});

test('an order number that stands on another invoice, and a quantity below zero, are asked about', () => {
  expect(found({ orderNumber: 'PO-1' }, TODAY, settingOf(), 'INV-9')).toEqual(['should ORDER-USED orderNumber']);
  expect(found({ lines: [lineOf(), lineOf({ quantity: '-1' })] })).toEqual(['should QUANTITY-BELOW lines[1].quantity']);
});

describe('a figure with a mark before three digits', () => {
  const at = (country: string): Setting => {
    const setting = settingOf();
    const { business } = setting;
    return { ...setting, business: { ...business, address: { ...business.address, country } } };
  };
  test.each([
    ['DE', '1.200', ['should FIGURE-READ lines[0].price']],
    ['DE', '1,200', ['should FIGURE-READ lines[0].price']],
    ['DE', '0.125', []],
    ['DE', '1200', []],
    ['DE', '1.200,00', []],
    ['IE', '1.200', []],
    ['IE', '1,200', []],
  ])('in %s: %s', (country, price, findings) => {
    const rules = found({ lines: [lineOf({ price })] }, TODAY, at(country)).filter((one) => one.includes('FIGURE'));
    expect(rules).toEqual(findings);
  });
});

import { draftOf, lineOf, settingOf } from 'tests/book';
import { blankAdjustment } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { draftXml } from './draftXml';

describe('the e-invoice beside a draft', () => {
  const draft = draftOf({
    buyerReference: 'BHB-1',
    orderNumber: 'PO-7',
    note: 'With thanks',
    taxPoint: '2026-01-10',
    lines: [
      lineOf({ description: 'Tide gauge', quantity: '2', price: '940.00' }),
      lineOf({ description: 'Check\non site', quantity: '1.5', price: '160', discount: '10%' }),
    ],
    adjustments: [{ ...blankAdjustment('f', 'allowance', '4900'), amount: '5%' }],
  });
  const frozen = freezeDraft(draft, 'INV-1', DEMO_CUSTOMERS[0] ?? null, settingOf());
  if (!frozen.ok) throw new Error(JSON.stringify(frozen.refusals));
  const { xml, places } = draftXml(frozen.value);
  const lines = xml.split('\n');
  /** The text that stands where a field leads. */
  const at = (field: string) => {
    const place = places.find((one) => one.field === field);
    return place === undefined ? '' : (lines[place.line - 1] ?? '').trim();
  };

  test.each([
    ['buyerReference', '<cbc:BuyerReference>BHB-1</cbc:BuyerReference>'],
    ['orderNumber', '<cbc:ID>PO-7</cbc:ID>'],
    ['note', '<cbc:Note>With thanks</cbc:Note>'],
    ['issueDate', '<cbc:IssueDate>2026-01-15</cbc:IssueDate>'],
    ['taxPoint', '<cbc:TaxPointDate>2026-01-10</cbc:TaxPointDate>'],
    ['customerId', '<cbc:RegistrationName>Ballyvaughan Harbour Board</cbc:RegistrationName>'],
    ['lines[0].description', '<cbc:Name>Tide gauge</cbc:Name>'],
    ['lines[0].price', '<cbc:PriceAmount currencyID="EUR">940.00</cbc:PriceAmount>'],
    ['lines[1].quantity', '<cbc:InvoicedQuantity unitCode="C62">1.5</cbc:InvoicedQuantity>'],
    ['lines[1].discount', '<cbc:Amount currencyID="EUR">24.00</cbc:Amount>'],
  ])('%s leads to the line that says it', (field, text) => {
    expect(at(field)).toBe(text);
  });

  test('every place is a line of the text, and lines of the invoice stay apart', () => {
    expect(places.every(({ line }) => line > 0 && line <= lines.length)).toBe(true);
    const first = places.filter(({ field }) => field.startsWith('lines[0]')).map(({ line }) => line);
    const second = places.filter(({ field }) => field.startsWith('lines[1]')).map(({ line }) => line);
    expect(Math.max(...first)).toBeLessThan(Math.min(...second));
  });
});

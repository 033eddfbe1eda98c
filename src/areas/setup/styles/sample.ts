import { type Content, figuresOf } from '@/core/documents/content';
import { freezeSeller } from '@/core/documents/setting';
import { addDays, type IsoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import type { BankAccount } from '@/core/parties/bankAccount';
import type { Business } from '@/core/parties/business';
import type { Registration } from '@/core/tax/registration';
import type { PrintJob } from '@/workers/print.worker';

/** A made-up invoice of the business, to show a style with. */
export function sampleJob(
  business: Business,
  registration: Registration,
  today: IsoDate,
  paidInto?: BankAccount,
): PrintJob {
  const content: Content = {
    kind: 'invoice',
    number: 'SAMPLE-0001',
    registrationId: registration.id,
    customerId: '',
    issueDate: today,
    taxPoint: today,
    dueDate: addDays(today, 30),
    currency: business.homeCurrency,
    priceMode: 'net',
    seller: freezeSeller(business, registration, paidInto),
    buyer: {
      name: 'A customer (sample)',
      address: {
        street: 'Their street 1',
        city: 'Their town',
        region: '',
        postalCode: '',
        country: business.address.country,
      },
      email: '',
      taxNumber: '',
      endpoint: { scheme: '', id: '' },
    },
    buyerReference: 'Ref 1',
    orderNumber: '4711',
    subject: 'What it is about',
    salesperson: 'Our person',
    note: 'A note to the customer.',
    taxes: [
      {
        code: 'S',
        name: 'Standard 20',
        category: 'S',
        percent: decimal('20'),
        since: today,
        legend: '',
        exemptionCode: '',
      },
    ],
    lines: [
      ['First item\nwith a further line of text', '2', '120.00', '10'],
      ['Second item', '1.5', '48.00', ''],
    ].map(([description = '', quantity = '1', price = '0', discount = ''], i) => ({
      id: String(i),
      description,
      quantity: decimal(quantity),
      unit: 'C62',
      unitPrice: decimal(price),
      ...(discount !== '' && { discount: { percent: decimal(discount) } }),
      tax: 'S',
      taxByHand: false,
      account: '',
    })),
  };
  return { content, figures: figuresOf(content), issuedAt: `${today}T12:00:00.000Z`, seal: '7KQ2-M0XR-94TD' };
}

/** A document of one line as `able calc` reads it: 40.00 with 9 % inside. */
export const CALC_DOCUMENT = {
  currency: 'EUR',
  priceMode: 'gross',
  rounding: { mode: 'half-up', level: 'document' },
  taxes: { R: { category: 'S', components: [{ id: 'r', rate: '9' }] } },
  lines: [{ id: '1', quantity: '1', unitPrice: '40', tax: 'R' }],
};

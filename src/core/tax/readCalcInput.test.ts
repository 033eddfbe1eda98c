import { readCalcInput } from './readCalcInput';

const good = {
  currency: 'EUR',
  priceMode: 'net',
  rounding: { mode: 'half-up', level: 'document' },
  taxes: { S: { category: 'S', components: [{ id: 'vat', rate: '23' }] } },
  lines: [{ id: '1', quantity: '1', unitPrice: '100', tax: 'S' }],
};
const line = (over: object) => ({ ...good, lines: [{ ...good.lines[0], ...over }] });

describe('a calculation from foreign data', () => {
  test('is taken when it is whole', () => expect(readCalcInput(good)).toMatchObject({ ok: true }));

  test.each<[string, unknown, string]>([
    ['not an object', 5, ''],
    ['an array', [], ''],
    ['nothing', null, ''],
    ['an unknown currency', { ...good, currency: 'XXX' }, 'currency'],
    ['an unknown mode', { ...good, priceMode: 'both' }, 'priceMode'],
    ['an unknown rounding', { ...good, rounding: { mode: 'up', level: 'document' } }, 'rounding.mode'],
    ['a coin of nothing', { ...good, rounding: { ...good.rounding, cashStep: '0' } }, 'rounding.cashStep'],
    ['a number instead of text', line({ quantity: 3 }), 'lines[0].quantity'],
    ['words for a quantity', line({ quantity: 'three' }), 'lines[0].quantity'],
    ['no quantity', line({ quantity: undefined }), 'lines[0].quantity'],
    ['eleven decimals', line({ unitPrice: '0.12345678901' }), 'lines[0].unitPrice'],
    ['a base quantity of nothing', line({ baseQuantity: '0' }), 'lines[0].baseQuantity'],
    ['both kinds of discount', line({ discount: { percent: '1', amount: '1' } }), 'lines[0].discount'],
    ['neither kind of discount', line({ discount: {} }), 'lines[0].discount'],
    ['a discount below the cent', line({ discount: { amount: '0.001' } }), 'lines[0].discount.amount'],
    ['a code that is not listed', line({ tax: 'X' }), 'lines[0].tax'],
    ['a code named like an inherited member', line({ tax: 'constructor' }), 'lines[0].tax'],
    ['no lines', { ...good, lines: undefined }, 'lines'],
    ['lines that are no list', { ...good, lines: 'x' }, 'lines'],
    [
      'a negative rate',
      { ...good, taxes: { S: { category: 'S', components: [{ id: 'v', rate: '-1' }] } } },
      'taxes.S.components[0].rate',
    ],
    ['an unknown category', { ...good, taxes: { S: { category: 'Q', components: [] } } }, 'taxes.S.category'],
    [
      'a component of two kinds',
      { ...good, taxes: { S: { category: 'S', components: [{ id: 'v', rate: '1', perUnit: '1' }] } } },
      'taxes.S.components[0]',
    ],
    ['prepaid below the cent', { ...good, prepaid: '0.001' }, 'prepaid'],
    ['a home rate of nothing', { ...good, home: { currency: 'USD', rate: '0' } }, 'home.rate'],
    ['an unknown home currency', { ...good, home: { currency: 'US', rate: '1' } }, 'home.currency'],
    ['an unknown base', { ...good, withholding: [{ id: 'w', base: 'all', rate: '5' }] }, 'withholding[0].base'],
    [
      'an override of a strange family',
      { ...good, overrides: [{ tax: 'S', family: 'x', amount: '1.00', reason: 'r' }] },
      'overrides[0].family',
    ],
    [
      'an override without a reason',
      { ...good, overrides: [{ tax: 'S', family: 'vat', amount: '1.00' }] },
      'overrides[0].reason',
    ],
    [
      'an allowance with nothing to spread over',
      { ...good, lines: [], adjustments: [{ id: 'a', kind: 'allowance', amount: '1' }] },
      'adjustments[0].tax',
    ],
  ])('%s is refused at its path', (_, data, path) => {
    const result = readCalcInput(data);
    if (result.ok) throw new Error('was taken');
    expect(result.refusals[0]).toMatchObject({ code: 'malformed', path, must: expect.stringMatching(/^must /) });
  });
});

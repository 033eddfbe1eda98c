import { GET } from '@/app/standins/tax-number/route';
import { askRegistry } from './numberRegistry';

describe('the simulated registry of tax numbers', () => {
  test.each([
    ['DE', 'DE812345673', 'valid'],
    ['DE', 'DE812345674', 'invalid'],
    ['BR', '12300', 'invalid'],
    ['BR', '12399', 'unreachable'],
    ['BR', 'letters', 'invalid'],
  ])('%s %s is %s', (country, number, result) => expect(askRegistry(country, number).result).toBe(result));
  test('gives the same reference for the same number', () => {
    expect(askRegistry('DE', 'DE 812 345 673')).toEqual(askRegistry('DE', 'DE812345673'));
  });
});

describe('its address', () => {
  const ask = async (query: string) => {
    const response = GET(new Request(`http://localhost/standins/tax-number?${query}`));
    return [response.status, (await response.json()).result] as const;
  };
  test.each([
    ['country=DE&number=DE812345673', 200, 'valid'],
    ['country=BR&number=99', 503, 'unreachable'],
    ['country=XX&number=1', 400, undefined],
    ['country=DE', 400, undefined],
    [`country=DE&number=${'1'.repeat(31)}`, 400, undefined],
  ])('%s answers %d', async (query, status, result) => expect(await ask(query)).toEqual([status, result]));
});

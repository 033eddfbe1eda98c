import { refusalCodes } from 'tests/book';
import { currency } from '@/core/kernel/currency';
import { FIRST_CHART } from '@/core/ledger/account';
import { DEMO_BANK_ACCOUNT } from '@/demo/setup';
import { type BankAccountMaterial, saveBankAccount } from '../decisions/setup/bankAccount';
import { type BankAccount, bankAccountFor, blankBankAccount } from './bankAccount';

const USD = currency('USD');
const bank: BankAccount = DEMO_BANK_ACCOUNT;
const dollars: BankAccount = { ...bank, id: 'usd', name: 'Dollars', currency: USD, account: '1001' };
const second: BankAccount = { ...bank, id: 'second', name: 'Second', account: '1002' };

describe('the account a document is paid into', () => {
  const among = (accounts: readonly BankAccount[], paid: string, ...ids: (string | undefined)[]) =>
    bankAccountFor(accounts, paid, 'EUR', ...ids)?.id;
  test('is the one of its currency, first by its ledger account', () => {
    expect(among([second, dollars, bank], 'EUR')).toBe('bank');
    expect(among([second, dollars, bank], 'USD')).toBe('usd');
  });
  test('is one in home currency where none has its currency', () => expect(among([dollars, bank], 'GBP')).toBe('bank'));
  test('is its own choice before its style’s, and a choice that is gone counts for nothing', () => {
    expect(among([bank, second, dollars], 'EUR', 'second', 'usd')).toBe('second');
    expect(among([bank, second, dollars], 'EUR', '', 'usd')).toBe('usd');
    expect(among([bank, second], 'EUR', 'gone', undefined)).toBe('bank');
  });
  test('is none that is archived or that nobody can pay into', () => {
    expect(among([{ ...bank, archived: true }, second], 'EUR')).toBe('second');
    expect(among([blankBankAccount('blank', 'Blank', bank.currency, '1009')], 'EUR')).toBeUndefined();
  });
});

describe('keeping a bank account', () => {
  const material: BankAccountMaterial = {
    before: undefined,
    isNew: true,
    others: [bank],
    chart: FIRST_CHART,
    used: false,
  };
  test('makes an account in the ledger beside the first', () => {
    const kept = saveBankAccount({ ...second, account: '' }, material);
    expect(kept.ok && kept.value.value.account).toBe('1001');
    expect(kept.ok && kept.value.changes.add?.accounts).toEqual([
      { code: '1001', name: 'Second', type: 'asset', role: 'bank' },
    ]);
  });
  test.each<[string, Partial<BankAccount>, Partial<BankAccountMaterial>, string[]]>([
    ['an account of the ledger that another bank account has', { account: '1000' }, {}, ['used']],
    ['one that is no asset', { account: '4000' }, {}, ['unknown']],
    ['one that is not there', { account: '1999' }, {}, ['unknown']],
    ['an IBAN with wrong check digits', { iban: 'IE32CPTB99000012345678' }, {}, ['invalid']],
    [
      'another currency once it is used',
      { account: '1010', currency: USD },
      { before: { ...second, account: '1010' }, isNew: false, used: true },
      ['in-use'],
    ],
  ])('refuses %s', (_what, over, with_, codes) => {
    expect(refusalCodes(saveBankAccount({ ...second, ...over }, { ...material, ...with_ }))).toEqual(codes);
  });
});

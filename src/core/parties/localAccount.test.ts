import { isLocalAccount, type LocalKind } from './localAccount';

describe('an account without IBAN', () => {
  test.each<[LocalKind, string, string]>([
    ['sort-code', '00-00-00', '12345678'],
    ['bsb', '000-000', '123456789'],
    // 3·1 + 7·2 + 3 + 3·4 + 7·5 + 6 + 3·7 + 7·8 + 0 = 150.
    ['routing', '123456780', '000123456789'],
    ['transit', '000-00000', '1234567'],
    ['ifsc', 'abcd0123456', '123456789012'],
    ['bank-branch', '00-0000', '0000000-00'],
  ])('%s %s %s passes', (kind, code, number) => expect(isLocalAccount({ kind, code, number })).toBe(true));
  test.each<[LocalKind, string, string]>([
    ['sort-code', '00-00-0', '12345678'],
    ['sort-code', '00-00-00', '1234567'],
    ['routing', '123456789', '000123456789'],
    ['ifsc', 'ABCD1123456', '123456789012'],
    ['bsb', 'abc-def', '123456'],
  ])('%s %s %s does not', (kind, code, number) => expect(isLocalAccount({ kind, code, number })).toBe(false));
});

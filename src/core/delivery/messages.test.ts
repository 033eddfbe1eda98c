import fc from 'fast-check';
import { isoDate } from '@/core/kernel/date';
import { blankCustomer, sendingOf } from '@/core/parties/customer';
import { proposed, receiversFor, valuesOfAccount, valuesOfReceipt } from './compose';
import { FIRST_TEMPLATES } from './firstTemplates';
import { MAIL_PURPOSES, type Mail, mailHeard, newMail, standingAt } from './mail';
import type { MailNews } from './mailServer';
import { filledIn, firstTemplate, messageTemplateSchema, PLACEHOLDERS, unknownPlaceholders } from './messageTemplate';

const NOON = '2026-01-15T12:00:00.000Z';

describe('the words that come with the program', () => {
  const all = Object.keys(FIRST_TEMPLATES).flatMap((language) =>
    MAIL_PURPOSES.map((purpose) => [language, purpose, firstTemplate(purpose, language)] as const),
  );
  test.each(all)('%s, %s: name nothing that is not there', (_, __, template) => {
    expect(unknownPlaceholders(template.subject + template.text)).toEqual([]);
    expect(messageTemplateSchema.isValidSync(template)).toBe(true);
    expect(template.text).toContain('{business}');
  });
  test('in a language that they are not written in are English', () => {
    expect(firstTemplate('invoice', 'nl').text).toBe(firstTemplate('invoice', 'en').text);
  });
});

const write = {
  money: (amount: bigint, currency: string) => `${amount} ${currency}`,
  day: (day: string) => day,
  colon: ':',
};
const names = { customer: 'Who', contact: '', business: 'We' };

describe('placeholders', () => {
  test('without a value are told, and never go out in braces', () => {
    expect(filledIn('{number} of {date}, {due}', { number: 'INV-1', date: '' })).toEqual({
      text: 'INV-1 of , ',
      missing: ['{date}', '{due}'],
    });
    expect(unknownPlaceholders('{number} {numbr} { number}')).toEqual(['numbr', ' number']);
  });
  test('are filled whatever the values say, once', () => {
    fc.assert(
      fc.property(fc.string(), (value) => {
        const said = filledIn('a {customer} b', { customer: value });
        expect(said.text).toBe(`a ${value} b`);
        expect(said.missing).toEqual(value === '' ? ['{customer}'] : []);
      }),
    );
  });
  test('in a subject never break it into lines', () => {
    const template = { ...firstTemplate('invoice', 'en'), subject: 'For {customer}' };
    const values = Object.fromEntries(Object.keys(PLACEHOLDERS).map((name) => [name, 'a\r\nBcc: x@y.example']));
    expect(proposed(template, values, []).subject).toBe('For a Bcc: x@y.example');
  });
  test('of an account sum each currency, and count from the oldest day', () => {
    const items = [
      { number: 'A', due: isoDate('2026-01-05'), open: 100n, currency: 'EUR' },
      { number: 'B', due: isoDate('2026-01-10'), open: 50n, currency: 'EUR' },
      { number: 'C', due: isoDate('2026-01-12'), open: 7n, currency: 'USD' },
    ];
    expect(valuesOfAccount(items, isoDate('2026-01-15'), names, write)).toMatchObject({
      contact: 'Who',
      documents: 'A, 2026-01-05: 100 EUR\nB, 2026-01-10: 50 EUR\nC, 2026-01-12: 7 USD',
      'amount due': '150 EUR, 7 USD',
      'days late': '10',
    });
  });
  test('of a receipt name what it settles, and that a receipt on account settles nothing leaves no gap', () => {
    const receipt = {
      number: 'REC-1',
      date: isoDate('2026-01-05'),
      amount: 150n,
      open: 50n,
      currency: 'EUR',
      reference: '',
    };
    const settles = [{ debtNumber: 'INV-1', amount: 100n }];
    const template = { ...firstTemplate('receipt', 'en'), text: '{number}, {total}\n\n{documents}\n\n{business}' };
    const words = (of: typeof settles) =>
      proposed(template, valuesOfReceipt(receipt as never, of as never, names, write), []).text;
    expect(words(settles)).toBe('REC-1, 150 EUR\n\nINV-1: 100 EUR\n\nWe');
    expect(words([])).toBe('REC-1, 150 EUR\n\nWe');
  });
});

describe('who gets a message', () => {
  const contact = (email: string, ...gets: ('quotes' | 'invoices' | 'statements' | 'reminders')[]) => ({
    name: email,
    role: '',
    email,
    phone: '',
    gets,
  });
  const customer = { ...blankCustomer('c', 'Who', 'IE'), email: 'all@x.example' };
  test('contacts that are to, else the customer, else anybody with an address', () => {
    const contacts = [contact('a@x.example', 'invoices'), contact('b@x.example', 'reminders', 'statements')];
    expect(receiversFor({ ...customer, contacts }, 'credit-note').to).toEqual(['a@x.example']);
    expect(receiversFor({ ...customer, contacts }, 'reminder-2').to).toEqual(['b@x.example']);
    expect(receiversFor({ ...customer, contacts }, 'quote').to).toEqual(['all@x.example']);
    expect(receiversFor({ contacts, email: '' }, 'quote').to).toEqual(['a@x.example']);
    expect(receiversFor({ contacts: [], email: '' }, 'quote').to).toEqual([]);
  });
  test('by the way that was chosen, else by its addresses', () => {
    expect(sendingOf(customer)).toEqual({ way: 'mail', files: ['pdf'] });
    expect(sendingOf({ ...customer, email: '' }).way).toBe('print');
    expect(sendingOf({ ...customer, endpoint: { scheme: '9930', id: '1' } }).way).toBe('e-invoice');
    expect(sendingOf({ ...customer, sending: { way: 'none', files: ['ubl'] } })).toEqual({
      way: 'none',
      files: ['ubl'],
    });
    expect(sendingOf({ ...customer, sending: { way: '', files: ['ubl'] } })).toEqual({ way: 'mail', files: ['ubl'] });
  });
});

test('news of a message come to the same in any order, told once or twice', () => {
  const to = ['a@x.example', 'b@x.example'];
  const sent = {
    ...newMail({ to, cc: [], bcc: [] } as never, NOON),
    receipt: { reference: 'M', at: NOON, again: false },
  } as Mail;
  const news = fc.array(
    fc.record({
      kind: fc.constantFrom('delivered', 'delayed', 'bounced', 'opened'),
      recipient: fc.constantFrom(...to),
    }),
    { maxLength: 6 },
  );
  fc.assert(
    fc.property(news, fc.infiniteStream(fc.nat(5)), (told, order) => {
      const all = told.map((one, i): MailNews => ({ ...one, id: String(i), at: NOON, words: '' }));
      const other = all
        .map((one) => [order.next().value, one] as const)
        .sort(([a], [b]) => a - b)
        .map(([, one]) => one);
      const hear = (each: readonly MailNews[]) => each.reduce((mail, one) => mailHeard(mail, [one, one], NOON), sent);
      const standing = (mail: Mail) => standingAt(mail).map(({ news: one }) => one?.kind ?? null);
      expect(standing(hear(other))).toEqual(standing(mailHeard(sent, all, NOON)));
      expect(hear(other).phase === 'asks').toBe(mailHeard(sent, all, NOON).phase === 'asks');
    }),
  );
});

import type { Currency } from './currency';
import type { Minor } from './money';

/**
 * What a refusal asks for instead of what was given. Each name stands for one sentence in
 * `core/wording/wanted.ts`; those that need figures or names carry them.
 */
export type Wanted =
  | PlainWanted
  | { [What in keyof WantedFacts]: { readonly what: What } & WantedFacts[What] }[keyof WantedFacts];

export interface WantedFacts {
  'another-row': { readonly row: number };
  /** `found` is the message that was given: `camt.054`; empty for none. */
  'camt-053': { readonly found: string };
  'cells-of-the-head': { readonly count: number };
  'code-of-territory': { readonly registration: string; readonly code: string };
  discount: { readonly decimals: number };
  'encoding-it-names': { readonly encoding: string };
  'e-invoice-root': { readonly root: string };
  'exchange-rate': { readonly currency: Currency; readonly need: RateNeed; readonly typed: boolean };
  /** `sample` is an account of the wanted form; empty where the kind is none. */
  'local-account': { readonly sample: string };
  'fewer-receivers': { readonly most: number };
  'fewer-lines': { readonly most: number };
  'fewer-elements': { readonly most: number };
  'fewer-taxes': { readonly most: number };
  'file-of': { readonly mib: number };
  heads: { readonly heads: readonly string[]; readonly missing: readonly string[] };
  'id-of-the-one-meant': { readonly by: NamedBy };
  'less-nesting': { readonly most: number };
  'line-of-one-registration': { readonly line: string; readonly document: string };
  /** Sizes in bytes. */
  'message-of': { readonly number: string; readonly size: number; readonly most: number };
  'money-such-as': { readonly sample: string };
  placeholder: { readonly found: string };
  'number-form': { readonly country: string; readonly sample: string };
  'percentage-or-amount-of': { readonly decimals: number };
  'rates-of': { readonly home: Currency };
  'region-of-country': { readonly name: string; readonly code: string };
  'same-of-record': { readonly row: number; readonly said: string };
  'say-what-it-is-for': { readonly kind: 'allowance' | 'charge' };
  'shorter-tags': { readonly most: number };
  'shorter-text': { readonly most: number };
  'sum-that-is-settled': { readonly received: Minor; readonly settled: Minor; readonly currency: Currency };
  'short-code': { readonly sample: string };
  'statement-amount': { readonly currency: Currency };
  'statement-of-account': { readonly account: string; readonly stated: string };
  'tax-amount': { readonly whole: boolean };
  'well-formed': { readonly error: string };
}

/** What an exchange rate is needed for. */
export type RateNeed = 'document' | 'receipt' | { readonly filing: string } | { readonly threshold: string };

/** Where a name stands already: under an id in the book, or in a row of the file. */
export type NamedBy = { readonly id: string } | { readonly row: number };

export type PlainWanted =
  | 'account-of-its-own-records'
  | 'add-income-account'
  | 'amount-above-zero'
  | 'archive-of-8-gib'
  | 'bic-of-8-or-11'
  | 'both-reference-and-account'
  | 'both-scheme-and-id'
  | 'capitals-digits-dashes'
  | 'charge-within'
  | 'choose-a-jurisdiction-at-least'
  | 'choose-account'
  | 'choose-account-type'
  | 'give-account-code'
  | 'choose-box'
  | 'choose-month'
  | 'no-account-here'
  | 'say-where-from'
  | 'choose-account-of-chart'
  | 'choose-account-such-as-4000'
  | 'choose-base'
  | 'choose-basis'
  | 'choose-category'
  | 'choose-code'
  | 'choose-country'
  | 'choose-currency'
  | 'choose-currency-of-thresholds'
  | 'choose-customer'
  | 'choose-frequency'
  | 'choose-its-tax-code'
  | 'choose-jurisdiction'
  | 'choose-kind-of-customer'
  | 'choose-kind-of-draft'
  | 'choose-language'
  | 'choose-other-record'
  | 'choose-picture'
  | 'choose-rounding'
  | 'choose-supply'
  | 'choose-tax'
  | 'choose-tax-code-of-line'
  | 'choose-territory'
  | 'choose-territory-above'
  | 'choose-unit'
  | 'choose-what-it-is'
  | 'choose-when-withheld'
  | 'close-quotation-mark'
  | 'country-of-two-letters'
  | 'country-on-top'
  | 'credit-from-invoice'
  | 'day-not-before-allocation'
  | 'day-not-before-document'
  | 'day-not-before-invoice'
  | 'day-not-before-journal'
  | 'day-not-before-quote'
  | 'day-not-before-receipt'
  | 'day-or-nothing'
  | 'due-date-not-before-issue'
  | 'end-not-before-begin'
  | 'fewer-days-of-rates'
  | 'file-an-e-invoice-takes'
  | 'file-of-10-mib'
  | 'file-of-2-mib'
  | 'file-with-content'
  | 'columns-of-statement'
  | 'file-with-statement'
  | 'file-without-dtd'
  | 'statement-day'
  | 'statement-in-known-currency'
  | 'first-day-or-nothing'
  | 'first-number-from-1'
  | 'first-number-of-nine-digits'
  | 'give-a-jurisdiction'
  | 'fill-this-in'
  | 'choose-purpose'
  | 'choose-rhythm'
  | 'give-count'
  | 'percent-or-list'
  | 'say-what-was-said'
  | 'day-from-today'
  | 'three-reminders'
  | 'reminders-rise'
  | 'recurring-is-made-when-due'
  | 'until-not-before-first'
  | 'choose-way-of-sending'
  | 'give-a-day'
  | 'give-recipient'
  | 'give-sender'
  | 'write-words-of-message'
  | 'give-deferral'
  | 'give-certificate-number'
  | 'give-name-of-customer'
  | 'give-address-of-page'
  | 'give-a-name'
  | 'give-part-of-text'
  | 'give-plain-word'
  | 'give-unit-code'
  | 'give-a-rate'
  | 'give-accounting-date'
  | 'give-amount'
  | 'give-amount-per-unit'
  | 'give-authority'
  | 'give-colour'
  | 'give-customer'
  | 'give-day-of-credit'
  | 'give-day-of-journal'
  | 'give-day-of-money'
  | 'give-day-of-old-document'
  | 'give-day-of-rate'
  | 'give-day-of-supply'
  | 'give-day-of-till'
  | 'give-day-rate-begins'
  | 'give-debit-or-credit'
  | 'give-due-date'
  | 'give-due-day'
  | 'give-e-mail'
  | 'give-exchange-rate'
  | 'give-first-day'
  | 'give-first-day-of-supply'
  | 'give-first-period'
  | 'give-id'
  | 'give-income-account'
  | 'give-iso-3166'
  | 'give-issue-date'
  | 'give-item'
  | 'give-language'
  | 'give-name-of-business'
  | 'give-name-of-code'
  | 'give-name-of-row'
  | 'give-name-of-tax'
  | 'give-name-of-view'
  | 'give-number-of-certificate'
  | 'give-old-number'
  | 'give-open-amount'
  | 'give-percentage'
  | 'give-postal-codes'
  | 'give-prefix'
  | 'give-price'
  | 'give-quantity'
  | 'give-reason-of-exemption'
  | 'give-registration-number'
  | 'give-scheme'
  | 'give-short-name'
  | 'give-smallest-coin'
  | 'give-street-or-place'
  | 'give-takings'
  | 'give-tax'
  | 'give-tax-class'
  | 'give-tax-point'
  | 'give-territory'
  | 'give-the-jurisdiction'
  | 'give-the-name'
  | 'give-the-number'
  | 'give-threshold'
  | 'give-town-or-city'
  | 'give-vatex'
  | 'give-whole-number'
  | 'give-withholding-type'
  | 'give-words-to-print'
  | 'iban-of-mandate'
  | 'iban-of-statement'
  | 'invoice-above-zero'
  | 'item-twice'
  | 'jurisdiction-twice'
  | 'known-customer'
  | 'known-registration'
  | 'same-in-all-rows'
  | 'known-document'
  | 'known-tax-code'
  | 'rows-in-file'
  | 'known-tax-class'
  | 'language-twice'
  | 'last-day-of-month'
  | 'last-day-or-nothing'
  | 'name-a-tax'
  | 'nine-digits-at-most'
  | 'no-taxes'
  | 'not-itself'
  | 'not-merged-before'
  | 'number-of-letter'
  | 'number-outside-series'
  | 'one-currency'
  | 'one-digit-at-least'
  | 'one-rate-a-day'
  | 'one-rate-of-a-class-a-day'
  | 'output-account-of-its-own'
  | 'pdf-of-20-mb'
  | 'pdf-of-fewer-files'
  | 'pdf-packed-plainly'
  | 'pdf-that-unpacks'
  | 'pdf-unpacking-to-40-mb'
  | 'pdf-with-e-invoice'
  | 'percentage-or-amount'
  | 'percentage-to-100'
  | 'plain-values'
  | 'post-dated-alone'
  | 'prefix-of-letters-and-digits'
  | 'quote-above-zero'
  | 'rates-without-dtd'
  | 'readable-pdf'
  | 'say-how-long-it-holds'
  | 'say-terms'
  | 'say-what-address-is-for'
  | 'say-what-came'
  | 'say-what-is-supplied'
  | 'say-what-is-taken-back'
  | 'say-what-journal-is-for'
  | 'say-what-money-settles'
  | 'say-what-to-do'
  | 'say-what-was-done'
  | 'say-where-it-lies'
  | 'say-which-addresses'
  | 'say-who-accepted'
  | 'say-why-cancelled'
  | 'say-why-credited'
  | 'say-why-declined'
  | 'say-why-no-tax'
  | 'say-why-reopened'
  | 'say-why-difference-is-accepted'
  | 'give-balance-by-statement'
  | 'say-why-tax-is-typed'
  | 'say-why-written-off'
  | 'set-up-registration'
  | 'something-to-bill'
  | 'table-of-20-mb'
  | 'tax-twice'
  | 'till-after-its-day'
  | 'two-lines'
  | 'whole-xml-file'
  | 'write-a-line';

/** Hands what is wanted to a schema as its message; the schema gives it back as it is. */
export function wanted(what: Wanted): string {
  return what as string;
}

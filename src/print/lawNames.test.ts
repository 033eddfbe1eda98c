import { isoDate } from '@/core/kernel/date';
import { wordingOf } from './wording';
import { countryName } from './wording/countries';
import { lawTitle, taxNameIn, taxNumberWords } from './wording/lawNames';

const NOW = isoDate('2026-11-01');

test.each([
  ['IE7654321G', 'IE', 'en', 'VAT no. IE7654321G'],
  ['DE136695976', 'DE', 'de', 'USt-IdNr. DE136695976'],
  // § 14 (4) UStG takes the number of the tax office too.
  ['133/8150/8159', 'DE', 'de', 'Steuernummer 133/8150/8159'],
  ['FR83404833048', 'FR', 'fr', 'N° TVA FR83404833048'],
  ['ESB58378431', 'ES', 'es', 'NIF-IVA ESB58378431'],
  ['56000123455', 'AU', 'en', 'ABN 56000123455'],
  ['29AAGCB7383J1Z4', 'IN', 'en', 'GSTIN 29AAGCB7383J1Z4'],
  ['GB999000103', 'GB', 'en', 'VAT no. GB999000103'],
  ['GB999000103', 'GB', 'de', 'USt-IdNr. GB999000103'],
  ['600-000-001', 'US', 'en', 'Tax no. 600-000-001'],
  ['IE7654321G', 'IE', 'ga', 'Uimhir CBL IE7654321G'],
])('%s of %s in %s is %s', (number, country, language, words) =>
  expect(taxNumberWords(number, country, NOW, wordingOf(language))).toBe(words),
);

test.each([
  ['VAT', 'de', 'USt'],
  ['USt', 'en', 'VAT'],
  ['MWST', 'de', 'MWST'],
  ['TVA', 'es', 'IVA'],
  ['GST', 'fr', 'GST'],
])('%s in %s is %s', (name, language, words) => expect(taxNameIn(name, wordingOf(language))).toBe(words));

test.each<[string, 'invoice' | 'credit-note' | 'quote', string, string, string | undefined]>([
  ['AU', 'invoice', 'S', 'en', 'Tax invoice'],
  ['AU', 'invoice', 'Z', 'en', undefined],
  ['AU', 'credit-note', 'S', 'en', 'Adjustment note'],
  ['IN', 'invoice', 'E', 'en', 'Bill of supply'],
  ['IN', 'invoice', 'S', 'en', 'Tax invoice'],
  ['SG', 'quote', 'S', 'en', undefined],
  ['IE', 'invoice', 'S', 'en', undefined],
  ['AU', 'invoice', 'S', 'de', undefined],
])('%s %s of category %s in %s is titled %s', (taxCountry, kind, category, language, title) =>
  expect(lawTitle({ kind, seller: { taxCountry }, taxes: [{ category }] } as never, wordingOf(language))).toBe(title),
);

test('countries have names in every language of documents', () => {
  expect(['en', 'de', 'fr', 'es', 'ga'].map((language) => countryName('DE', language))).toEqual([
    'Germany',
    'Deutschland',
    'Allemagne',
    'Alemania',
    'An Ghearmáin',
  ]);
  expect(countryName('NO', 'xx')).toBe('Norway');
  expect(countryName('ZZ', 'en')).toBe('ZZ');
});

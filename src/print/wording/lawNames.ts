import type { Content } from '@/core/documents/content';
import type { IsoDate } from '@/core/kernel/date';
import { numberName } from '@/core/tax/taxNumber';
import type { Wording } from './wording';

/** What a tax number of a country is called, before the number itself: `VAT no. IE7654321G`, `ABN 56 000 123 455`. */
export function taxNumberWords(number: string, country: string, on: IsoDate, wording: Wording): string {
  const name = numberName(country, on);
  if (typeof name === 'object') return `${name.own} ${number}`;
  // German businesses print either number; only the one of the union bears the country's letters.
  const isVat = name === 'vat' && (country !== 'DE' || /^[A-Z]{2}/.test(number));
  return `${isVat ? wording.vatNumber : wording.taxNumber} ${number}`;
}

/**
 * Titles that the law of a country asks for, in its own language: A New Tax System (Goods and Services Tax) Act 1999 s. 29-70
 * and 29-75 (AU), CGST Rules 2017 r. 46 and 49 (IN), VAT (Electronic Tax Invoice) Regulations (KE), GST (General) Regulations
 * r. 11 (SG), Value-Added Tax Act 1991 s. 20 (ZA).
 */
const TITLES: Readonly<
  Record<string, { readonly taxed: string; readonly untaxed?: string; readonly credit?: string }>
> = {
  AU: { taxed: 'Tax invoice', credit: 'Adjustment note' },
  IN: { taxed: 'Tax invoice', untaxed: 'Bill of supply' },
  KE: { taxed: 'Tax invoice' },
  SG: { taxed: 'Tax invoice' },
  ZA: { taxed: 'Tax invoice', credit: 'Tax credit note' },
};

/** The title that the seller's law asks for; undefined where it asks for none. */
export function lawTitle({ kind, seller, taxes }: Pick<Content, 'kind' | 'seller' | 'taxes'>, wording: Wording) {
  const titles = wording.language === 'en' ? TITLES[seller.taxCountry ?? ''] : undefined;
  if (titles === undefined) return undefined;
  if (kind === 'credit-note') return titles.credit;
  if (kind !== 'invoice') return undefined;
  if (taxes.some(({ category }) => category === 'S')) return titles.taxed;
  return taxes.every(({ category }) => category === 'Z' || category === 'E') ? titles.untaxed : undefined;
}

/** What the customs or service code of an item is called: the code of GST in India, a plain item code elsewhere. */
export function itemCodeName({ seller }: Pick<Content, 'seller'>, wording: Wording): string {
  return seller.taxCountry === 'IN' ? 'HSN/SAC' : wording.itemCode;
}

/** What the tax of the union is called by its members and its neighbours. */
const VAT_NAMES = new Set(['VAT', 'USt', 'MwSt', 'MWST', 'TVA', 'IVA', 'btw', 'CBL']);

/** The name of a tax in the language of the document; names that have no other stay. */
export function taxNameIn(name: string, { vat, language }: Wording): string {
  if (language === 'de' && name.toUpperCase() === 'MWST') return name;
  return VAT_NAMES.has(name) ? vat : name;
}

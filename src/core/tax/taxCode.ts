import * as yup from 'yup';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { CATEGORIES, type Category, MOST_COMPONENTS } from './calcTypes';
import { shortCode } from './jurisdiction';

/** One tax that a code charges. Its rate is that of the tax for the class, on the tax point. */
export interface CodeComponent {
  readonly taxId: string;
  /** Class whose rate is taken; empty for the rate of every class. */
  readonly taxClass: string;
  /** Components of one family are rounded together, then split; empty: rounded on its own. */
  readonly family: string;
  /** Charged on the base plus all taxes before it in the list. */
  readonly compound: boolean;
}

/** Words that a document must carry, in one language. */
export interface Legend {
  /** ISO 639-1: `en`. */
  readonly language: string;
  readonly text: string;
}

/** What a line carries: a category, the taxes it charges, and what to print when none is charged. */
export interface TaxCode {
  /** Short and stable: `S23`. */
  readonly id: string;
  readonly name: string;
  readonly category: Category;
  /** Empty only where the category charges nothing. */
  readonly components: readonly CodeComponent[];
  /** The first one is taken where the customer's language is missing. Also the exemption reason of e-invoices. */
  readonly legends: readonly Legend[];
  /** VATEX code, or empty. */
  readonly exemptionCode: string;
  /** Boxes of the return that base and tax go to; empty for none. */
  readonly boxBase: string;
  readonly boxTax: string;
}

/** Languages that legends can be given in. */
export const LANGUAGES: Readonly<Record<string, string>> = {
  en: 'English',
  ga: 'Irish',
  de: 'German',
  fr: 'French',
  es: 'Spanish',
  it: 'Italian',
  nl: 'Dutch',
};

/** Categories that charge nothing by their nature (EN 16931 BR-Z-05, BR-E-05, BR-AE-05 and kin). */
const CATEGORIES_AT_ZERO: ReadonlySet<Category> = new Set(['Z', 'E', 'AE', 'K', 'G', 'O']);

/** Categories that must say why no tax is charged (EN 16931 BR-E-10, BR-AE-10, BR-IC-10, BR-G-10, BR-O-10). */
const CATEGORIES_WITH_REASON: ReadonlySet<Category> = new Set(['E', 'AE', 'K', 'G', 'O']);

export function chargesNothing(category: Category): boolean {
  return CATEGORIES_AT_ZERO.has(category);
}

export function needsReason(category: Category): boolean {
  return CATEGORIES_WITH_REASON.has(category);
}

const componentSchema = yup.object({
  taxId: neededText('give-tax'),
  taxClass: optionalText(30),
  family: optionalText(30),
  compound: yup.boolean().defined(),
});

const legendSchema = yup.object({
  language: yup.string().oneOf(Object.keys(LANGUAGES), wanted('choose-language')).defined(),
  text: neededText('give-words-to-print', 300),
});

export const taxCodeSchema = yup
  .object({
    id: shortCode('S23'),
    name: neededText('give-name-of-code', 60),
    category: yup.string().oneOf(CATEGORIES, wanted('choose-category')).defined(),
    components: yup
      .array()
      .of(componentSchema)
      .max(MOST_COMPONENTS, wanted({ what: 'fewer-taxes', most: MOST_COMPONENTS }))
      .defined(),
    legends: yup.array().of(legendSchema).defined(),
    exemptionCode: optionalText(30).matches(/^(VATEX-[A-Z]{2}-[A-Z0-9-]+)?$/, {
      message: wanted('give-vatex'),
    }),
    boxBase: optionalText(12),
    boxTax: optionalText(12),
  })
  .test('components', wanted('name-a-tax'), function components(code) {
    return chargesNothing(code.category) || code.components.length > 0 || this.createError({ path: 'components' });
  })
  .test('zero', wanted('no-taxes'), function zero(code) {
    return !chargesNothing(code.category) || code.components.length === 0 || this.createError({ path: 'components' });
  })
  .test('twice', wanted('tax-twice'), function twice(code) {
    const ids = code.components.map((component) => component.taxId);
    const at = ids.findIndex((id, i) => ids.indexOf(id) !== i);
    return at < 0 || this.createError({ path: `components[${at}].taxId` });
  })
  .test('reason', wanted('say-why-no-tax'), function reason(code) {
    return !needsReason(code.category) || code.legends.length > 0 || this.createError({ path: 'legends' });
  })
  .test('languages', wanted('language-twice'), function languages(code) {
    const all = code.legends.map((legend) => legend.language);
    const at = all.findIndex((language, i) => all.indexOf(language) !== i);
    return at < 0 || this.createError({ path: `legends[${at}].language` });
  });

/** A code's name where no rate is at hand: `Standard {rate}` is Standard. */
export function plainName({ name }: Pick<TaxCode, 'name'>): string {
  return name.replace('{rate}', '').trim();
}

/** The words in a language, else in the first one given; empty when there are none. */
export function legendIn(legends: readonly Legend[], language: string): string {
  return (legends.find((legend) => legend.language === language) ?? legends[0])?.text ?? '';
}

import de from 'i18n-iso-countries/langs/de.json';
import en from 'i18n-iso-countries/langs/en.json';
import es from 'i18n-iso-countries/langs/es.json';
import fr from 'i18n-iso-countries/langs/fr.json';
import ga from 'i18n-iso-countries/langs/ga.json';

type Names = Readonly<Record<string, string | readonly string[]>>;

const NAMES: Readonly<Record<string, Names>> = Object.fromEntries(
  [en, ga, de, fr, es].map(({ locale, countries }) => [locale, countries as Names]),
);

/** The name of a country in a language of documents; the code itself where there is none. */
export function countryName(code: string, language: string): string {
  const name = (NAMES[language] ?? NAMES.en)?.[code];
  return (typeof name === 'string' ? name : name?.[0]) ?? code;
}

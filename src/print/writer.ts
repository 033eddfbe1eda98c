import type { NamedTax } from '@/core/documents/taxRows';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import type { Minor } from '@/core/kernel/money';
import { showMoney, showNumber, showPrice } from '@/core/kernel/show';
import { unitWord } from '@/core/kernel/unit';
import { type Address, addressLines } from '@/core/parties/address';
import { wordingOf } from './wording';
import { countryName } from './wording/countries';
import { taxNameIn } from './wording/lawNames';
import { fill, type Wording } from './wording/wording';

/** Writes days, figures and words in one language. */
export class Writer {
  readonly wording: Wording;
  private readonly shown: (text: string) => string;

  constructor(
    language: string | undefined,
    private readonly currency: Currency,
  ) {
    this.wording = wordingOf(language);
    const { thousands, decimal } = this.wording;
    this.shown = (text) => text.replace(/[.,]/g, (mark) => (mark === ',' ? thousands : decimal));
  }

  day(date: IsoDate): string {
    const { months, date: shape, first = '1' } = this.wording;
    const month = months[Number(date.slice(5, 7)) - 1] ?? '';
    const day = Number(date.slice(8, 10));
    return fill(shape, { day: day === 1 ? first : String(day), month, year: date.slice(0, 4) });
  }

  money(amount: Minor, currency = this.currency): string {
    return this.shown(showMoney(amount, currency));
  }

  number(value: Parameters<typeof showNumber>[0]): string {
    return this.shown(showNumber(value));
  }

  price(value: Parameters<typeof showPrice>[0]): string {
    return this.shown(showPrice(value, this.currency));
  }

  /** An address as it stands on paper. */
  address(address: Address): readonly string[] {
    return addressLines(address, (code) => countryName(code, this.wording.language));
  }

  /** A tax by its name in this language, with its percent; what nothing is charged on by what it is. */
  tax({ name, percent, family, category }: NamedTax): string {
    const { wording } = this;
    if (percent !== '') return `${taxNameIn(name, wording)} ${this.number(percent)} %`;
    // In English a code is called what the bookkeeper calls it.
    return family === '' && wording.language !== 'en' ? wording.categories[category] : name;
  }

  /** A quantity with its unit, in the number that the language asks for: `1 hour`, `2 hours`. */
  quantity(value: Decimal, unit: string): string {
    const { language, units, unitsOfMany } = this.wording;
    const one = new Intl.PluralRules(language).select(Math.abs(Number(value))) === 'one';
    return `${this.number(value)} ${unitWord(unit, one ? units : { ...units, ...unitsOfMany })}`;
  }
}

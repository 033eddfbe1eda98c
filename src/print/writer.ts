import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { showMoney, showNumber, showPrice } from '@/core/kernel/show';
import { wordingOf } from './wording';
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
    const { months, date: shape } = this.wording;
    const month = months[Number(date.slice(5, 7)) - 1] ?? '';
    return fill(shape, { day: String(Number(date.slice(8, 10))), month, year: date.slice(0, 4) });
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

  unit(code: string): string {
    return this.wording.units[code] ?? code;
  }
}

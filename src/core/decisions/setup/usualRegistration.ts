import { currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { spanOf } from '@/core/returns/calendar';
import type { UsualRegistration } from '@/core/tax/packs/pack';
import type { Registration } from '@/core/tax/registration';

type Usual = Pick<
  Registration,
  'country' | 'jurisdictionId' | 'name' | 'authority' | 'frequency' | 'filingCurrency' | 'rounding' | 'keptFrom'
>;

/** Fields of a registration as the pack of its country usually has them; its first tax period is the one of a day. */
export function usualFields(known: UsualRegistration, on: IsoDate): Usual {
  const { level, cashStep, wholeUnits, filingCurrency, ...fields } = known;
  return {
    ...fields,
    filingCurrency: currency(filingCurrency),
    rounding: { mode: 'half-up', level, cashStep: cashStep === '' ? '' : decimal(cashStep), wholeUnits },
    keptFrom: spanOf(known.frequency, on).start,
  };
}

import { type RatesTaken, takeRates } from '@/core/decisions/setup/rates';
import { readRateXml } from '@/core/files/rateXml';
import { loadBook } from '../../load';
import type { Action } from '../../perform';

/** Takes in a file of daily rates, whole or not at all. */
export const importRates: Action<{ readonly text: string; readonly source: string }, RatesTaken> = {
  name: 'import exchange rates',
  async decide(db, { text, source }) {
    const { business } = await loadBook(db);
    const read = readRateXml(text, business.homeCurrency, source);
    if (!read.ok) return read;
    return takeRates(read.value, await db.exchangeRates.bulkGet(read.value.map((rate) => rate.id)));
  },
};

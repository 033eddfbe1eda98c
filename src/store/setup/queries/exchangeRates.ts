import type { ExchangeRate } from '@/core/currency/exchangeRate';
import type { BookDb } from '../../schema';

/** Rates of exchange by currency, the newest of each first. */
export function latestRates(db: BookDb, limit: number): Promise<ExchangeRate[]> {
  return db.exchangeRates.orderBy('[currency+date]').reverse().limit(limit).toArray();
}

import { type ExchangeRate, exchangeRateId } from '@/core/currency/exchangeRate';
import { type Columns, cell } from './columns';

export const EXCHANGE_RATE_COLUMNS: Columns<ExchangeRate> = {
  title: 'Exchange rates',
  heads: ['currency', 'day', 'rate', 'source'],
  write: (rate) => [[rate.currency, rate.date, rate.perHome, rate.source]],
  read: (rows) =>
    rows.map((row) => {
      const [code, date] = [cell(row, 'currency').toUpperCase(), cell(row, 'day')];
      return {
        rows: [row.row],
        value: {
          id: exchangeRateId(code, date),
          currency: code as ExchangeRate['currency'],
          date: date as ExchangeRate['date'],
          perHome: cell(row, 'rate') as ExchangeRate['perHome'],
          source: cell(row, 'source'),
        },
      };
    }),
  columnOf: (path) => ({ date: 'day', perHome: 'rate' })[path] ?? path,
};

import type { Certificate } from '@/core/parties/certificate';
import { type Columns, cell } from './columns';

export const CERTIFICATE_COLUMNS: Columns<Certificate> = {
  title: 'Exemption certificates',
  heads: ['id', 'customer', 'jurisdiction', 'number', 'reason', 'from', 'until'],
  write: (c) => [[c.id, c.customerId, c.jurisdictionId, c.number, c.reason, c.from, c.until]],
  read: (rows, known) =>
    rows.map((row) => {
      const id = cell(row, 'id');
      return {
        rows: [row.row],
        value: {
          id,
          customerId: cell(row, 'customer'),
          jurisdictionId: cell(row, 'jurisdiction'),
          number: cell(row, 'number'),
          reason: cell(row, 'reason'),
          from: cell(row, 'from') as Certificate['from'],
          until: cell(row, 'until') as Certificate['until'],
          file: known(id)?.file ?? null,
        },
      };
    }),
  columnOf: (path) => ({ customerId: 'customer', jurisdictionId: 'jurisdiction' })[path] ?? path,
};

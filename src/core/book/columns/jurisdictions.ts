import type { Jurisdiction } from '@/core/tax/jurisdiction';
import { type Columns, cell } from './columns';

export const JURISDICTION_COLUMNS: Columns<Jurisdiction> = {
  title: 'Jurisdictions',
  heads: ['code', 'name', 'kind', 'iso', 'lies in'],
  write: (j) => [[j.id, j.name, j.kind, j.code, j.parentId]],
  read: (rows) =>
    rows.map((row) => ({
      rows: [row.row],
      value: {
        id: cell(row, 'code'),
        name: cell(row, 'name'),
        kind: cell(row, 'kind') as Jurisdiction['kind'],
        code: cell(row, 'iso'),
        parentId: cell(row, 'lies in'),
      },
    })),
  columnOf: (path) => ({ id: 'code', code: 'iso', parentId: 'lies in' })[path] ?? path,
};

'use client';

import { writeCsv } from '@/core/files/csv';
import { DataTable, type DataTableProps, type RowData } from '@/ui/DataTable';
import { saveFile } from '../shell/saveFile';

/** A list that is saved to a CSV file as it is shown, under its caption. */
export function ListTable<Row extends RowData>(props: Omit<DataTableProps<Row>, 'onSave'>) {
  const name = props.caption.toLowerCase().replaceAll(/[^\p{L}\p{N}]+/gu, '-');
  return (
    <DataTable
      {...props}
      onSave={(heads, rows) => saveFile(`${name}.csv`, writeCsv(heads, rows), 'text/csv;charset=utf-8')}
    />
  );
}

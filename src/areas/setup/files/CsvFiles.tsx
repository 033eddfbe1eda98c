'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { CSV_TABLES, type CsvTable, columnsOf } from '@/core/book/tables';
import { type ImportPlan, planImport } from '@/core/files/importTable';
import { differences } from '@/core/kernel/differences';
import type { Refusal } from '@/core/kernel/result';
import { readTextFile, type TextFile } from '@/core/kernel/textFile';
import { importCsv } from '@/store/setup/actions/importTable';
import { csvText } from '@/store/setup/queries/csvText';
import { importMaterial } from '@/store/setup/queries/importMaterial';
import { Button } from '@/ui/Button';
import { ChooseFile } from '@/ui/ChooseFile';
import { ChoiceField } from '@/ui/Field';
import { SheetTitle } from '@/ui/Page';
import { act, bookDb } from '../../shell/book';
import { saveFile } from '../../shell/saveFile';
import { BookCsvFiles } from './BookCsvFiles';
import { BookImports } from './BookImports';
import { WrongRows } from './WrongRows';

interface Offered {
  readonly table: CsvTable;
  readonly name: string;
  readonly encoding: TextFile['encoding'];
  readonly text: string;
  readonly plan: ImportPlan<CsvTable> | null;
  readonly refusals: readonly Refusal[];
}

/** Records and fields beyond these are counted, not listed. */
const MOST_RECORDS = 20;
const MOST_FIELDS = 6;

/** What a file would change of records that are there, each field before and after. */
function Changed({ plan: { changed } }: { readonly plan: ImportPlan<CsvTable> }) {
  if (changed.length === 0) return null;
  return (
    <ul className="mt-2 text-sm">
      {changed.slice(0, MOST_RECORDS).map(({ before, after }) => {
        // How a record is found follows from what it says.
        const said = differences({ ...before, keys: [] }, { ...after, keys: [] });
        return (
          <li key={after.id} className="border-rule border-b py-1">
            <span className="font-semibold">{after.id}</span>:{' '}
            {said
              .slice(0, MOST_FIELDS)
              .map((one) => `${one.path} ${one.before || '—'} → ${one.after || '—'}`)
              .join('; ')}
            {said.length > MOST_FIELDS && ` and ${said.length - MOST_FIELDS} more`}
          </li>
        );
      })}
      {changed.length > MOST_RECORDS && <li className="text-soft">and {changed.length - MOST_RECORDS} more records</li>}
    </ul>
  );
}

async function save(table: CsvTable): Promise<void> {
  saveFile(`${table}.csv`, await csvText(bookDb(), table), 'text/csv;charset=utf-8');
}

/** Jurisdictions, rates, places and certificates out to CSV files and in from them, looked at first. */
export function CsvFiles() {
  const [table, setTable] = useState<CsvTable>('jurisdictions');
  const [offered, setOffered] = useState<Offered | null>(null);
  const look = async (file: File) => {
    const { text, encoding } = readTextFile(new Uint8Array(await file.arrayBuffer()));
    const planned = planImport(table, text, await importMaterial(bookDb(), table));
    setOffered({
      table,
      name: file.name,
      encoding,
      text,
      plan: planned.ok ? (planned.value as ImportPlan<CsvTable>) : null,
      refusals: planned.ok ? planned.value.wrong : planned.refusals,
    });
  };
  const take = async () => {
    if (offered === null) return;
    const result = await act(importCsv, { table: offered.table, text: offered.text });
    if (!result.ok) return setOffered({ ...offered, refusals: result.refusals });
    toast(`${result.value.added} added, ${result.value.changed} changed`);
    setOffered(null);
  };
  return (
    <>
      <SheetTitle>Tables as CSV files</SheetTitle>
      <ChoiceField
        label="Table"
        className="w-[280px]"
        options={CSV_TABLES.map((name) => [name, columnsOf(name).title] as const)}
        value={table}
        onChange={(event) => {
          setTable(event.target.value as CsvTable);
          setOffered(null);
        }}
      />
      <p className="mb-2 text-soft text-sm">
        Columns: {columnsOf(table).heads.join(', ')}
        {columnsOf(table).optional !== undefined && ` (may be missing: ${columnsOf(table).optional?.join(', ')})`}. A
        place has one row for each match of addresses; its stack is written as US-WA &gt; US-WA-KING.
      </p>
      <Button onClick={() => void save(table)}>Save {columnsOf(table).title} to a file</Button>
      <p className="mt-5">
        <ChooseFile words="Choose a file to import" accept=".csv,text/csv" onFile={(file) => void look(file)} />
      </p>
      {offered !== null && (
        <section aria-label={`What ${offered.name} would do`} className="mt-4">
          {offered.plan !== null && (
            <p>
              {offered.name}: {offered.plan.added.length} to add, {offered.plan.changed.length} to change,{' '}
              {offered.plan.same} as they are. Read as {offered.encoding}.
            </p>
          )}
          {offered.plan !== null && <Changed plan={offered.plan} />}
          <WrongRows refusals={offered.refusals} />
          {offered.refusals.length === 0 && (
            <p className="mt-3">
              <Button weight="main" onClick={() => void take()}>
                Import {offered.name}
              </Button>
            </p>
          )}
        </section>
      )}
      <BookCsvFiles />
      <BookImports />
    </>
  );
}

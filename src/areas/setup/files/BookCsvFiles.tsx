'use client';

import { useState } from 'react';
import { BOOK_CSV, BOOK_CSV_HEADS, type BookCsv } from '@/core/files/bookCsv';
import { Button } from '@/ui/Button';
import { ChoiceField } from '@/ui/Field';
import { onBook } from '@/workers/client';
import { useRun } from '../../shared/useRun';
import { today } from '../../shell/book';
import { saveFile } from '../../shell/saveFile';

const WORDS: Readonly<Record<BookCsv, string>> = {
  documents: 'Documents with their lines',
  receipts: 'Receipts and what they settled',
  entries: 'Journal entries',
  returns: 'Returns',
  accounts: 'Chart of accounts',
};

/** What the book holds, out to CSV files for other programs; written in a worker. */
export function BookCsvFiles() {
  const [what, setWhat] = useState<BookCsv>('documents');
  const run = useRun();
  const save = () =>
    run.start(
      async ({ signal }) => {
        const file = await onBook((face) => face.bookCsv(what), signal);
        saveFile(`${what}-${today()}.csv`, file, 'text/csv;charset=utf-8');
        return 'The file was handed to the browser to save.';
      },
      (fault) => (fault === null ? 'Stopped; no file was made.' : `No file was made: ${fault.message}`),
    );
  return (
    <section aria-label="The book as CSV" className="mt-8">
      <h2 className="mb-1 font-semibold font-serif">The book as CSV</h2>
      <ChoiceField
        label="What goes out"
        className="w-[280px]"
        options={BOOK_CSV.map((name) => [name, WORDS[name]] as const)}
        value={what}
        onChange={(event) => setWhat(event.target.value as BookCsv)}
      />
      <p className="mb-2 text-soft text-sm">Columns: {BOOK_CSV_HEADS[what].join(', ')}.</p>
      <div className="flex items-center gap-3">
        <Button onClick={() => void save()} disabled={run.doing !== null}>
          Save {WORDS[what].toLowerCase()} to a file
        </Button>
        {run.doing !== null && (
          <Button weight="quiet" onClick={run.stop}>
            Stop
          </Button>
        )}
        <span role="status">{run.said}</span>
      </div>
    </section>
  );
}

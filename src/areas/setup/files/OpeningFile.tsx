'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { OPENING_HEADS } from '@/core/files/openingFile';
import { minor, NOTHING, plus } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { readTextFile } from '@/core/kernel/textFile';
import { preview } from '@/store/perform';
import { importOpenings } from '@/store/sales/actions/takings';
import { Button } from '@/ui/Button';
import { ChooseFile } from '@/ui/ChooseFile';
import { Money } from '@/ui/Money';
import { useOpenBook } from '../../shell/BookContext';
import { act, bookDb, moment } from '../../shell/book';
import { WrongRows } from './WrongRows';

interface Offered {
  readonly name: string;
  readonly text: string;
  readonly count: number;
  /** What they come to, in home currency. */
  readonly sum: bigint;
  readonly refusals: readonly Refusal[];
}

/** Opening invoices from a file, looked at first: what was owed before this book began, all at once. */
export function OpeningFile() {
  const { currency } = useOpenBook();
  const [offered, setOffered] = useState<Offered | null>(null);
  const look = async (file: File) => {
    const { text } = readTextFile(new Uint8Array(await file.arrayBuffer()));
    const would = await preview(bookDb(), importOpenings, { text }, moment());
    const documents = would.ok ? (would.value.add?.documents ?? []) : [];
    setOffered({
      name: file.name,
      text,
      count: documents.length,
      sum: documents.reduce((sum, { open }) => plus(sum, open), NOTHING),
      refusals: would.ok ? [] : would.refusals,
    });
  };
  const take = async ({ text, ...rest }: Offered) => {
    const result = await act(importOpenings, { text });
    if (!result.ok) return setOffered({ ...rest, text, refusals: result.refusals });
    toast(`${result.value.length} opening invoices are saved`);
    setOffered(null);
  };
  return (
    <section aria-labelledby="opening-file" className="mt-8">
      <h2 id="opening-file" className="font-semibold font-serif">
        Opening invoices
      </h2>
      <p className="mb-2 text-soft text-sm">
        What customers owed before this book began. Columns: {OPENING_HEADS.join(', ')} (due may be missing); customers
        by id, tax number or name, amounts with tax in {currency}.
      </p>
      <ChooseFile words="Choose a file of opening invoices" accept=".csv,text/csv" onFile={(file) => void look(file)} />
      {offered !== null && (
        <div className="mt-3">
          <WrongRows refusals={offered.refusals} />
          {offered.refusals.length === 0 && (
            <>
              <p>
                {offered.name}: {offered.count} to add, <Money amount={minor(offered.sum)} currency={currency} /> in
                all.
              </p>
              <p className="mt-2">
                <Button weight="main" onClick={() => void take(offered)}>
                  Import {offered.name}
                </Button>
              </p>
            </>
          )}
        </div>
      )}
    </section>
  );
}

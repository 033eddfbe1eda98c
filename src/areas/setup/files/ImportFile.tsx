'use client';

import { type ReactNode, useId, useState } from 'react';
import { toast } from 'sonner';
import type { Changes } from '@/core/book/changes';
import type { Refusal } from '@/core/kernel/result';
import { readTextFile } from '@/core/kernel/textFile';
import { type Action, preview } from '@/store/perform';
import { Button } from '@/ui/Button';
import { ChooseFile } from '@/ui/ChooseFile';
import { act, bookDb, moment } from '../../shell/book';
import { WrongRows } from './WrongRows';

interface Offered {
  readonly name: string;
  readonly text: string;
  /** What it would write; null where it is refused. */
  readonly changes: Changes | null;
  readonly refusals: readonly Refusal[];
}

interface ImportFileProps {
  readonly title: string;
  /** What the file holds, and its columns. */
  readonly about: ReactNode;
  readonly choose: string;
  readonly action: Action<{ readonly text: string }, unknown>;
  /** What the changes would bring, in words. */
  readonly would: (changes: Changes) => ReactNode;
  readonly done: string;
}

/** Records from a CSV file, looked at first: all of them are taken in at once, or none. */
export function ImportFile({ title, about, choose, action, would, done }: ImportFileProps) {
  const id = useId();
  const [offered, setOffered] = useState<Offered | null>(null);
  const look = async (file: File) => {
    const { text } = readTextFile(new Uint8Array(await file.arrayBuffer()));
    const planned = await preview(bookDb(), action, { text }, moment());
    setOffered({
      name: file.name,
      text,
      changes: planned.ok ? planned.value : null,
      refusals: planned.ok ? [] : planned.refusals,
    });
  };
  const take = async (file: Offered) => {
    const result = await act(action, { text: file.text });
    if (!result.ok) return setOffered({ ...file, changes: null, refusals: result.refusals });
    toast(done);
    setOffered(null);
  };
  return (
    <section aria-labelledby={id} className="mt-8">
      <h2 id={id} className="font-semibold font-serif">
        {title}
      </h2>
      <p className="mb-2 text-soft text-sm">{about}</p>
      <ChooseFile words={choose} accept=".csv,text/csv" onFile={(file) => void look(file)} />
      {offered !== null && (
        <div className="mt-3">
          <WrongRows refusals={offered.refusals} />
          {offered.changes !== null && (
            <>
              <p>
                {offered.name}: {would(offered.changes)}
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

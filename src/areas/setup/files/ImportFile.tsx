'use client';

import { type ReactNode, useId, useState } from 'react';
import { toast } from 'sonner';
import type { Changes } from '@/core/book/changes';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { readTextFile } from '@/core/kernel/textFile';
import { type Action, preview } from '@/store/perform';
import { Button } from '@/ui/Button';
import { ChooseFile } from '@/ui/ChooseFile';
import { act, bookDb, moment } from '../../shell/book';
import { WrongRows } from './WrongRows';

interface Offered {
  readonly name: string;
  readonly text: string;
  /** What it would bring, in words; null where it is refused. */
  readonly would: ReactNode;
  readonly refusals: readonly Refusal[];
}

interface ImportFileProps {
  readonly title: string;
  /** What the file holds, and its columns. */
  readonly about: ReactNode;
  readonly choose: string;
  readonly from: FileImport;
  readonly done: string;
}

/** How a file is looked at, and taken in. */
export interface FileImport {
  /** What it would bring, in words. */
  readonly look: (text: string) => Promise<Result<ReactNode>>;
  readonly take: (text: string) => Promise<Result<unknown>>;
}

/** A file that one action takes in. */
export function byAction(
  action: Action<{ readonly text: string }, unknown>,
  would: (changes: Changes) => ReactNode,
): FileImport {
  return {
    look: async (text) => {
      const planned = await preview(bookDb(), action, { text }, moment());
      return planned.ok ? accept(would(planned.value)) : planned;
    },
    take: (text) => act(action, { text }),
  };
}

/** Records from a CSV file, looked at first: all of them are taken in at once, or none. */
export function ImportFile({ title, about, choose, from, done }: ImportFileProps) {
  const id = useId();
  const [offered, setOffered] = useState<Offered | null>(null);
  const look = async (file: File) => {
    const { text } = readTextFile(new Uint8Array(await file.arrayBuffer()));
    const looked = await from.look(text);
    setOffered({
      name: file.name,
      text,
      would: looked.ok ? looked.value : null,
      refusals: looked.ok ? [] : looked.refusals,
    });
  };
  const take = async (file: Offered) => {
    const result = await from.take(file.text);
    if (!result.ok) return setOffered({ ...file, would: null, refusals: result.refusals });
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
          {offered.would !== null && (
            <>
              <p>
                {offered.name}: {offered.would}
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

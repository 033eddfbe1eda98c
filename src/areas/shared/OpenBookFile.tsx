'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { wordRefusals } from '@/core/wording/refusals';
import { hasBook } from '@/store/records';
import { clearUnfinished } from '@/store/unfinished';
import { Button } from '@/ui/Button';
import { ChooseFile } from '@/ui/ChooseFile';
import { Dialog } from '@/ui/Dialog';
import { Progress } from '@/ui/Progress';
import { openInWorker } from '@/workers/client';
import { bookDb } from '../shell/book';
import { usePicked } from '../shell/period';
import { routes } from '../shell/routes';
import { useRun } from './useRun';

/** Whether there is a book to replace. What can't be read is no reason not to try: opening says what is wrong. */
const holdsBook = (): Promise<boolean> => hasBook(bookDb()).catch(() => false);

/** Opens an archive. Asks first when it would replace a book; says what is wrong and changes nothing else. */
export function OpenBookFile() {
  const router = useRouter();
  const [bytes, setBytes] = useState<{ name: string; content: Uint8Array } | null>(null);
  const run = useRun();

  const open = (content: Uint8Array, replace: boolean) => {
    setBytes(null);
    return run.start(
      async (running) => {
        const by = crypto.randomUUID();
        const replacing = { replace, copyAt: new Date().toISOString(), by };
        const result = await openInWorker(content, replacing, running).catch(async (error: unknown) => {
          await clearUnfinished(bookDb(), by);
          throw error;
        });
        if (!result.ok) return wordRefusals(result.refusals);
        usePicked.setState({ start: null });
        toast(`The book of ${result.value.business} is open`);
        router.push(routes.today);
        return '';
      },
      (fault) => (fault === null ? 'Stopped. Nothing was changed.' : `It could not be opened: ${fault.message}`),
    );
  };
  const choose = async (file: File) => {
    const content = new Uint8Array(await file.arrayBuffer());
    if (await holdsBook()) setBytes({ name: file.name, content });
    else await open(content, false);
  };
  return (
    <div>
      <ChooseFile words="Open a book file" accept=".able,.zip" onFile={(file) => void choose(file)} />
      {run.doing !== null && (
        <div className="mt-2 max-w-[320px]">
          <p role="status">
            Checking the whole file…{' '}
            <Button weight="quiet" onClick={run.stop}>
              Stop
            </Button>
          </p>
          <Progress label="Rows read" {...run.doing} />
        </div>
      )}
      {run.said !== '' && (
        <p role="alert" className="mt-2 max-w-[52ch] text-brick">
          ▲ {run.said}
        </p>
      )}
      <Dialog
        open={bytes !== null}
        onClose={() => setBytes(null)}
        title="Replace the book in this browser?"
        description={`${bytes?.name ?? ''} takes the place of everything here. A copy of this book stays in the browser until another one is replaced, and can be restored in Setup, Book file.`}
      >
        <div className="flex gap-2.5">
          <Button weight="grave" onClick={() => bytes && open(bytes.content, true)}>
            Replace it
          </Button>
          <Button onClick={() => setBytes(null)}>Keep this book</Button>
        </div>
      </Dialog>
    </div>
  );
}

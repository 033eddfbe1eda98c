'use client';

import { useState } from 'react';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { onBook } from '@/workers/client';
import { BringBack } from '../shared/BringBack';
import { OpenBookFile } from '../shared/OpenBookFile';
import { bookDb, today } from '../shell/book';
import { routes } from '../shell/routes';
import { saveFile } from '../shell/saveFile';

/** What can be done with a book that no screen can show. Needs nothing of the book itself. */
export function Rescue() {
  const [said, setSaid] = useState('');
  const [ending, setEnding] = useState(false);
  const save = async () => {
    setSaid('Reading what is there…');
    try {
      saveFile(
        `rescued-${today()}.able`,
        await onBook((face) => face.archive(new Date().toISOString())),
        'application/zip',
      );
      setSaid('What could be read was handed to the browser to save.');
    } catch (error) {
      setSaid(`Nothing could be read: ${(error as Error).message}`);
    }
  };
  const end = async () => {
    try {
      await bookDb().delete();
      location.assign(routes.home);
    } catch (error) {
      setEnding(false);
      setSaid(
        `It could not be deleted: ${(error as Error).message}. Clear this page’s data in the browser’s own settings.`,
      );
    }
  };
  return (
    <main className="mx-auto max-w-[680px] px-8 py-14">
      <h1 className="mb-3 font-serif text-2xl">Rescue</h1>
      <p className="mb-6 max-w-[60ch]">
        For a book that can’t be opened or shown: its registration or its business is missing, or the browser has lost a
        part of it. Save what is there before anything else.
      </p>
      <ol className="border-rule border-t">
        <li className="flex items-center justify-between gap-6 border-rule border-b py-4">
          <span>Save everything that can be read to a file, as it is.</span>
          <Button weight="main" onClick={() => void save()}>
            Save what is there
          </Button>
        </li>
        <li className="border-rule border-b py-4">
          <p className="mb-2">Open another book file in its place.</p>
          <OpenBookFile />
          <BringBack />
        </li>
        <li className="flex items-center justify-between gap-6 border-rule border-b py-4">
          <span>Delete the book from this browser and start with an empty one.</span>
          <Button onClick={() => setEnding(true)}>Start over</Button>
        </li>
      </ol>
      <p role="status" className="mt-4">
        {said}
      </p>
      <Dialog
        open={ending}
        onClose={() => setEnding(false)}
        title="Delete this book?"
        description="Everything in it is gone from this browser, and that can’t be undone."
      >
        <div className="flex gap-2.5">
          <Button weight="grave" onClick={() => void end()}>
            Delete it
          </Button>
          <Button onClick={() => setEnding(false)}>Leave it</Button>
        </div>
      </Dialog>
    </main>
  );
}

'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { copyRecurring, dropRecurring, makeRecurring } from '@/store/sales/actions/recurring';
import { type RecurringFile, recurringFile } from '@/store/sales/queries/recurring';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import Link from '@/ui/Link';
import { Empty, Margin, Sheet, SheetTitle } from '@/ui/Page';
import { act, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { MadeNote } from './MadeNote';
import { NextDocument } from './NextDocument';
import { RecurringForm } from './RecurringForm';
import { recurringState } from './recurringWords';

/** One recurring document: when it comes, what it will be, and what was made of it. */
export function RecurringPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const file = useBook((db) => recurringFile(db, id), [id]);
  if (file === undefined) return <Sheet label="Recurring document">{null}</Sheet>;
  if (file === null)
    return (
      <Sheet label="Recurring document">
        <Empty action={<Button onClick={() => router.push(routes.recurringList)}>All recurring documents</Button>}>
          There is no such recurring document.
        </Empty>
      </Sheet>
    );
  return <Known file={file} />;
}

function Known({ file }: { readonly file: RecurringFile }) {
  const router = useRouter();
  const [dropping, setDropping] = useState(false);
  const { recurring, customer, group, lastMade } = file;
  const makeNow = async () => {
    if (recurring.nextDue === '') return;
    const result = await act(makeRecurring, { id: recurring.id, date: recurring.nextDue });
    toast(result.ok ? `${recurring.name} is made` : wordRefusals(result.refusals));
  };
  const copy = async () => {
    const result = await act(copyRecurring, { id: recurring.id });
    if (result.ok) router.push(routes.recurring(result.value.id));
    else toast.error(wordRefusals(result.refusals));
  };
  const drop = async () => {
    const result = await act(dropRecurring, { id: recurring.id });
    if (!result.ok) return toast.error(wordRefusals(result.refusals));
    toast(`${recurring.name} is deleted`);
    router.push(routes.recurringList);
  };
  return (
    <>
      <Sheet label={recurring.name}>
        <SheetTitle aside={recurringState(recurring)}>{recurring.name}</SheetTitle>
        <p className="-mt-3 mb-3">
          {group || customer || 'no customer yet'} ·{' '}
          <Link href={routes.draft(recurring.id)} className="underline decoration-rule underline-offset-4">
            Edit what it says
          </Link>
        </p>
        <RecurringForm key={recurring.id} recurring={recurring} customer={customer} lastMade={lastMade} />
        <NextDocument recurring={recurring} lastMade={lastMade} />
        <p className="mt-6 flex flex-wrap gap-x-2 border-rule border-t pt-2">
          {recurring.nextDue !== '' && (
            <Button weight="quiet" onClick={() => void makeNow()}>
              Make {writeDate(recurring.nextDue)} now
            </Button>
          )}
          <Button weight="quiet" onClick={() => void copy()}>
            Copy
          </Button>
          <Button weight="quiet" onClick={() => setDropping(true)}>
            Delete…
          </Button>
        </p>
        <Dialog
          open={dropping}
          onClose={() => setDropping(false)}
          title={`Delete ${recurring.name}?`}
          description="What was made of it stays. To stop it for a while, pause it instead."
        >
          <div className="flex gap-2.5">
            <Button weight="grave" onClick={() => void drop()}>
              Delete
            </Button>
            <Button onClick={() => setDropping(false)}>Keep it</Button>
          </div>
        </Dialog>
      </Sheet>
      <Margin>
        <MadeNote recurringId={recurring.id} />
      </Margin>
    </>
  );
}

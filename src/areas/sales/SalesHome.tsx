'use client';

import { useRouter } from 'next/navigation';
import { Button } from '@/ui/Button';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { newDraftPath } from './newDraft';

/** The empty sheet of Sales. */
export function SalesHome() {
  const router = useRouter();
  return (
    <Sheet label="Sales">
      <SheetTitle>Sales</SheetTitle>
      <Empty
        action={
          <Button weight="main" title="Alt+N" onClick={() => router.push(newDraftPath())}>
            Write an invoice
          </Button>
        }
      >
        Pick a document on the left, or write one: figures, entries and checks come as you type.
      </Empty>
    </Sheet>
  );
}

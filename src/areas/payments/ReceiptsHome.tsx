'use client';

import Link from '@/ui/Link';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { routes } from '../shell/routes';

/** The empty sheet of Receipts. */
export function ReceiptsHome() {
  return (
    <Sheet label="Receipts">
      <SheetTitle>Receipts</SheetTitle>
      <Empty
        action={
          <Link href={routes.newReceipt} className="underline underline-offset-4">
            Record a receipt
          </Link>
        }
      >
        Money received and what it was allocated to. Choose one on the left, or record one.
      </Empty>
    </Sheet>
  );
}

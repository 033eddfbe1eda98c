'use client';

import { writeDate } from '@/core/kernel/date';
import { madeOfRecurring } from '@/store/sales/queries/recurring';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Note } from '@/ui/Page';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { MADE_MARKS } from './recurringWords';

const SHOWN = 40;

/** What was made of a recurring document, newest first. */
export function MadeNote({ recurringId }: { readonly recurringId: string }) {
  const all = useBook((db) => madeOfRecurring(db, recurringId, SHOWN), [recurringId]) ?? [];
  return (
    <Note title="Made so far">
      {all.length === 0 && <p className="text-soft">Nothing yet.</p>}
      <ul>
        {all.map(({ made, number, isRun }) => {
          // A draft that waited may have been issued by hand since.
          const [mark, word] = MADE_MARKS[made.state === 'waits' && number !== '' ? 'issued' : made.state];
          return (
            <li key={made.id} className="border-rule border-b py-1">
              <span className="flex gap-2">
                <Mark kind={mark} />
                <Link
                  href={
                    isRun
                      ? routes.run(made.documentId)
                      : number === ''
                        ? routes.draft(made.documentId)
                        : routes.document(made.documentId)
                  }
                  className="flex-1 underline decoration-rule underline-offset-4"
                >
                  {isRun ? 'run' : number || 'draft'}
                </Link>
                {writeDate(made.date)}
              </span>
              <span className="block pl-6 text-soft text-sm">
                {word}
                {made.why !== '' && `: ${made.why}`}
              </span>
            </li>
          );
        })}
      </ul>
    </Note>
  );
}

import type { Draft } from '@/core/documents/draft';
import Link from '@/ui/Link';
import { routes } from '../../shell/routes';

/** What the draft came from, with a way back to it. */
export function OriginLine({ draft }: { readonly draft: Draft }) {
  const { origin } = draft;
  if (draft.runId !== undefined)
    return (
      <p className="-mt-3 mb-3 text-soft">
        What{' '}
        <Link href={routes.run(draft.runId)} className="underline decoration-rule underline-offset-4">
          a run
        </Link>{' '}
        says to each of its customers, with their own terms and taxes.
      </p>
    );
  if (draft.recurringId !== undefined)
    return (
      <p className="-mt-3 mb-3 text-soft">
        What{' '}
        <Link href={routes.recurring(draft.recurringId)} className="underline decoration-rule underline-offset-4">
          a recurring document
        </Link>{' '}
        says; it is made from this on its dates.
      </p>
    );
  if (origin === null) return null;
  const words = {
    copy: 'Copied from',
    stage: `Invoices ${origin.words} of`,
    version: 'A new version of',
    correction: 'Corrects',
  }[origin.how];
  return (
    <p className="-mt-3 mb-3 text-soft">
      {words}{' '}
      <Link href={routes.document(origin.documentId)} className="underline decoration-rule underline-offset-4">
        {origin.number}
      </Link>
    </p>
  );
}

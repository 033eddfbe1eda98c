'use client';

import Link from '@/ui/Link';
import { routes } from '../../shell/routes';

/** A document that was not sent, and why in words. */
export interface NotSentDocument {
  readonly id: string;
  readonly number: string;
  readonly why: string;
}

const NAMED = 50;

/** What of a list was not sent, the first ones by name. */
export function NotSent({ documents }: { readonly documents: readonly NotSentDocument[] }) {
  if (documents.length === 0) return null;
  return (
    <ul aria-label="Not sent" className="max-h-[240px] overflow-auto text-sm">
      {documents.slice(0, NAMED).map(({ id, number, why }) => (
        <li key={id} className="border-rule border-b py-1">
          <Link href={routes.document(id)} className="underline underline-offset-2">
            {number}
          </Link>{' '}
          {why}
        </li>
      ))}
      {documents.length > NAMED && <li className="py-1 text-soft">and {documents.length - NAMED} more</li>}
    </ul>
  );
}

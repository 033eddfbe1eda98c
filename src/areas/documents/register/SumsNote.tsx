'use client';

import { useMemo, useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { type ListSum, sumsByTag, sumsOf } from '@/core/documents/listSums';
import { Button } from '@/ui/Button';
import { Money } from '@/ui/Money';

interface SumsNoteProps {
  /** What is shown. */
  readonly shown: readonly IssuedDocument[];
  /** There is more that fits than is shown. */
  readonly more: boolean;
  /** Everything that fits. */
  readonly all: () => Promise<readonly IssuedDocument[]>;
}

function Row({ name, sum }: { readonly name: string; readonly sum: ListSum }) {
  return (
    <tr className="border-rule border-b">
      <th scope="row" className="py-1 pr-4 text-left font-normal">
        {name}
      </th>
      <td className="py-1 pr-4 text-right tabular-nums">{sum.count}</td>
      <td className="py-1 pr-4 text-right">
        <Money amount={sum.open} currency={sum.currency} />
      </td>
      <td className="py-1 text-right">
        <Money amount={sum.total} currency={sum.currency} withCode />
      </td>
    </tr>
  );
}

/** What the list comes to, by currency and by tag; quotes and cancelled documents are not counted. */
export function SumsNote({ shown, more, all }: SumsNoteProps) {
  const [whole, setWhole] = useState<{
    readonly of: readonly IssuedDocument[];
    readonly documents: readonly IssuedDocument[];
  } | null>(null);
  const looked = whole !== null && whole.of === shown ? whole.documents : null;
  const counted = looked ?? shown;
  const sums = useMemo(() => sumsOf(counted), [counted]);
  const tags = useMemo(() => sumsByTag(counted), [counted]);
  if (sums.length === 0) return null;
  return (
    <section aria-label="Sums of the list" className="mt-4">
      <table className="text-sm">
        <thead className="text-soft">
          <tr>
            <th className="pr-4 text-left font-normal">
              {more && looked === null ? 'Shown so far' : 'All of the list'}
            </th>
            <th className="pr-4 text-right font-normal">Documents</th>
            <th className="pr-4 text-right font-normal">Open</th>
            <th className="text-right font-normal">Total</th>
          </tr>
        </thead>
        <tbody>
          {sums.map((sum) => (
            <Row key={sum.currency} name={sum.currency} sum={sum} />
          ))}
          {tags.flatMap(({ tag, sums: own }) =>
            own.map((sum) => <Row key={`${tag} ${sum.currency}`} name={`tag ${tag}`} sum={sum} />),
          )}
        </tbody>
      </table>
      {more && looked === null && (
        <Button weight="quiet" onClick={() => void all().then((documents) => setWhole({ of: shown, documents }))}>
          Sum the whole list
        </Button>
      )}
    </section>
  );
}

'use client';

import type { ReactNode } from 'react';
import type { Currency } from '@/core/kernel/currency';
import type { Minor } from '@/core/kernel/money';
import Link from '@/ui/Link';
import { Mark, type MarkKind } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { TextButton } from '@/ui/TextButton';

export interface IndexEntry {
  readonly id: string;
  readonly path: string;
  readonly mark: { readonly kind: MarkKind; readonly word: string };
  readonly title: string;
  readonly amount: Minor | null;
  /** Where it is not the home currency. */
  readonly currency?: Currency;
  readonly detail: string;
  readonly day: string;
}

interface IndexListProps {
  /** Undefined while they are looked up. */
  readonly entries: readonly IndexEntry[] | undefined;
  readonly currency: Currency;
  /** Address of what is on the sheet now. */
  readonly current: string;
  readonly query: string;
  readonly onQuery: (query: string) => void;
  readonly findLabel: string;
  readonly empty: string;
  /** Ways to other pages, above the list. */
  readonly ways?: ReactNode;
  readonly onMore?: () => void;
  readonly foot?: ReactNode;
}

/** A dense ruled list with find-as-you-type; two lines an entry. */
export function IndexList({
  entries,
  currency,
  current,
  query,
  onQuery,
  findLabel,
  empty,
  ways,
  onMore,
  foot,
}: IndexListProps) {
  return (
    <>
      <div className="px-3.5 pb-2">
        <input
          type="search"
          aria-label={findLabel}
          placeholder={`${findLabel}…`}
          value={query}
          onChange={(event) => onQuery(event.target.value)}
          className="h-7 w-full border-rule border-b bg-transparent px-1"
        />
      </div>
      {ways}
      <ul className="min-h-0 flex-1 overflow-auto pl-3.5">
        {entries?.map(({ id, path, mark, title, amount, currency: own = currency, detail, day }) => (
          <li key={id} className="border-rule border-b">
            <Link
              href={path}
              aria-current={path === current ? 'page' : undefined}
              className={`-ml-3.5 block border-l-[3px] py-1 pr-2.5 pl-[11px] ${path === current ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'}`}
            >
              <span className="flex gap-1">
                <Mark kind={mark.kind} label={mark.word} />
                <span className="min-w-0 flex-1 truncate">{title}</span>
                {amount !== null && <Money amount={amount} currency={own} withCode={own !== currency} />}
              </span>
              <span className="flex gap-2 pl-5 text-soft text-xs">
                <span className="min-w-0 flex-1 truncate" title={detail}>
                  {detail}
                </span>
                <span className="shrink-0">{day}</span>
              </span>
            </Link>
          </li>
        ))}
        {entries?.length === 0 && <li className="py-2 pr-3 text-soft text-sm">{empty}</li>}
        {onMore && (
          <li>
            <TextButton onClick={onMore} className="py-2">
              Show more
            </TextButton>
          </li>
        )}
      </ul>
      {foot !== undefined && <div className="border-rule border-t px-3.5 py-2">{foot}</div>}
    </>
  );
}

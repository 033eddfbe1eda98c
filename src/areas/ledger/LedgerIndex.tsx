'use client';

import { usePathname } from 'next/navigation';
import { useEffect, useRef } from 'react';
import { REPORTS, type ReportKind } from '@/store/reports/catalogue';
import Link from '@/ui/Link';
import { IndexColumn } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { routes } from '../shell/routes';

const LINK = '-ml-3.5 block border-l-[3px] py-1 pr-2.5 pl-[17px]';

interface Way {
  readonly path: string;
  readonly name: string;
}

const reportsOf = (group: ReportKind['group']): readonly Way[] =>
  REPORTS.filter((kind) => kind.group === group).map(({ name, title }) => ({ path: routes.report(name), name: title }));

const LEDGER: readonly Way[] = [
  { path: routes.ledger, name: 'Journal' },
  { path: routes.writeJournal, name: 'New journal' },
  { path: routes.chart, name: 'Chart of accounts' },
  { path: routes.openingBalances, name: 'Opening balances' },
  { path: routes.deferred, name: 'Deferred revenue' },
  { path: routes.revaluation, name: 'Revaluation' },
];

const CONTROL: readonly Way[] = [
  { path: routes.years, name: 'Years and lock' },
  { path: routes.prove, name: 'Prove the book' },
  { path: routes.seals, name: 'Seals' },
  { path: routes.auditFile, name: 'Audit file' },
  { path: routes.history, name: 'Audit trail' },
];

/** Ways into the ledger: journals, reports by what they are about, what proves the book, and each account. */
export function LedgerIndex() {
  const path = usePathname();
  const { accounts } = useOpenBook();
  const groups: readonly (readonly [title: string, ways: readonly Way[]])[] = [
    ['', LEDGER],
    ['Statements', reportsOf('Statements')],
    ['Sales', reportsOf('Sales')],
    ['Money', reportsOf('Money')],
    ['Tax', reportsOf('Tax')],
    ['Control', CONTROL],
    ['Accounts', accounts.map(({ code, name }) => ({ path: routes.account(code), name: `${code} ${name}` }))],
  ];
  const list = useRef<HTMLDivElement>(null);
  // The list is longer than the window: what is looked at stands in it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the path says which one that is.
  useEffect(() => {
    list.current?.querySelector('[aria-current=page]')?.scrollIntoView({ block: 'nearest' });
  }, [path]);
  return (
    <IndexColumn title="Ledger">
      <div ref={list} className="min-h-0 flex-1 overflow-auto pl-3.5">
        {groups.map(([title, ways]) => (
          <section key={title} aria-label={title || 'Ledger'} className="mb-3">
            {title !== '' && <h3 className="pb-0.5 text-soft text-sm">{title}</h3>}
            <ul>
              {ways.map((way) => (
                <li key={way.path} className="border-rule border-b">
                  <Link
                    href={way.path}
                    aria-current={path === way.path ? 'page' : undefined}
                    className={`${LINK} ${path === way.path ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'}`}
                  >
                    {way.name}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </IndexColumn>
  );
}

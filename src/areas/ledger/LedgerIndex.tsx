'use client';

import { usePathname } from 'next/navigation';
import { REPORTS } from '@/store/reports/catalogue';
import Link from '@/ui/Link';
import { IndexColumn } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { routes } from '../shell/routes';

const LINK = '-ml-3.5 block border-l-[3px] py-1 pr-2.5 pl-[17px]';

/** Ways into the ledger: journal, trial balance, each account. */
export function LedgerIndex() {
  const path = usePathname();
  const { accounts } = useOpenBook();
  const links = [
    { path: routes.ledger, name: 'Journal' },
    { path: routes.trialBalance, name: 'Trial balance' },
    { path: routes.writeJournal, name: 'New journal' },
    { path: routes.deferred, name: 'Deferred revenue' },
    { path: routes.revaluation, name: 'Revaluation' },
    { path: routes.prove, name: 'Prove the book' },
    { path: routes.seals, name: 'Seals' },
    { path: routes.history, name: 'Audit trail' },
    ...REPORTS.map(({ name, title }) => ({ path: routes.report(name), name: title })),
    ...accounts.map((account) => ({
      path: routes.account(account.code),
      name: `${account.code} ${account.name}`,
    })),
  ];
  return (
    <IndexColumn title="Ledger">
      <ul className="min-h-0 flex-1 overflow-auto pl-3.5">
        {links.map((link) => (
          <li key={link.path} className="border-rule border-b">
            <Link
              href={link.path}
              aria-current={path === link.path ? 'page' : undefined}
              className={`${LINK} ${path === link.path ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'}`}
            >
              {link.name}
            </Link>
          </li>
        ))}
      </ul>
    </IndexColumn>
  );
}

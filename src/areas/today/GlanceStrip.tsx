'use client';

import type { ReactNode } from 'react';
import type { IsoDate } from '@/core/kernel/date';
import { monthOf } from '@/core/kernel/date';
import { type Minor, NOTHING } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { onBook } from '@/workers/client';
import { useMade } from '../shared/useMade';
import { useOpenBook } from '../shell/BookContext';
import { routes } from '../shell/routes';

interface CellProps {
  readonly title: string;
  readonly path: string;
  readonly figure: ReactNode;
  readonly children: ReactNode;
}

function Cell({ title, path, figure, children }: CellProps) {
  return (
    <li className="min-w-0 border-rule border-l px-3 first:border-l-0 first:pl-0">
      <Link href={path} className="text-sm underline decoration-rule underline-offset-4">
        {title}
      </Link>
      <div className="font-serif text-lg">{figure}</div>
      <div className="text-soft text-sm">{children}</div>
    </li>
  );
}

/** What matters today, made in a worker, each figure leading to its report. */
export function GlanceStrip({ day }: { readonly day: IsoDate }) {
  const { currency } = useOpenBook();
  const { value, running, fault, stop, again } = useMade(day, (signal) => onBook((face) => face.glance(day), signal));
  const money = (amount: Minor) => <Money amount={amount} currency={currency} />;
  const said = (amount: Minor) => showMoney(amount, currency);
  if (value === null)
    return (
      <p role="status" className="mb-5 min-h-[68px] text-soft text-sm">
        {running ? 'Adding up what is owed and expected… ' : fault}{' '}
        {running ? (
          <Button weight="quiet" onClick={stop}>
            Stop
          </Button>
        ) : (
          fault !== '' && (
            <Button weight="quiet" onClick={again}>
              Add it up
            </Button>
          )
        )}
      </p>
    );
  const { owed, overdue, oldest, expected, late, authorities, income, received } = value;
  const month = `?from=${monthOf(day)}-01&until=${day}`;
  return (
    <ul aria-label="At a glance" className="mb-6 grid grid-cols-4 border-rule border-y py-2">
      <Cell title="Owed by customers" path={routes.report('aged-receivables')} figure={money(owed)}>
        {overdue === NOTHING
          ? 'nothing overdue'
          : `${said(overdue)} overdue, up to ${oldest} ${oldest === 1 ? 'day' : 'days'}`}
      </Cell>
      <Cell title="Expected this month" path={routes.report('expected-cash')} figure={money(expected)}>
        {late === NOTHING ? 'as customers usually pay' : `and ${said(late)} is later than usual`}
      </Cell>
      <Cell
        title="Tax to pay"
        path={routes.report('authorities')}
        figure={money(authorities.reduce((sum, { toPay }) => (sum + toPay) as Minor, NOTHING))}
      >
        {authorities.map(({ name, toPay, unfiled }) => (
          <span key={name} className="block">
            {name}
            {toPay === NOTHING ? '' : `, ${said(toPay)} filed`}
            {unfiled === NOTHING ? '' : `, ${said(unfiled)} not filed`}
          </span>
        ))}
      </Cell>
      <Cell title="Income against cash" path={`${routes.report('income-against-cash')}${month}`} figure={money(income)}>
        income of this month, {said(received)} received
      </Cell>
    </ul>
  );
}

'use client';

import type { ReactNode } from 'react';
import type { Span } from '@/core/returns/calendar';
import type { ClosingCheck, ClosingItem, ClosingStep } from '@/core/returns/closing';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark, type MarkKind } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { onBook } from '@/workers/client';
import { useMade } from '../shared/useMade';
import { useOpenBook } from '../shell/BookContext';
import { routes } from '../shell/routes';
import type { ProofState } from './useProof';

/** Items that stand open; the rest is counted. */
const SHOWN = 12;

const STEPS: Readonly<Record<ClosingStep, { readonly title: string; readonly done: string; readonly mark: MarkKind }>> =
  {
    drafts: { title: 'Drafts dated in the period', done: 'none is left', mark: 'warning' },
    numbers: {
      title: 'Tax numbers that supplies without tax rest on',
      done: 'all verified, or none needed',
      mark: 'warning',
    },
    exemptions: { title: 'Exemption certificates', done: 'all on file, or none needed', mark: 'wrong' },
    withholding: { title: 'Withholding certificates', done: 'none is missing', mark: 'warning' },
    'e-invoices': { title: 'E-invoices', done: 'all answered, or none sent', mark: 'warning' },
    'on-account': { title: 'Money on account', done: 'none that moves the tax', mark: 'warning' },
    evidence: { title: 'Evidence of transport', done: 'kept for all goods, or none needed', mark: 'warning' },
    late: { title: 'Late entries', done: 'none', mark: 'note' },
  };

const pathOf = ({ kind, id }: ClosingItem): string =>
  ({ draft: routes.draft, document: routes.document, customer: routes.customer, receipt: routes.receipt })[kind](id);

interface StepProps {
  readonly mark: MarkKind;
  readonly title: string;
  readonly said: string;
  readonly children?: ReactNode;
}

function Step({ mark, title, said, children }: StepProps) {
  return (
    <li className="border-rule border-b py-2">
      <div className="flex items-baseline gap-2">
        <Mark kind={mark} />
        <h3 className="font-semibold">{title}</h3>
        <span className="text-soft">{said}</span>
      </div>
      {children}
    </li>
  );
}

function Items({ items }: { readonly items: readonly ClosingItem[] }) {
  return (
    <ul className="mt-1 pl-6">
      {items.slice(0, SHOWN).map((item) => (
        <li key={`${item.kind}-${item.id}-${item.detail}`} className="flex items-baseline gap-2 py-0.5">
          <Link href={pathOf(item)} className="underline decoration-rule underline-offset-4">
            {item.name}
          </Link>
          <span className="flex-1 text-soft">{item.detail}</span>
          {item.amount !== null && <Money amount={item.amount.amount} currency={item.amount.currency} withCode />}
        </li>
      ))}
      {items.length > SHOWN && <li className="py-0.5 text-soft">and {items.length - SHOWN} more</li>}
    </ul>
  );
}

interface ClosingStepsProps {
  readonly span: Span;
  readonly proof: ProofState;
  /** Codes of the return whose figures no box of its form takes, or two. */
  readonly unplaced: readonly string[];
}

/** What leads through the closing of a period: everything that should be looked at before it is filed, step by step. */
export function ClosingSteps({ span, proof, unplaced }: ClosingStepsProps) {
  const { registration } = useOpenBook();
  const { value, running, fault, stop, again } = useMade(`${registration.id}|${span.start}`, (signal) =>
    onBook((face) => face.closing(registration.id, span.start), signal),
  );
  const holds = proof.state === 'done' && proof.proof.holds;
  const differences = proof.state === 'done' ? proof.proof.differences.length : 0;
  return (
    <section aria-label="Closing the period">
      <ol>
        <Step
          mark={proof.state === 'running' ? 'open' : holds ? 'good' : 'wrong'}
          title="Reconciliation"
          said={
            proof.state === 'running'
              ? 'recomputing all documents…'
              : holds
                ? 'documents, tax entries and ledger agree'
                : proof.state === 'done'
                  ? `${differences} ${differences === 1 ? 'difference' : 'differences'} to explain, named beside`
                  : 'not reconciled, see beside'
          }
        />
        {unplaced.length > 0 && (
          <Step mark="wrong" title="The form" said={`does not state as it should: ${unplaced.join(', ')}`} />
        )}
        {(value ?? []).map(({ step, items }: ClosingCheck) => (
          <Step
            key={step}
            mark={items.length === 0 ? 'good' : STEPS[step].mark}
            title={STEPS[step].title}
            said={items.length === 0 ? STEPS[step].done : `${items.length} to look at`}
          >
            {items.length > 0 && <Items items={items} />}
          </Step>
        ))}
      </ol>
      {running && value === null && (
        <p role="status" className="mt-2">
          Looking through the period…{' '}
          <Button weight="quiet" onClick={stop}>
            Stop
          </Button>
        </p>
      )}
      {fault !== '' && (
        <p role="status" className="mt-2">
          {fault}{' '}
          <Button weight="quiet" onClick={again}>
            Look again
          </Button>
        </p>
      )}
      <p className="mt-3 max-w-[640px] text-soft">
        None of these keeps you from filing, but a difference needs a word on why it is accepted. What the authority is
        owed is paid, or set against tax withheld, once the return is filed.
      </p>
    </section>
  );
}

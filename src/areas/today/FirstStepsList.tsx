import type { FirstSteps } from '@/store/setup/queries/firstSteps';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { useOpenBook } from '../shell/BookContext';
import { routes } from '../shell/routes';

/** What a new book needs before its first invoice can go out, each with the page that does it; until one was issued. */
export function FirstStepsList({ steps }: { readonly steps: FirstSteps }) {
  const { registrations } = useOpenBook();
  const all = [
    {
      done: registrations.length > 0,
      path: routes.section('registrations'),
      words: 'Tax registration',
      detail: registrations.map(({ name, number }) => `${name}, ${number}`).join('; '),
    },
    {
      done: steps.payable,
      path: routes.section('bank-accounts'),
      words: 'Payment account',
      detail: 'Printed on invoices, so that customers know where to pay',
    },
    {
      done: steps.styles,
      path: routes.record('styles', 'new'),
      words: 'Logo and document style',
      detail: 'How invoices look; plain unless you choose otherwise',
    },
    {
      done: steps.customers,
      path: routes.record('customers', 'new'),
      words: 'First customer',
      detail: 'Can be added while the invoice is written, too',
    },
    {
      done: false,
      path: routes.newDraft('new', 'invoice'),
      words: steps.drafts ? 'Issue the first invoice' : 'First invoice',
      detail: 'Checked as you write; issue it, then print, save or send it',
    },
  ];
  return (
    <section aria-label="First steps" className="mb-6">
      <h2 className="mb-1 font-semibold font-serif">First steps</h2>
      <ol>
        {all.map(({ done, path, words, detail }) => (
          <li key={words} className="flex items-baseline gap-2 border-rule border-b py-1">
            <Mark kind={done ? 'good' : 'open'} label={done ? 'done' : 'to do'} />
            <Link href={path} className="underline decoration-rule underline-offset-4">
              {words}
            </Link>
            <span className="flex-1 text-soft">{detail}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}

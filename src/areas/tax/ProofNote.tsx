import type { Currency } from '@/core/kernel/currency';
import type { Difference, DifferenceCause } from '@/core/returns/proof';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { NoteRow } from '@/ui/Page';
import { routes } from '../shell/routes';
import type { ProofState } from './useProof';

const CAUSES: Readonly<Record<DifferenceCause, string>> = {
  'manual-journal': 'a manual journal on the tax account that nothing has cleared yet',
  'document-altered': 'the document no longer fits its seal',
  'entry-differs': 'its tax entries differ from its lines',
  'entry-without-document': 'a tax entry has no document in this period',
  'document-without-entry': 'it has no tax entry',
  'posting-differs': 'its posting differs from its tax entries',
  'not-yet-due-differs': 'its deferred output tax differs from its lines',
  'account-differs': 'the account moved by more than its lines explain; open a saved book file to add it up anew',
  'balance-differs': 'it differs from the sum of the tax entries; open a saved book file to add it up anew',
};

function wayTo({ documentId, entryId }: Difference): string {
  if (documentId !== '') return routes.document(documentId);
  return entryId === '' ? routes.ledger : routes.entry(entryId);
}

/** The three figures side by side, and each difference with its cause. */
export function ProofNote({ proof, currency }: { readonly proof: ProofState; readonly currency: Currency }) {
  if (proof.state === 'running')
    return (
      <p role="status">
        Recomputing all documents…{' '}
        <Button weight="quiet" onClick={proof.stop}>
          Stop
        </Button>
      </p>
    );
  if (proof.state !== 'done')
    return (
      <p role="alert">
        {proof.state === 'stopped' ? 'Stopped before the end. ' : `It could not be reconciled: ${proof.message} `}
        <Button weight="quiet" onClick={proof.retry}>
          Reconcile
        </Button>
      </p>
    );
  const { documents, taxEntries, ledger, documentCount, differences, touching, overridden, holds } = proof.proof;
  return (
    <>
      <NoteRow
        label={`${documentCount} documents, recomputed`}
        figure={<Money amount={documents} currency={currency} />}
      />
      <NoteRow label="Tax entries" figure={<Money amount={taxEntries} currency={currency} />} />
      <NoteRow label="Ledger, output tax" figure={<Money amount={ledger} currency={currency} />} />
      <p className="mt-2 text-sm">
        <Mark kind={holds ? 'good' : 'wrong'} /> {holds ? 'All three agree.' : 'They do not agree:'}
      </p>
      <ul>
        {differences.map((difference) => (
          <li
            key={`${difference.cause}-${difference.documentId}-${difference.entryId}-${difference.subject}`}
            className="mt-2 text-sm"
          >
            <Money amount={difference.amount} currency={currency} />{' '}
            <Link href={wayTo(difference)} className="underline underline-offset-2">
              {difference.subject}
            </Link>
            : {CAUSES[difference.cause]}.
          </li>
        ))}
      </ul>
      {overridden.length > 0 && (
        <>
          <p className="mt-3 text-sm">Tax typed manually, as far as it differs from the computed one:</p>
          <ul>
            {overridden.map(({ documentId, subject, amount }) => (
              <li key={documentId} className="mt-1 text-sm">
                <Money amount={amount} currency={currency} />{' '}
                <Link href={routes.document(documentId)} className="underline underline-offset-2">
                  {subject}
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
      {touching.length > 0 && (
        <>
          <p className="mt-3 text-sm">
            <Mark kind="warning" /> Manual journals on receivables or money accounts. The tax is the same with them, but
            the ledger no longer agrees with what customers owe or what was received:
          </p>
          <ul>
            {touching.map(({ entryId, subject, account, amount }) => (
              <li key={`${entryId}-${account}-${amount}`} className="mt-1 text-sm">
                <Money amount={amount} currency={currency} />{' '}
                <Link href={routes.entry(entryId)} className="underline underline-offset-2">
                  {subject}
                </Link>
                , account {account}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

'use client';

import { type ReactNode, useState } from 'react';
import { KINDS } from '@/core/documents/kinds';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { type Minor, negated } from '@/core/kernel/money';
import { type Allocation, standing } from '@/core/settlement/allocation';
import { discountOffer } from '@/core/settlement/discount';
import { expectedOnPayment } from '@/core/settlement/expected';
import { isPostDated } from '@/core/settlement/receipt';
import type { TotalKey } from '@/core/tax/explainTotal';
import type { DocumentFile } from '@/store/sales/queries/family';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Note, NoteRow } from '@/ui/Page';
import { CreditActions } from '../../shared/settlement/CreditActions';
import { OnAccount } from '../../shared/settlement/OnAccount';
import { UndoDialog } from '../../shared/settlement/UndoDialog';
import { today } from '../../shell/book';
import { routes } from '../../shell/routes';

const LINK = 'underline decoration-rule underline-offset-2';

interface SettlementNoteProps {
  readonly file: DocumentFile;
  readonly onTotal: (key: TotalKey) => void;
}

/** What settled a document, or what a credit note settled: its words and where they lead. */
function wordsOf(one: Allocation, file: DocumentFile): { readonly words: string; readonly path: string } {
  const { document } = file;
  const { debtId, debtKind, debtNumber, creditKind, creditId, creditNumber, date, closing } = one;
  const on = writeDate(date);
  const ofCustomer = routes.customer(document.customerId);
  if (debtId !== document.id)
    return { words: `${debtNumber}, ${on}`, path: debtKind === 'refund' ? ofCustomer : routes.document(debtId) };
  if (creditKind === 'write-off')
    return { words: `written off ${on}${closing?.relief ? ', with relief' : ''}`, path: ofCustomer };
  if (creditKind === 'difference') return { words: `difference closed ${on}`, path: ofCustomer };
  const path = creditKind === 'receipt' ? routes.receipt(creditId) : routes.document(creditId);
  return { words: `${creditNumber}, ${on}`, path };
}

/** What is still to come of a document: the discount it offers, and what the customer will keep back. */
function Expected({ file: { document, withheld } }: { readonly file: DocumentFile }) {
  const { currency } = document.content;
  const offer = discountOffer(document);
  const expected = expectedOnPayment(document);
  return (
    <>
      {offer !== null && offer.until >= today() && (
        <NoteRow
          label={`discount until ${writeDate(offer.until)}`}
          figure={<Money amount={offer.most} currency={currency} />}
        />
      )}
      {expected.map(({ type, amount }) => {
        const kept = withheld.filter(({ typeId, voidOn }) => typeId === type.id && voidOn === '');
        const sum = kept.reduce((all, one) => all + one.amount, 0n);
        return (
          <NoteRow
            key={type.id}
            label={`${type.name} expected${sum === 0n ? '' : ', withheld'}`}
            figure={
              <>
                <Money amount={amount} currency={currency} />
                {sum !== 0n && (
                  <>
                    {' / '}
                    <Money amount={sum as Minor} currency={currency} />
                  </>
                )}
              </>
            }
          />
        );
      })}
    </>
  );
}

/** How a document is settled: what was made of it with money, credits and write-offs, each to be undone in place. */
export function SettlementNote({ file, onTotal }: SettlementNoteProps) {
  const { document, family, allocations, receipts } = file;
  const [undoing, setUndoing] = useState<Allocation | null>(null);
  const { content, figures } = document;
  const { currency } = content;
  const { owed, creditsOwed } = KINDS[document.kind];
  if (!owed && !creditsOwed) return null;
  const moved = standing(allocations)
    .filter(({ takesBack }) => !takesBack)
    .reverse();
  const postDated = receipts.filter(
    (receipt) => isPostDated(receipt, today()) && moved.some(({ creditId }) => creditId === receipt.id),
  );
  const against = content.corrects;
  const opened = (key: TotalKey, amount: Minor, of: Currency): ReactNode => (
    <button type="button" title="Show workings" className="cursor-pointer hover:underline" onClick={() => onTotal(key)}>
      <Money amount={amount} currency={of} />
    </button>
  );
  return (
    <Note title="Settlement">
      <NoteRow label="Total" figure={opened('payable', figures.totals.payable, currency)} />
      {document.cancelled !== null && (
        <NoteRow label={`cancelled ${writeDate(document.cancelled.on)}: ${document.cancelled.reason}`} figure="" />
      )}
      {moved.map((one) => {
        const { words, path } = wordsOf(one, file);
        return (
          <NoteRow
            key={one.id}
            label={
              <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
                <Link href={path} className={LINK}>
                  {words}
                </Link>
                {one.creditKind !== 'difference' && (
                  <Button weight="quiet" className="-my-1" aria-label={`Undo ${words}`} onClick={() => setUndoing(one)}>
                    Undo…
                  </Button>
                )}
              </span>
            }
            figure={<Money amount={one.amount} currency={currency} />}
          />
        );
      })}
      {document.creditNotes.map((note) => (
        <NoteRow
          key={note.id}
          label={
            <Link href={routes.document(note.id)} className={LINK}>
              {note.number}
            </Link>
          }
          figure={
            <Money
              amount={family.find((d) => d.id === note.id)?.figures.totals.payable ?? document.credited}
              currency={currency}
            />
          }
        />
      ))}
      {against !== undefined && (
        <NoteRow
          label={
            <Link href={routes.document(against.documentId)} className={LINK}>
              set off against {against.number}
            </Link>
          }
          figure={<Money amount={document.credited} currency={currency} />}
        />
      )}
      <NoteRow label="Open" figure={opened('open', document.open, currency)} strong />
      {content.home !== undefined && (
        <NoteRow
          label={`Open in ${content.home.currency}`}
          figure={opened('openHome', document.openHome, content.home.currency)}
        />
      )}
      {postDated.map(({ id, valueDate }) => (
        <p key={id} className="my-1 text-sm">
          <Mark kind="note" /> Covered by a post-dated cheque until {writeDate(valueDate)}.
        </p>
      ))}
      {owed && document.open > 0n && <Expected file={file} />}
      {creditsOwed && document.open < 0n && (
        <CreditActions
          credit={{
            id: document.id,
            number: document.number,
            customerId: document.customerId,
            currency,
            left: negated(document.open),
          }}
        />
      )}
      {owed && document.open > 0n && (
        <div className="mt-2 text-sm">
          <OnAccount customerId={document.customerId} debt={{ id: document.id, currency }} />
        </div>
      )}
      {undoing !== null && <UndoDialog allocation={undoing} onClose={() => setUndoing(null)} />}
      {content.payLink !== undefined && document.open > 0n && document.cancelled === null && (
        <p className="mt-1 text-sm">
          <a href={content.payLink} target="_blank" rel="noreferrer" className={LINK}>
            Page to pay by card
          </a>
        </p>
      )}
    </Note>
  );
}

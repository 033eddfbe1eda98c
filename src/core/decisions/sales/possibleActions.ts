import { standingAnswer } from '@/core/delivery/answer';
import type { Mail } from '@/core/delivery/mail';
import type { Transmission } from '@/core/delivery/transmission';
import { leftToCredit } from '@/core/documents/creditLeft';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import type { Refusal } from '@/core/kernel/result';
import type { Registration } from '@/core/tax/registration';
import { isAboutMoney } from '../delivery/mailing';
import { sendFault } from '../delivery/sending';
import { cancelFault } from './cancel';
import { notesOn } from './credit';
import { versionFault } from './quote';

/** Something that can be done with an issued document. */
export type DocumentAction =
  | 'credit'
  | 'correct'
  | 'cancel'
  | 'accept'
  | 'decline'
  | 'bill'
  | 'write-version'
  | 'copy'
  | 'see-e-invoice'
  | 'mark-sent'
  | 'send'
  | 'mail'
  | 'receive'
  | 'write-off'
  | 'dispute'
  | 'promise';

/** A document with what decides on what can be done with it. */
export interface Standing {
  readonly document: IssuedDocument;
  /** All documents of its family, itself among them. */
  readonly family: readonly IssuedDocument[];
  /** Newest first. */
  readonly transmissions: readonly Transmission[];
  /** Messages about it. */
  readonly mails: readonly Mail[];
  /** The one that reports it; undefined where the book has it no more. */
  readonly registration: Pick<Registration, 'filedUntil'> | undefined;
  /** ISO date its entry is posted under, or empty. */
  readonly postedOn: string;
}

/** What can be done with a document, in the order it is offered; each with why it can't be done now, or null. */
export interface Possible {
  readonly actions: ReadonlyMap<DocumentAction, Refusal | null>;
  /** What is due first; null when nothing is. */
  readonly main: DocumentAction | null;
}

function creditFault(document: IssuedDocument, family: readonly IssuedDocument[]): Refusal | null {
  if (document.cancelled !== null) return { code: 'settled', path: '', by: 'cancelled' };
  const notes = notesOn(document, family);
  if (notes.length === 0 || leftToCredit(document, notes) !== 0n) return null;
  return { code: 'already-credited', path: '', by: notes.map(({ number }) => number) };
}

function cancelRefusal({ document, registration, postedOn, transmissions, mails }: Standing): Refusal | null {
  return registration === undefined
    ? null
    : cancelFault(document, registration, postedOn, [
        ...transmissions,
        ...mails.filter(({ purpose }) => !isAboutMoney(purpose)),
      ]);
}

/** The first of what is due for a document: what was rejected, then what is to be sent, paid, answered, billed. */
function mainOf(standing: Standing, actions: ReadonlyMap<DocumentAction, Refusal | null>): DocumentAction | null {
  const { document, transmissions } = standing;
  const [last] = transmissions;
  const rejected = last?.phase === 'asks' && standingAnswer(last.answers)?.code === 'RE';
  const can = (action: DocumentAction) => actions.get(action) === null;
  if (rejected && actions.has('correct')) return 'correct';
  for (const action of ['send', 'receive'] as const)
    if (can(action) && (action === 'send' || document.open > 0n)) return action;
  if (document.state === 'sent' && can('accept')) return 'accept';
  return can('bill') && document.state !== 'declined' && document.state !== 'invoiced' ? 'bill' : null;
}

/** What may be done with an issued document, and why not what may not. Screens offer this and decide nothing again. */
export function possibleActions(standing: Standing): Possible {
  const { document, family, transmissions } = standing;
  const { creditable, cancellable, copied, eInvoice, goesOut, owed } = KINDS[document.kind];
  const actions = new Map<DocumentAction, Refusal | null>();
  if (creditable) {
    const fault = creditFault(document, family);
    actions.set('credit', fault);
    actions.set('correct', fault);
  }
  if (cancellable) actions.set('cancel', cancelRefusal(standing));
  if (document.quote !== null) {
    const fault = versionFault(document);
    const replaced = fault?.code === 'replaced' ? fault : null;
    actions.set('accept', fault);
    actions.set('decline', fault);
    actions.set('bill', replaced);
    actions.set('write-version', fault);
  }
  if (copied) actions.set('copy', null);
  if (eInvoice) {
    actions.set('see-e-invoice', null);
    actions.set('send', sendFault({ document, before: transmissions }));
  }
  if (goesOut) actions.set('mail', document.cancelled === null ? null : { code: 'settled', path: '', by: 'cancelled' });
  if (goesOut)
    actions.set('mark-sent', document.sentOn === '' ? null : { code: 'sent-before', path: '', on: document.sentOn });
  // Money may come after all for what was written off.
  if (owed && (document.open > 0n || document.writtenOff > 0n)) actions.set('receive', null);
  if (owed && document.open > 0n) {
    actions.set('dispute', null);
    actions.set('promise', null);
    actions.set('write-off', null);
  }
  return { actions, main: mainOf(standing, actions) };
}

import {
  keepAnswers,
  keepTry,
  putAside,
  type Queued,
  queueEInvoices,
  tryAgain,
} from '@/core/decisions/delivery/sending';
import type { Delivery } from '@/core/delivery/accessPoint';
import type { Answer } from '@/core/delivery/answer';
import type { Transmission } from '@/core/delivery/transmission';
import type { IssuedDocument } from '@/core/documents/issued';
import { grouped } from '@/core/kernel/grouped';
import { refuse } from '@/core/kernel/result';
import { present } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

/** Writes and checks e-invoices and puts them into the queue. Those that can't be sent are answered with the reason. */
export const sendEInvoices: Action<{ documentIds: readonly string[] }, readonly Queued[]> = {
  name: 'queue e-invoices',
  async decide(db, { documentIds }, moment) {
    const [documents, transmissions, attachments] = await Promise.all([
      db.documents.bulkGet([...documentIds]),
      db.transmissions.where('documentId').anyOf(documentIds).toArray(),
      db.attachments.where('ownerId').anyOf(documentIds).toArray(),
    ]);
    const before = grouped(transmissions, (one) => one.documentId);
    const files = grouped(attachments, (file) => file.ownerId);
    const toSend = documents
      .filter((document) => document !== undefined)
      .map((document) => ({
        document,
        before: before.get(document.id) ?? [],
        attachments: files.get(document.id) ?? [],
      }));
    return queueEInvoices(toSend, moment);
  },
};

interface Loaded {
  readonly transmission: Transmission;
  readonly document: IssuedDocument;
}

function loadTransmission(db: BookDb, id: string): Promise<Loaded | null> {
  return db.transmissions.get(id).then((transmission) =>
    transmission === undefined
      ? null
      : db.documents.get(transmission.documentId).then((document) => ({
          transmission,
          document: present(document, `the document of ${transmission.number}`),
        })),
  );
}

const GONE = refuse({ code: 'not-found', path: 'id' });

/** Keeps what a try to send brought. */
export const keepSendingTry: Action<{ id: string; delivery: Delivery }, Transmission> = {
  name: 'try e-invoice',
  async decide(db, { id, delivery }, moment) {
    const found = await loadTransmission(db, id);
    return found === null ? GONE : keepTry(found.transmission, found.document, delivery, moment);
  },
};

/** Keeps what the receiver answered. */
export const keepReceivedAnswers: Action<{ id: string; answers: readonly Answer[] }, Transmission> = {
  name: 'hear of e-invoice',
  async decide(db, { id, answers }, moment) {
    const found = await db.transmissions.get(id);
    return found === undefined ? GONE : keepAnswers(found, answers, moment);
  },
};

/** Tries again what could not be sent, with the same id. */
export const trySendingAgain: Action<{ id: string }, Transmission> = {
  name: 'send e-invoice again',
  async decide(db, { id }, moment) {
    const found = await loadTransmission(db, id);
    return found === null ? GONE : tryAgain(found.transmission, found.document, moment);
  },
};

/** Puts aside what asks for something, or takes it out of the queue. */
export const putTransmissionAside: Action<{ id: string; words: string }, Transmission> = {
  name: 'put e-invoice aside',
  async decide(db, { id, words }, moment) {
    const found = await db.transmissions.get(id);
    return found === undefined ? GONE : putAside(found, words, moment);
  },
};

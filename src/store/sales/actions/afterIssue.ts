import { isAboutMoney } from '@/core/decisions/delivery/mailing';
import { annotate, attach, detach, letOut, markSent } from '@/core/decisions/sales/annotate';
import { cancel } from '@/core/decisions/sales/cancel';
import type { Attachment } from '@/core/documents/attachment';
import type { IssuedDocument } from '@/core/documents/issued';
import { PLAIN_STYLE } from '@/core/documents/style';
import { refuse } from '@/core/kernel/result';
import { loadFamily, present } from '../../load';
import type { Action } from '../../perform';
import { stylesFor } from '../queries/styles';

/** Cancels a document that has not gone out and whose period is open. */
export const cancelDocument: Action<{ documentId: string; reason: string }, null> = {
  name: 'cancel document',
  async decide(db, { documentId, reason }, moment) {
    const document = await db.documents.get(documentId);
    if (document === undefined) return refuse({ code: 'not-found', path: 'documentId' });
    const [family, registration, entry, lines, taxEntries, transmissions, mails, withheld, plans, chart] =
      await Promise.all([
        loadFamily(db, document.familyId),
        db.registrations.get(document.content.registrationId),
        db.journal.get(document.entryId),
        db.journalLines.where('entryId').equals(document.entryId).toArray(),
        db.taxEntries.where('documentId').equals(documentId).toArray(),
        db.transmissions.where('documentId').equals(documentId).toArray(),
        db.mails.where('documentIds').equals(documentId).toArray(),
        db.withheld.where('documentId').equals(documentId).toArray(),
        db.deferrals.where('documentId').equals(documentId).toArray(),
        db.accounts.toArray(),
      ]);
    if (entry === undefined) return refuse({ code: 'wrong-kind', path: '', number: document.number, takes: 'posted' });
    return cancel(
      {
        document,
        family,
        registration: present(registration, 'the registration'),
        entry,
        lines,
        taxEntries,
        onTheirWay: [...transmissions, ...mails.filter(({ purpose }) => !isAboutMoney(purpose))],
        withheld,
        plans,
        chart,
      },
      reason,
      moment,
    );
  },
};

/** Writes down that a document went out. `on` is an ISO date. */
export const sendElsewhere: Action<{ documentId: string; on: string; how: string }, null> = {
  name: 'mark as sent',
  async decide(db, { documentId, on, how }) {
    const document = await db.documents.get(documentId);
    return document === undefined ? refuse({ code: 'not-found', path: 'documentId' }) : markSent(document, on, how);
  },
};

/** Changes remarks, tags and style of an issued document. */
export const annotateDocument: Action<
  { documentId: string; beside: Pick<IssuedDocument, 'remarks' | 'tags' | 'styleId'> },
  null
> = {
  name: 'annotate document',
  async decide(db, { documentId, beside }) {
    const document = await db.documents.get(documentId);
    if (document === undefined) return refuse({ code: 'not-found', path: 'documentId' });
    const [style] = await stylesFor(db, [{ styleId: beside.styleId, customerId: document.customerId }]);
    return annotate(document, beside, style ?? PLAIN_STYLE);
  },
};

/** Keeps a file with what it belongs to. */
export const attachFile: Action<Attachment, Attachment> = {
  name: 'attach file',
  async decide(_, file) {
    return attach(file);
  },
};

/** Lets a file go out with its document, or keeps it at home. */
export const letFileOut: Action<{ id: string; goesOut: boolean }, null> = {
  name: 'let file out',
  async decide(db, { id, goesOut }) {
    return letOut(await db.attachments.get(id), goesOut);
  },
};

export const detachFile: Action<{ id: string }, null> = {
  name: 'take out file',
  async decide(db, { id }) {
    return detach(await db.attachments.get(id));
  },
};

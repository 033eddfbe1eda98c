import {
  keepMailNews,
  keepMailTry,
  type MailToQueue,
  putMailAside,
  queueMails,
  tryMailAgain,
} from '@/core/decisions/delivery/mailing';
import type { Delivery } from '@/core/delivery/accessPoint';
import type { Mail } from '@/core/delivery/mail';
import type { MailNews } from '@/core/delivery/mailServer';
import { firstTemplate, type MessageTemplate, messageTemplateSchema } from '@/core/delivery/messageTemplate';
import { accept, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { loadBook } from '../../load';
import type { Action } from '../../perform';

const GONE = refuse({ code: 'not-found', path: 'id' });

/** Puts messages into the queue, with their files. */
export const sendMails: Action<{ readonly mails: readonly MailToQueue[] }, readonly Mail[]> = {
  name: 'queue mail',
  async decide(db, { mails }, moment) {
    const digests = [...new Set(mails.flatMap(({ files }) => files.map(({ sha256 }) => sha256)))];
    const [{ business }, customers, kept, replaced] = await Promise.all([
      loadBook(db),
      db.customers.bulkGet([...new Set(mails.map(({ customerId }) => customerId))]),
      db.mailFiles.where('sha256').anyOf(digests).primaryKeys(),
      db.mails.bulkGet(mails.map(({ replaces }) => replaces).filter(Boolean)),
    ]);
    const material = {
      business,
      customers: new Map(customers.flatMap((one) => (one === undefined ? [] : [[one.id, one] as const]))),
      keptFiles: new Set(kept),
      replaced: new Map(replaced.flatMap((one) => (one === undefined ? [] : [[one.id, one] as const]))),
    };
    return queueMails(mails, material, moment);
  },
};

/** Keeps what a try to send brought. */
export const keepMailOutcome: Action<{ readonly id: string; readonly delivery: Delivery }, Mail> = {
  name: 'try mail',
  async decide(db, { id, delivery }, moment) {
    const mail = await db.mails.get(id);
    if (mail === undefined) return GONE;
    const documents = await db.documents.bulkGet([...mail.documentIds]);
    return keepMailTry(
      mail,
      documents.flatMap((one) => one ?? []),
      delivery,
      moment,
    );
  },
};

/** Keeps what was heard of a message. */
export const keepHeardOfMail: Action<{ readonly id: string; readonly news: readonly MailNews[] }, Mail> = {
  name: 'hear of mail',
  async decide(db, { id, news }, moment) {
    const mail = await db.mails.get(id);
    return mail === undefined ? GONE : keepMailNews(mail, news, moment);
  },
};

/** Tries again what could not be sent, with the same id. */
export const sendMailAgain: Action<{ readonly id: string }, Mail> = {
  name: 'send mail again',
  async decide(db, { id }, moment) {
    const mail = await db.mails.get(id);
    return mail === undefined ? GONE : tryMailAgain(mail, moment);
  },
};

/** Puts aside what asks for something, or takes it out of the queue. */
export const setMailAside: Action<{ readonly id: string; readonly words: string }, Mail> = {
  name: 'put mail aside',
  async decide(db, { id, words }, moment) {
    const mail = await db.mails.get(id);
    return mail === undefined ? GONE : putMailAside(mail, words, moment);
  },
};

/** Keeps the words of messages of a purpose in a language; the very words that come with the program are not kept. */
export const keepMessageTemplate: Action<MessageTemplate, MessageTemplate> = {
  name: 'keep message template',
  async decide(db, template) {
    const checked = validated<MessageTemplate>(messageTemplateSchema, template);
    if (!checked.ok) return checked;
    const before = await db.messageTemplates.get(template.id);
    const { subject, text } = firstTemplate(template.purpose, template.language);
    const isFirst = template.subject === subject && template.text === text;
    return accept({
      value: template,
      changes: {
        ...(isFirst
          ? before !== undefined && { remove: { messageTemplates: [template.id] } }
          : { put: { messageTemplates: [template] } }),
        audit: { subject: template.id, about: [template.id], ...(before && { before }), after: template },
      },
    });
  },
};

import { askedMail, type Mail, type MailFileData, recipientsOf } from '@/core/delivery/mail';
import type { MailNews, MailServer } from '@/core/delivery/mailServer';
import { keepHeardOfMail, keepMailOutcome } from '@/store/delivery/actions/mail';
import { dueMails, filesOfMail } from '@/store/delivery/queries/mail';
import { perform } from '@/store/perform';
import { deliveryJob } from './deliveryJob';
import type { Job } from './runJobs';

/** A message as a mail server takes it (RFC 5322). */
export type WriteMail = (mail: Mail, files: readonly MailFileData[]) => string | Promise<string>;

/** Sending mail and asking for news, as a job. */
export const mailJob = (server: MailServer, write: WriteMail): Job =>
  deliveryJob<Mail, MailNews>({
    what: 'Messages',
    due: dueMails,
    bring: async (db, mail, now) => {
      const message = await write(mail, await filesOfMail(db, mail));
      return server.send({ id: mail.id, from: mail.from, recipients: recipientsOf(mail), at: now, message });
    },
    keepTry: (db, id, delivery, moment) => perform(db, keepMailOutcome, { id, delivery }, moment),
    ask: (waiting, now) => server.news(waiting.map(askedMail), now),
    keepNews: (db, id, news, moment) => perform(db, keepHeardOfMail, { id, news }, moment),
  });

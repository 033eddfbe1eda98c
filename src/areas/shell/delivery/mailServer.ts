import * as yup from 'yup';
import type { Delivery } from '@/core/delivery/accessPoint';
import { type MailNews, type MailServer, mailNewsSchema } from '@/core/delivery/mailServer';
import { ask, deliverySchema, soundById } from './wire';

const newsSchema = yup.array().of(mailNewsSchema).required().max(1000);
const SERVICE = 'mail server';
const NOBODY = { kind: 'unreachable', words: 'The mail server could not be reached.' } as const;

/** The mail server over the wire. */
export const mailServer: MailServer = {
  async send(mail) {
    return (await ask<Delivery>('mail/send', SERVICE, mail, deliverySchema)) ?? NOBODY;
  },
  async news(asked, now) {
    const all = await ask<Record<string, unknown>>('mail/news', SERVICE, { asked, now }, yup.object().required());
    return all === null ? null : soundById<readonly MailNews[]>(all, newsSchema);
  },
};

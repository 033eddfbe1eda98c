import * as yup from 'yup';
import { type AskedMail, LARGEST_MAIL, type MailToSend } from '@/core/delivery/mailServer';
import { instantSchema, jsonService } from './jsonService';
import { simulatedMailServer } from './mailServer';

const server = simulatedMailServer();

/** Files in base64 take a third more, and lines have ends. */
const LONGEST_BODY = 1.5 * LARGEST_MAIL;

const recipients = yup.array().of(yup.string().required().max(320)).required().min(1).max(60);

const BODIES = {
  send: yup
    .object({
      id: yup.string().required().max(100),
      from: yup.string().required().max(320),
      recipients,
      at: instantSchema,
      message: yup.string().required(),
    })
    .required(),
  news: yup
    .object({
      now: instantSchema,
      asked: yup
        .array()
        .of(yup.object({ id: yup.string().required().max(100), recipients, takenAt: instantSchema }))
        .required()
        .max(100),
    })
    .required(),
} as const;

const WORK: { readonly [W in keyof typeof BODIES]: (body: never) => Promise<unknown> } = {
  send: (mail: MailToSend) => server.send(mail),
  news: ({ asked, now }: { asked: readonly AskedMail[]; now: string }) => server.news(asked, now),
};

/** Answers a request of JSON to the simulated mail server. */
export const answerMailServer = jsonService(BODIES, WORK, LONGEST_BODY);

import * as yup from 'yup';
import { type Asked, LARGEST_MESSAGE, type Message } from '@/core/delivery/accessPoint';
import { simulatedAccessPoint } from './accessPoint';
import { instantSchema, jsonService } from './jsonService';

const accessPoint = simulatedAccessPoint();

/** A message, and room for its addresses. */
const LONGEST_BODY = LARGEST_MESSAGE + 2 ** 16;

const endpoint = yup
  .object({ scheme: yup.string().required().max(4), id: yup.string().required().max(100) })
  .required();

const BODIES = {
  'look-up': yup.object({ receiver: endpoint }).required(),
  send: yup
    .object({
      id: yup.string().required().max(100),
      sender: endpoint,
      receiver: endpoint,
      at: instantSchema,
      tries: yup.number().integer().required(),
      file: yup.string().required(),
    })
    .required(),
  answers: yup
    .object({
      now: instantSchema,
      asked: yup
        .array()
        .of(
          yup.object({
            id: yup.string().required().max(100),
            receiver: endpoint,
            reference: yup.string().required().max(100),
            takenAt: instantSchema,
          }),
        )
        .required()
        .max(100),
    })
    .required(),
} as const;

type What = keyof typeof BODIES;

/** What the access point is asked, by the last part of its address. */
const WORK: { readonly [W in What]: (body: never) => Promise<unknown> } = {
  'look-up': ({ receiver }: Pick<Message, 'receiver'>) => accessPoint.lookUp(receiver),
  send: (message: Message) => accessPoint.send(message),
  answers: ({ asked, now }: { asked: readonly Asked[]; now: string }) => accessPoint.answers(asked, now),
};

/** Answers a request of JSON. */
export const answerAccessPoint = jsonService(BODIES, WORK, LONGEST_BODY);

import * as yup from 'yup';
import { type Asked, LARGEST_MESSAGE, type Message } from '@/core/delivery/accessPoint';
import { validated } from '@/core/kernel/validate';
import { wordRefusals } from '@/core/wording/refusals';
import { simulatedAccessPoint } from './accessPoint';

const accessPoint = simulatedAccessPoint();

/** A message, and room for its addresses. */
const LONGEST_BODY = LARGEST_MESSAGE + 2 ** 16;

const instant = yup
  .string()
  .required()
  .test(
    'instant',
    'Enter an instant, such as 2026-01-15T12:00:00.000Z.',
    (text) => /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,6})?Z$/.test(text ?? '') && !Number.isNaN(Date.parse(text ?? '')),
  );

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
      at: instant,
      tries: yup.number().integer().required(),
      file: yup.string().required(),
    })
    .required(),
  answers: yup
    .object({
      now: instant,
      asked: yup
        .array()
        .of(
          yup.object({
            id: yup.string().required().max(100),
            receiver: endpoint,
            reference: yup.string().required().max(100),
            takenAt: instant,
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

function read(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Answers a request of JSON: 404 for another address, 413 and 400 for a body that is too large or not as it should be. */
export async function answerAccessPoint(what: string, text: string): Promise<Response> {
  if (!Object.hasOwn(BODIES, what)) return Response.json({ error: 'not found' }, { status: 404 });
  if (text.length > LONGEST_BODY) return Response.json({ error: 'too large' }, { status: 413 });
  const body = validated<never>(BODIES[what as What], read(text));
  if (!body.ok) return Response.json({ error: wordRefusals(body.refusals) }, { status: 400 });
  return Response.json(await WORK[what as What](body.value));
}

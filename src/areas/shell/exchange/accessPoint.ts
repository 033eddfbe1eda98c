import * as yup from 'yup';
import type { AccessPoint, Delivery, LookUp } from '@/core/exchange/accessPoint';
import { type Answer, answerSchema } from '@/core/exchange/answer';
import { validated } from '@/core/kernel/validate';

/** Longer than this nobody is waited for; the message keeps its id and is tried again. */
const PATIENCE = 20_000;

const lookUpSchema = yup.object({
  kind: yup.string().oneOf(['takes', 'unknown', 'unreachable']).required(),
  words: yup.string().max(2000),
});
const deliverySchema = yup.object({
  kind: yup.string().oneOf(['taken', 'refused', 'unreachable']).required(),
  words: yup.string().max(2000),
  reference: yup.string().max(200),
  again: yup.boolean(),
});
const answersSchema = yup.array().of(answerSchema).required().max(1000);

/** What the access point said, or null where it could not be asked or said something else. */
async function ask<T>(what: string, body: unknown, schema: yup.Schema): Promise<T | null> {
  try {
    const response = await fetch(`/standins/access-point/${what}`, {
      method: 'POST',
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE),
    });
    if (!response.ok) return null;
    const answer = validated<T>(schema, await response.json());
    return answer.ok ? answer.value : null;
  } catch {
    return null;
  }
}

const NOBODY = { kind: 'unreachable', words: 'The access point could not be reached.' } as const;

/** The access point over the wire. */
export const accessPoint: AccessPoint = {
  async lookUp(receiver) {
    return (await ask<LookUp>('look-up', { receiver }, lookUpSchema)) ?? NOBODY;
  },
  async send(message) {
    return (await ask<Delivery>('send', message, deliverySchema)) ?? NOBODY;
  },
  async answers(asked, now) {
    const all = await ask<Record<string, unknown>>('answers', { asked, now }, yup.object().required());
    if (all === null) return null;
    // One answer that makes no sense does not keep the others from being heard.
    return Object.fromEntries(
      Object.entries(all).flatMap(([id, answers]) => {
        const sound = validated<readonly Answer[]>(answersSchema, answers);
        return sound.ok ? [[id, sound.value]] : [];
      }),
    );
  },
};

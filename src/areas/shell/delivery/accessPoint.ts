import * as yup from 'yup';
import type { AccessPoint, Delivery, LookUp } from '@/core/delivery/accessPoint';
import { type Answer, answerSchema } from '@/core/delivery/answer';
import { validated } from '@/core/kernel/validate';

/** Longer than this nobody is waited for; the message keeps its id and is tried again. */
const PATIENCE = 20_000;

const lookUpSchema = yup.object({
  kind: yup.string().oneOf(['takes', 'unknown', 'refused', 'unreachable']).required(),
  words: yup.string().max(2000),
});
const deliverySchema = yup.object({
  kind: yup.string().oneOf(['taken', 'refused', 'unreachable']).required(),
  words: yup.string().max(2000),
  reference: yup.string().max(200),
  again: yup.boolean(),
});
const answersSchema = yup.array().of(answerSchema).required().max(1000);

interface Refused {
  readonly kind: 'refused';
  readonly words: string;
}

/** Codes of HTTP that ask to be tried again: too slow, too early, too often (RFC 9110, 8470, 6585). */
const TRY_AGAIN: ReadonlySet<number> = new Set([408, 425, 429]);

/** All other codes from 400 on say that the question itself is wrong: the same again would be refused again. */
const refuses = (status: number): boolean => status >= 400 && status < 500 && !TRY_AGAIN.has(status);

/** What the access point said; null where it could not be asked or said something else. */
async function ask<T>(what: string, body: unknown, schema: yup.Schema): Promise<T | Refused | null> {
  try {
    const response = await fetch(`/standins/access-point/${what}`, {
      method: 'POST',
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE),
    });
    if (refuses(response.status))
      return { kind: 'refused', words: `The access point does not accept it as it is (answer ${response.status}).` };
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

import * as yup from 'yup';
import type { AccessPoint, Delivery, LookUp } from '@/core/delivery/accessPoint';
import { type Answer, answerSchema } from '@/core/delivery/answer';
import { ask, deliverySchema, soundById } from './wire';

const lookUpSchema = yup.object({
  kind: yup.string().oneOf(['takes', 'unknown', 'refused', 'unreachable']).required(),
  words: yup.string().max(2000),
});
const answersSchema = yup.array().of(answerSchema).required().max(1000);

const SERVICE = 'access point';
const NOBODY = { kind: 'unreachable', words: 'The access point could not be reached.' } as const;

/** The access point over the wire. */
export const accessPoint: AccessPoint = {
  async lookUp(receiver) {
    return (await ask<LookUp>('access-point/look-up', SERVICE, { receiver }, lookUpSchema)) ?? NOBODY;
  },
  async send(message) {
    return (await ask<Delivery>('access-point/send', SERVICE, message, deliverySchema)) ?? NOBODY;
  },
  async answers(asked, now) {
    const all = await ask<Record<string, unknown>>(
      'access-point/answers',
      SERVICE,
      { asked, now },
      yup.object().required(),
    );
    if (all === null) return null;
    return soundById<readonly Answer[]>(all, answersSchema);
  },
};

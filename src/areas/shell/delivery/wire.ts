import * as yup from 'yup';
import { validated } from '@/core/kernel/validate';

/** Longer than this nobody is waited for; the message keeps its id and is tried again. */
const PATIENCE = 20_000;

/** What a message came to, as it is told over the wire. */
export const deliverySchema = yup.object({
  kind: yup.string().oneOf(['taken', 'refused', 'unreachable']).required(),
  words: yup.string().max(2000),
  reference: yup.string().max(200),
  again: yup.boolean(),
});

interface Refused {
  readonly kind: 'refused';
  readonly words: string;
}

/** Codes of HTTP that ask to be tried again: too slow, too early, too often (RFC 9110, 8470, 6585). */
const TRY_AGAIN: ReadonlySet<number> = new Set([408, 425, 429]);

/** All other codes from 400 on say that the question itself is wrong: the same again would be refused again. */
const refuses = (status: number): boolean => status >= 400 && status < 500 && !TRY_AGAIN.has(status);

/** What a service said at its address; null where it could not be asked or said something else. */
export async function ask<T>(
  path: string,
  service: string,
  body: unknown,
  schema: yup.Schema,
): Promise<T | Refused | null> {
  try {
    const response = await fetch(`/standins/${path}`, {
      method: 'POST',
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE),
    });
    if (refuses(response.status))
      return { kind: 'refused', words: `The ${service} does not accept it as it is (answer ${response.status}).` };
    if (!response.ok) return null;
    const answer = validated<T>(schema, await response.json());
    return answer.ok ? answer.value : null;
  } catch {
    return null;
  }
}

/** What was told by the id of each message, as far as it makes sense: one that does not keeps no other from being heard. */
export function soundById<T>(all: object, schema: yup.Schema): Readonly<Record<string, T>> {
  return Object.fromEntries(
    Object.entries(all).flatMap(([id, told]) => {
      const sound = validated<T>(schema, told);
      return sound.ok ? [[id, sound.value]] : [];
    }),
  );
}

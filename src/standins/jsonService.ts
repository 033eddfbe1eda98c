import * as yup from 'yup';
import { isInstant } from '@/core/kernel/date';
import { validated } from '@/core/kernel/validate';
import { wordRefusals } from '@/core/wording/refusals';

/** An instant in the body of a question. */
export const instantSchema = yup
  .string()
  .required()
  .test('instant', 'Enter an instant, such as 2026-01-15T12:00:00.000Z.', (text) => isInstant(text ?? ''));

function read(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/**
 * Answers questions of JSON, each by the last part of its address: 404 for another address, 413 and 400 for a body that is
 * too large or not as it should be.
 */
export function jsonService<What extends string>(
  bodies: Readonly<Record<What, yup.Schema>>,
  work: Readonly<Record<What, (body: never) => Promise<unknown>>>,
  longest: number,
): (what: string, text: string) => Promise<Response> {
  const isWhat = (what: string): what is What => Object.hasOwn(bodies, what);
  return async (what, text) => {
    if (!isWhat(what)) return Response.json({ error: 'not found' }, { status: 404 });
    if (text.length > longest) return Response.json({ error: 'too large' }, { status: 413 });
    const body = validated<never>(bodies[what], read(text));
    if (!body.ok) return Response.json({ error: wordRefusals(body.refusals) }, { status: 400 });
    return Response.json(await work[what](body.value));
  };
}

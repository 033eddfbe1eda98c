/**
 * JSON in one fixed form: object keys sorted, no blanks, `undefined` left out, and amounts (bigint)
 * written as `{"minor":"123"}` so that they survive without passing through a binary float.
 * The same value always gives the same text; seals and archives rest on that.
 */
export function writeCanonical(value: unknown): string {
  if (typeof value === 'bigint') return `{"minor":"${value}"}`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  if (Array.isArray(value)) return `[${value.map(writeCanonical).join(',')}]`;
  const parts: string[] = [];
  for (const key of Object.keys(value).sort()) {
    const member = (value as Record<string, unknown>)[key];
    if (member !== undefined) parts.push(`${JSON.stringify(key)}:${writeCanonical(member)}`);
  }
  return `{${parts.join(',')}}`;
}

/** Whether two values have the same canonical text, without writing it. */
export function sameCanonical(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (!isPlain(a) || !isPlain(b) || Array.isArray(a) !== Array.isArray(b))
    return writeCanonical(a) === writeCanonical(b);
  if (Array.isArray(a))
    return a.length === (b as unknown as unknown[]).length && a.every((one, i) => sameCanonical(one, b[i]));
  return Object.keys({ ...a, ...b }).every((key) => sameMember(a[key], b[key]));
}

function isPlain(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null;
}

/** Of an object: one that is undefined is not there. */
function sameMember(a: unknown, b: unknown): boolean {
  return a === undefined || b === undefined ? a === b : sameCanonical(a, b);
}

const MINOR = /^-?\d{1,400}$/;

/** Reads what `writeCanonical` wrote. @throws SyntaxError when the text is not JSON. */
export function readCanonical(text: string): unknown {
  return JSON.parse(text, (_key, value: unknown) => {
    if (value !== null && typeof value === 'object' && 'minor' in value) {
      const digits = (value as { minor: unknown }).minor;
      if (Object.keys(value).length === 1 && typeof digits === 'string' && MINOR.test(digits)) return BigInt(digits);
    }
    return value;
  });
}

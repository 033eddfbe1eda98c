import { shown } from './result';

/** One thing that two records say differently, by its path. */
export interface Said {
  readonly path: string;
  readonly before: string;
  readonly after: string;
}

/** Longest list of differences that is told; the rest is counted by the caller. */
const DEEPEST = 6;

type ShowAmount = (amount: bigint) => string;

function flat(value: unknown, path: string, into: Map<string, string>, show: ShowAmount, depth = 0): void {
  if (value === undefined || value === null || value === '') return;
  if (typeof value !== 'object' || depth > DEEPEST) {
    into.set(path, typeof value === 'bigint' ? show(value) : shown(value));
    return;
  }
  for (const [key, member] of Object.entries(value))
    flat(
      member,
      Array.isArray(value) ? `${path}[${Number(key) + 1}]` : path === '' ? key : `${path}.${key}`,
      into,
      show,
      depth + 1,
    );
}

/**
 * What two records say differently, in the order of the first; what is empty counts as not said.
 * `show` words amounts, which records hold in minor units.
 */
export function differences(before: unknown, after: unknown, show: ShowAmount = String): readonly Said[] {
  const was = new Map<string, string>();
  const is = new Map<string, string>();
  flat(before, '', was, show);
  flat(after, '', is, show);
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((path) => {
    const [a = '', b = ''] = [was.get(path), is.get(path)];
    return a === b ? [] : [{ path, before: a, after: b }];
  });
}

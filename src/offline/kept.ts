/* Which kept file answers what a page asks for. Knows no browser, so that it can be tried without one. */

/** Told to a build that waits: it answers from now on. */
export const TAKE_OVER = 'take over';

/** What one build of the app consists of, as `scripts/afterBuild.mjs` writes it down. */
export interface Build {
  /** Hash over all files. */
  readonly name: string;
  /** Integrity (`sha256-…`) by address: pages, `page?_rsc` for what a page looks like to the router, built files. */
  readonly files: Readonly<Record<string, string>>;
  /** Addresses that one page stands for: a regular expression and the page. */
  readonly rewrites: readonly (readonly [string, string])[];
}

export interface Asked {
  readonly method: string;
  readonly origin: string;
  readonly path: string;
  /** True for a page that is opened or loaded again. */
  readonly navigates: boolean;
  readonly header: (name: string) => string | null;
}

/**
 * - `kept`: the file of this build under this address;
 * - `nothing`: an empty answer, as what is kept need not be fetched ahead;
 * - `earlier`: a built file of an earlier build, which an open window may still ask for;
 * - `network`: none of ours.
 */
export type Answer =
  | { readonly from: 'kept'; readonly address: string }
  | { readonly from: 'earlier'; readonly address: string }
  | { readonly from: 'nothing' }
  | { readonly from: 'network' };

/** Stand-ins of the outside world need the server. */
const OUTSIDE = '/standins/';
/** Files that carry their hash in their name: the same name is the same file for ever. */
export const HASHED = '/_next/static/';
const NOT_FOUND = '/_not-found';
const PREFETCH = ['next-router-prefetch', 'next-router-segment-prefetch'];

/** The page that stands under a path; `/_not-found` where none does. */
export function pageAt(path: string, { files, rewrites }: Build): string {
  const plain = path.length > 1 && path.endsWith('/') ? path.slice(0, -1) : path;
  if (`${plain}?_rsc` in files) return plain;
  return rewrites.find(([pattern]) => new RegExp(pattern).test(plain))?.[1] ?? NOT_FOUND;
}

/** What answers a request. `origin` is that of the app. */
export function answerTo(asked: Asked, origin: string, build: Build): Answer {
  const { method, path, navigates, header } = asked;
  if (method !== 'GET' || asked.origin !== origin || path.startsWith(OUTSIDE)) return { from: 'network' };
  if (PREFETCH.some((name) => header(name) !== null)) return { from: 'nothing' };
  if (header('rsc') === '1') return { from: 'kept', address: `${pageAt(path, build)}?_rsc` };
  if (path in build.files && !(`${path}?_rsc` in build.files)) return { from: 'kept', address: path };
  if (navigates) return { from: 'kept', address: pageAt(path, build) };
  return path.startsWith(HASHED) ? { from: 'earlier', address: path } : { from: 'network' };
}

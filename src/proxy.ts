import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { NextResponse } from 'next/server';

/** The inline scripts of the built pages, by their hashes; written once the pages are built (`scripts/afterBuild.mjs`). */
const HASHES = '.next/script-hashes.txt';

/** What pages may run: files of the app and their own inline scripts. The development server writes others as it goes. */
function scripts(): string {
  if (process.env.NODE_ENV === 'development') return "'unsafe-inline' 'unsafe-eval'";
  return readFileSync(join(process.cwd(), HASHES), 'utf8').trim().replaceAll('\n', ' ');
}

/** A strict content security policy of pages; nothing comes from elsewhere. */
const POLICY = [
  "default-src 'self'",
  `script-src 'self' ${scripts()}`,
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' blob: data:",
  "font-src 'self'",
  "connect-src 'self'",
  "worker-src 'self' blob:",
  "frame-src 'self' blob:",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
].join('; ');

export function proxy(): NextResponse {
  const response = NextResponse.next();
  response.headers.set('Content-Security-Policy', POLICY);
  // A page that was built says it may be kept for a year; the next build has another one.
  response.headers.set('Cache-Control', 'no-cache');
  return response;
}

export const config = { matcher: '/((?!_next/static|fonts/|favicon.ico).*)' };

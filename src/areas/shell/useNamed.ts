'use client';

import { usePathname } from 'next/navigation';

/**
 * What an address names behind the page it stands on: `/setup/customers/c1` on `/setup` names `customers` and `c1`.
 * Pages are the same file for everything they can show (`next.config.ts`), so that they are there without a server.
 */
export function useNamed(page: string): readonly string[] {
  const path = usePathname();
  return path.startsWith(`${page}/`)
    ? path
        .slice(page.length + 1)
        .split('/')
        .map(decode)
    : [];
}

/** An address typed by hand may hold a lone percent sign. */
function decode(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}

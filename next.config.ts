import type { NextConfig } from 'next';

/**
 * Built files get a policy too, as a worker has the policy of its own file: it runs only files of the app, fetches
 * only from where it came, and evaluates nothing. Pages get theirs in `src/proxy.ts`.
 */
const FILE_POLICY = [
  "default-src 'none'",
  process.env.NODE_ENV === 'development' ? "script-src 'self' 'unsafe-eval'" : "script-src 'self'",
  "connect-src 'self'",
  "worker-src 'self'",
  "base-uri 'none'",
  "form-action 'none'",
  "frame-ancestors 'none'",
].join('; ');

/** One page for all that it can show: the screen reads from the address what it is asked for (`areas/shell/useNamed.ts`). */
const PAGES: Readonly<Record<string, string>> = {
  '/sales/doc/:id': '/sales/doc',
  '/sales/draft/:id': '/sales/draft',
  '/sales/recurring/:id': '/sales/recurring',
  '/sales/runs/:id': '/sales/runs',
  ...Object.fromEntries(
    ['customers', 'items', 'prices'].flatMap((part) => [
      [`/sales/${part}`, '/sales/records'],
      [`/sales/${part}/:id`, '/sales/records'],
    ]),
  ),
  '/receipts/customers/:id': '/receipts/customers',
  '/receipts/:id': '/receipts/one',
  '/ledger/account/:code': '/ledger/account',
  '/setup/:section': '/setup',
  '/setup/:section/:id': '/setup',
};

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  rewrites: async () => Object.entries(PAGES).map(([source, destination]) => ({ source, destination })),
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'no-referrer' },
      ],
    },
    ...['/_next/static/:path*', '/fonts/:path*', '/favicon.ico'].map((source) => ({
      source,
      headers: [{ key: 'Content-Security-Policy', value: FILE_POLICY }],
    })),
  ],
};

export default config;

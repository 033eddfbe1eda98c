import type { MetadataRoute } from 'next';

/** Lets the browser install the app. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Able Ledger',
    short_name: 'Able Ledger',
    description: 'Invoices, receipts and provable tax periods, kept in your browser',
    start_url: '/',
    display: 'standalone',
    background_color: '#f5f1e8',
    theme_color: '#f5f1e8',
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' }],
  };
}

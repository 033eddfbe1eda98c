import { isIsoDate } from '@/core/kernel/date';
import { rateFeed } from '@/standins/rateFeed';

/** Stands in for a bank's feed of reference rates: `?day=2026-11-23`. */
export function GET(request: Request): Response {
  const day = new URL(request.url).searchParams.get('day');
  if (!isIsoDate(day)) return new Response('Give a day such as 2026-11-23.', { status: 400 });
  return new Response(rateFeed(day), { headers: { 'content-type': 'application/xml; charset=utf-8' } });
}

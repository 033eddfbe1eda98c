import { isCountry } from '@/core/kernel/country';
import { askRegistry } from '@/standins/numberRegistry';

const LONGEST_NUMBER = 30;

/** The simulated registry of tax numbers: `?country=DE&number=DE812345673`. 503 while it is "down". */
export function GET(request: Request): Response {
  const { searchParams } = new URL(request.url);
  const country = searchParams.get('country') ?? '';
  const number = searchParams.get('number') ?? '';
  if (!isCountry(country) || number === '' || number.length > LONGEST_NUMBER)
    return Response.json({ error: 'give country and number' }, { status: 400 });
  const answer = askRegistry(country, number);
  return Response.json(answer, { status: answer.result === 'unreachable' ? 503 : 200 });
}

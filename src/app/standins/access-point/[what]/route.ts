import { answerAccessPoint } from '@/standins/accessPointService';

/** The simulated access point: POST `look-up`, `send` and `answers`, each with JSON. */
export async function POST(request: Request, { params }: { params: Promise<{ what: string }> }): Promise<Response> {
  const { what } = await params;
  return answerAccessPoint(what, await request.text());
}

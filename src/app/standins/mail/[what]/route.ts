import { answerMailServer } from '@/standins/mailService';

/** The simulated mail server: POST `send` and `news`, each with JSON. */
export async function POST(request: Request, { params }: { params: Promise<{ what: string }> }): Promise<Response> {
  const { what } = await params;
  return answerMailServer(what, await request.text());
}

import { accessPoint } from './accessPoint';

const endpoint = { scheme: '9930', id: 'DE812345673' };
const message = { id: 'm-1', sender: endpoint, receiver: endpoint, at: '2026-01-15T12:00:00.000Z', tries: 0, file: '' };

/** The access point as a line that answers everything with this code. */
function answering(status: number): void {
  globalThis.fetch = async () => new Response('{"error":"too large"}', { status });
}

describe('the access point over the wire', () => {
  const line = globalThis.fetch;
  afterEach(() => {
    globalThis.fetch = line;
  });

  test.each([400, 404, 413])('takes an answer of %d for a refusal, which is not tried again', async (status) => {
    answering(status);
    expect(await accessPoint.send(message)).toEqual({ kind: 'refused', words: expect.stringContaining(`${status}`) });
    expect((await accessPoint.lookUp(endpoint)).kind).toBe('refused');
    expect(await accessPoint.answers([], message.at)).toEqual({});
  });

  test.each([408, 429, 500, 503])('tries again after an answer of %d', async (status) => {
    answering(status);
    expect((await accessPoint.send(message)).kind).toBe('unreachable');
    expect((await accessPoint.lookUp(endpoint)).kind).toBe('unreachable');
    expect(await accessPoint.answers([], message.at)).toBeNull();
  });
});

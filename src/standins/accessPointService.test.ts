import { baseInvoice, setIn } from 'tests/einvoice';
import { writeEInvoice } from '@/core/einvoice/syntax';
import { answerAccessPoint } from './accessPointService';

const receiver = { scheme: '9930', id: 'DE812345673' };
const message = {
  id: 'm-1',
  sender: { scheme: '9935', id: 'IE7654321G' },
  receiver,
  at: '2026-01-15T12:00:00.000Z',
  tries: 0,
  file: writeEInvoice(baseInvoice(), 'ubl'),
};

async function ask(what: string, body: unknown): Promise<[number, Record<string, unknown>]> {
  const response = await answerAccessPoint(what, typeof body === 'string' ? body : JSON.stringify(body));
  return [response.status, (await response.json()) as Record<string, unknown>];
}

describe('the service of the simulated access point', () => {
  test.each<[string, string, unknown, number]>([
    ['another address', 'orders', {}, 404],
    ['a name every object has', 'constructor', {}, 404],
    ['no JSON', 'send', 'hello', 400],
    ['nothing', 'look-up', '', 400],
    ['a body of another shape', 'look-up', { receiver: 'DE' }, 400],
    ['a message without a receiver', 'send', { ...message, receiver: undefined }, 400],
    ['a list that is too long', 'answers', { now: message.at, asked: Array(101).fill({}) }, 400],
    ['a body that is too large', 'send', 'x'.repeat(9 * 2 ** 20 + 2 ** 16 + 1), 413],
    ['a try at no instant', 'send', { ...message, at: 'yesterday' }, 400],
    ['a question at no instant', 'answers', { now: '2026-13-45T00:00:00Z', asked: [] }, 400],
    [
      'a question about no instant',
      'answers',
      { now: message.at, asked: [{ id: 'm-1', receiver, reference: 'SIM-x-L', takenAt: '-' }] },
      400,
    ],
  ])('refuses %s', async (_, what, body, status) => {
    expect((await ask(what, body))[0]).toBe(status);
  });

  test('takes a message once: the same again gives the same receipt, another under its id is refused', async () => {
    const [, first] = await ask('send', message);
    expect(first).toMatchObject({ kind: 'taken', again: false });
    expect((await ask('send', { ...message, tries: 1 }))[1]).toEqual({ ...first, again: true });
    const other = { ...message, file: `${message.file}<!-- -->` };
    expect((await ask('send', other))[1]).toMatchObject({ kind: 'refused' });
  });

  test.each<[string, string, RegExp]>([
    ['no e-invoice', '<a/>', /cannot be read/],
    ['a broken rule', writeEInvoice(setIn(['BG-4'], { 'BT-27': '' })(baseInvoice()), 'ubl'), /breaks BR-06/],
    [
      'another receiver',
      writeEInvoice(setIn(['BG-7'], { 'BT-49': { value: 'FR1', scheme: '9957' } })(baseInvoice()), 'ubl'),
      /another receiver/,
    ],
  ])('does not pass on %s', async (name, file, words) => {
    const [, answer] = await ask('send', { ...message, id: name, file });
    expect(answer).toMatchObject({ kind: 'refused', words: expect.stringMatching(words) });
  });

  test('gives answers out as their time comes', async () => {
    const asked = [{ id: 'm-1', receiver: { scheme: '0088', id: '98' }, reference: 'SIM-x-L', takenAt: message.at }];
    const codes = async (now: string) =>
      ((await ask('answers', { asked, now }))[1]['m-1'] as { code: string }[]).map(({ code }) => code);
    expect(await codes('2026-01-15T12:00:00.500Z')).toEqual(['AB']);
    expect(await codes('2026-01-15T12:00:01.000Z')).toEqual(['AB', 'AP']);
    expect(await codes('2026-01-16T12:00:00.000Z')).toEqual(['AB', 'AP', 'PD']);
  });
});

import type { AnswerCode } from '@/core/delivery/answer';
import { handledBy, heard, newTransmission, type Transmission, tried } from '@/core/delivery/transmission';
import { transmissionMark, transmissionNeed } from './transmissionMark';

const NOON = '2026-01-15T12:00:00.000Z';
const endpoint = { scheme: '0088', id: '1' };
const content = { seller: { endpoint }, buyer: { endpoint } };
const document = { id: 'd', number: 'INV-1', content } as unknown as Parameters<typeof newTransmission>[0];
const fresh = newTransmission(document, '<Invoice/>', 't', NOON);
const sent = tried(fresh, { kind: 'taken', reference: 'R', again: false }, NOON);
const answered = (code: AnswerCode) => heard(sent, [{ id: 'a', code, on: NOON, reasons: [], actions: [] }], NOON);
const failed = tried(fresh, { kind: 'unreachable', words: 'nobody there' }, NOON);
const refused = tried(fresh, { kind: 'refused', words: 'not for you' }, NOON);

test.each<[string, Transmission, string, string]>([
  ['queued', fresh, 'closing', 'waits to be sent'],
  ['failed once', failed, 'closing', 'is tried again'],
  ['refused', refused, 'wrong', 'could not be sent'],
  ['taken out', handledBy(fresh, 'x', NOON), 'cancelled', 'removed from the queue'],
  ['sent', sent, 'issued', 'sent, not answered'],
  ['acknowledged', answered('AB'), 'issued', 'received'],
  ['queried', answered('UQ'), 'warning', 'queried'],
  ['queried, dealt with', handledBy(answered('UQ'), 'x', NOON), 'note', 'queried'],
  ['rejected', answered('RE'), 'wrong', 'rejected'],
  ['rejected, credited', handledBy(answered('RE'), 'x', NOON), 'cancelled', 'rejected'],
  ['accepted', answered('AP'), 'good', 'accepted'],
  ['paid', answered('PD'), 'good', 'paid'],
])('%s has its mark and its word', (_, transmission, kind, word) => {
  expect(transmissionMark(transmission)).toEqual({ kind, word });
});

test('what it needs is said: the reason, the answer, or the silence', () => {
  expect(transmissionNeed(refused)).toBe('not for you');
  expect(transmissionNeed(answered('RE'))).toBe('rejected');
  expect(transmissionNeed(sent)).toBe('no answer since 15 Jan');
});

import fc from 'fast-check';
import { ANSWER_CODES, ANSWERS, type Answer, answerSchema, answerWords, standingAnswer } from './answer';
import { later, mayHaveArrived } from './queue';
import { askedOf, handledBy, heard, newTransmission, takenUp, tried } from './transmission';

const NOON = '2026-01-15T12:00:00.000Z';
const at = (seconds: number) => later(NOON, seconds);

const answer = (over: Partial<Answer> = {}): Answer => ({
  id: 'a',
  code: 'AB',
  on: NOON,
  reasons: [],
  actions: [],
  ...over,
});

const endpoint = { scheme: '0088', id: '1' };
const document = {
  id: 'd',
  number: 'INV-1',
  customerId: 'c',
  customerName: 'A board',
  content: { seller: { endpoint }, buyer: { endpoint } },
} as unknown as Parameters<typeof newTransmission>[0];
const fresh = newTransmission(document, '<Invoice/>', 't', NOON);
const sent = tried(fresh, { kind: 'taken', reference: 'R', again: false }, NOON);
const lost = { kind: 'unreachable', words: 'nobody there' } as const;

describe('what answers come to', () => {
  test.each<[string, readonly Partial<Answer>[], string]>([
    ['one alone', [{ code: 'IP' }], 'IP'],
    ['a later stage before an earlier one', [{ code: 'AP' }, { code: 'AB', on: at(60) }], 'AP'],
    ['paid after accepted', [{ code: 'PD', on: at(5) }, { code: 'AP' }], 'PD'],
    ['within a stage the last one given', [{ code: 'UQ' }, { code: 'IP', on: at(60) }], 'IP'],
    ['heard first, given last', [{ code: 'IP', on: at(60) }, { code: 'UQ' }], 'IP'],
    ['a change of mind', [{ code: 'AP' }, { code: 'RE', on: at(60) }], 'RE'],
  ])('%s', (_, given, code) => {
    expect(standingAnswer(given.map((one, i) => answer({ id: String(i), ...one })))?.code).toBe(code);
  });

  const answers = fc.uniqueArray(
    fc.record({ code: fc.constantFrom(...ANSWER_CODES), seconds: fc.integer({ min: 0, max: 10_000 }) }),
    { minLength: 1, maxLength: 8, selector: ({ seconds }) => seconds },
  );

  test('does not depend on the order in which they are heard, nor on hearing them again', () => {
    fc.assert(
      fc.property(answers, fc.infiniteStream(fc.nat()), (some, order) => {
        const given = some.map(({ code, seconds }) => answer({ id: String(seconds), code, on: at(seconds) }));
        const keys = new Map(given.map((one) => [one.id, order.next().value as number]));
        const mixed = [...given].sort((a, b) => (keys.get(a.id) ?? 0) - (keys.get(b.id) ?? 0));
        const once = heard(sent, given, at(20_000));
        const again = mixed.reduce((now, one) => heard(now, [one, one], at(20_000)), sent);
        expect(standingAnswer(again.answers)?.id).toBe(standingAnswer(once.answers)?.id);
        expect(again.answers).toHaveLength(given.length);
        expect(again.phase).toBe(once.phase);
      }),
    );
  });

  test('in words: what, why, and what is asked', () => {
    const rejected = answer({
      code: 'RE',
      reasons: [
        { code: 'REF', words: 'Our order is PO-17' },
        { code: 'XYZ', words: '' },
      ],
      actions: ['NOA', 'NIN'],
    });
    expect(answerWords(rejected)).toBe(
      'rejected: a reference is wrong or missing (Our order is PO-17), XYZ. Asked: send a new invoice',
    );
    for (const code of ANSWER_CODES) expect(answerWords(answer({ code }))).toBe(ANSWERS[code].words);
  });

  test.each([
    [{ code: 'ZZ' }],
    [{ on: 'soon' }],
    [{ on: '2026-13-45T99:00:00Z' }],
    [{ id: 'x'.repeat(201) }],
    [{ actions: [''] }],
    [{ reasons: null }],
  ])('from outside is not taken when it makes no sense: %j', (over) => {
    expect(answerSchema.isValidSync(answer())).toBe(true);
    expect(answerSchema.isValidSync({ ...answer(), ...over })).toBe(false);
  });
});

describe('a transmission', () => {
  test('waits ever longer between tries, and is left to a person after six', () => {
    let now = NOON;
    let one = fresh;
    const waits: number[] = [];
    while (one.dueAt !== '') {
      one = tried(one, lost, now);
      if (one.dueAt !== '') waits.push((Date.parse(one.dueAt) - Date.parse(now)) / 1000);
      now = one.dueAt || now;
    }
    expect(waits).toEqual([5, 30, 300, 3600, 21_600]);
    expect([one.phase, one.tries.length]).toEqual(['asks', 6]);
    // Taken up again it has all its tries before it, and keeps its history and its id.
    const again = tried(takenUp(one, now), lost, now);
    expect([again.id, again.phase, again.tries.length]).toEqual(['t', 'queued', 7]);
  });

  test('is not tried again where it was refused, and cannot have arrived then', () => {
    const refused = tried(fresh, { kind: 'refused', words: 'no' }, NOON);
    expect([refused.phase, refused.dueAt, mayHaveArrived(refused)]).toEqual(['asks', '', false]);
    expect(mayHaveArrived(fresh)).toBe(true);
    expect(mayHaveArrived(handledBy(fresh, 'x', NOON))).toBe(false);
    // A line that broke may have carried it all the same.
    expect(mayHaveArrived(handledBy(tried(fresh, lost, NOON), 'x', NOON))).toBe(true);
  });

  test('is asked about ever less often, at once again after news, and not for ever', () => {
    const waits = (from: typeof sent, times: number) => {
      let one = from;
      return Array.from({ length: times }, () => {
        const now = one.dueAt;
        one = heard(one, [], now);
        return (Date.parse(one.dueAt) - Date.parse(now)) / 1000;
      });
    };
    expect(waits(sent, 8)).toEqual([10, 60, 600, 3600, 21_600, 86_400, 86_400, 86_400]);
    expect(later(heard(sent, [answer()], NOON).dueAt, -2)).toBe(NOON);
    expect(heard(sent, [], at(61 * 86_400)).dueAt).toBe('');
    expect(heard(sent, [answer({ code: 'PD' })], NOON).dueAt).toBe('');
  });

  test('that was put aside comes back only when what stands has changed', () => {
    const asking = heard(sent, [answer({ code: 'UQ' })], NOON);
    const aside = handledBy(asking, 'telephoned', NOON);
    expect([asking.phase, aside.phase]).toEqual(['asks', 'answered']);
    expect(heard(aside, [answer({ id: 'b', code: 'AB' })], at(9)).phase).toBe('answered');
    expect(heard(aside, [answer({ id: 'c', code: 'RE', on: at(5) })], at(9)).phase).toBe('asks');
  });

  test('keeps since when it stands where it stands', () => {
    const accepted = heard(sent, [answer({ code: 'AP' })], at(60));
    expect([accepted.phase, accepted.since]).toEqual(['answered', at(60)]);
    expect(heard(accepted, [], at(120)).since).toBe(at(60));
  });

  test('without a receipt cannot be asked about', () => {
    expect(() => askedOf(fresh)).toThrow(RangeError);
    expect(askedOf(sent)).toEqual({ id: 't', receiver: endpoint, reference: 'R', takenAt: NOON });
  });
});

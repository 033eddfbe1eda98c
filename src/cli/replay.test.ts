import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

interface Scenario {
  readonly name: string;
  readonly input: Record<string, unknown>;
  readonly expected: { readonly balances: object; readonly open: readonly object[] };
}

const SCENARIOS = JSON.parse(readFileSync(join('tests', 'fixtures', 'replay.json'), 'utf8')) as readonly Scenario[];

function replay(input: unknown) {
  const text = typeof input === 'string' ? input : JSON.stringify(input);
  const run = spawnSync('node', ['scripts/able.mjs', 'replay', '-'], {
    encoding: 'utf8',
    input: text,
    timeout: 60_000,
  });
  return { code: run.status, out: JSON.parse(run.stdout) };
}

describe('able replay', () => {
  const all = replay(SCENARIOS.map(({ input }) => input));
  test.each(SCENARIOS.map((scenario, i) => ({ ...scenario, i })))('$name', ({ expected, i }) => {
    const { balances, open, ...rest } = expected;
    expect(all.out[i]).toMatchObject(rest);
    expect(all.out[i].balances).toEqual(balances);
    expect(all.out[i].open).toEqual(open.map((one) => expect.objectContaining(one)));
  });
  test('gives an array for an array, and zero when all of it was read', () => {
    expect([all.code, all.out.length]).toEqual([0, SCENARIOS.length]);
  });

  const good = SCENARIOS[0]?.input ?? {};
  test('a refused step is named by its place and code, and the rest goes on', () => {
    const steps = [
      { do: 'allocate', date: '2026-01-05', credit: 'R9', to: 'I9', amount: '1.00' },
      ...(good.steps as readonly object[]),
      { do: 'file', date: '2026-05-05', registration: 'IE', period: '2026-03-01' },
      { do: 'refund', date: '2026-05-05', id: 'F', of: 'I1', amount: '1.001' },
    ];
    const { code, out } = replay({ ...good, steps });
    expect(code).toBe(0);
    expect(out.refused).toEqual([
      { step: 0, code: 'not-found' },
      { step: 3, code: 'earlier-open' },
      { step: 4, code: 'invalid' },
    ]);
    expect(out.balances).toEqual(all.out[0].balances);
  });
  test('what can’t be read is named by its path, beside what can', () => {
    const step = (over: object) => ({
      ...good,
      steps: [{ do: 'undo', date: '2026-01-05', credit: 'a', to: 'b', ...over }],
    });
    const { code, out } = replay([
      step({ do: 'dance' }),
      step({ date: 'soon' }),
      step({ extra: 1 }),
      step({ credit: undefined }),
      { ...good, home: 'QQQ' },
      { ...good, registrations: [] },
      7,
      good,
    ]);
    expect(code).toBe(2);
    expect(out.slice(0, 7).map(({ error }: { error: { path: string } }) => error.path)).toEqual([
      'steps[0].do',
      'steps[0].date',
      'steps[0]',
      'steps[0].credit',
      'home',
      'registrations',
      '',
    ]);
    expect(out[7].seals).toBe(true);
  });
  test.each(['{', '', `${'['.repeat(40)}1${']'.repeat(40)}`])('%s is no scenario', (text) => {
    const { code, out } = replay(text);
    expect([code, out.error.path]).toEqual([2, '']);
    expect(out.error.message).toMatch(/^must /);
  });
});

import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CALC_DOCUMENT as good } from 'tests/calcDocument';

function able(args: readonly string[], input?: string) {
  const run = spawnSync('node', ['scripts/able.mjs', ...args], { encoding: 'utf8', input, timeout: 30_000 });
  return { code: run.status, out: run.stdout.trim() === '' ? null : JSON.parse(run.stdout), err: run.stderr };
}

describe('able calc', () => {
  test('prints the figures of a file: 40.00 with 9 % inside holds 3.30', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'able-')), 'doc.json');
    writeFileSync(file, JSON.stringify(good));
    const { code, out } = able(['calc', file]);
    expect(code).toBe(0);
    expect(out.lines).toEqual([
      { id: '1', extension: '40.00', discount: '0.00', net: '36.70', tax: '3.30', gross: '40.00' },
    ]);
  });
  test('reads standard input, and gives an array for an array with errors in their place', () => {
    const { code, out } = able(['calc', '-'], JSON.stringify([good, { ...good, currency: 'QQQ' }]));
    expect(code).toBe(2);
    expect(out[0].totals.tax).toBe('3.30');
    expect(out[1]).toEqual({ error: { path: 'currency', message: expect.stringContaining('found QQQ') } });
  });
  test.each<[string, readonly string[], string | undefined, object | null]>([
    [
      'a bad quantity',
      ['calc', '-'],
      JSON.stringify({ ...good, lines: [{ ...good.lines[0], quantity: 'x' }] }),
      { path: 'lines[0].quantity' },
    ],
    ['no JSON', ['calc', '-'], '{', { path: '', message: 'must be a JSON file' }],
    ['no such file', ['calc', '/nowhere/at/all.json'], undefined, { path: '' }],
    ['no command', [], undefined, null],
  ])('%s ends with 2', (_, args, input, error) => {
    const { code, out, err } = able(args, input);
    expect(code).toBe(2);
    if (error === null) expect(err).toContain('usage');
    else expect(out.error).toMatchObject(error);
  });
});

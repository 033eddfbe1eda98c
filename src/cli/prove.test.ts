import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const folder = mkdtempSync(join(tmpdir(), 'able-prove-'));
afterAll(() => rmSync(folder, { recursive: true }));

function prove(name: string, bytes: Uint8Array | string) {
  const file = join(folder, name);
  writeFileSync(file, bytes);
  const run = spawnSync('node', ['scripts/able.mjs', 'prove', file], { encoding: 'utf8', timeout: 60_000 });
  return { code: run.status, out: JSON.parse(run.stdout) };
}

const fixture = (version: number) => readFileSync(join('tests', 'fixtures', `book-version-${version}.able`));

describe('able prove', () => {
  test('a sound book of any version holds in all', () => {
    const { code, out } = prove('sound.able', fixture(7));
    expect([code, out.holds, out.checks.length]).toEqual([0, true, 10]);
    expect(out.checks.find(({ check }: { check: string }) => check === 'receivables')).toMatchObject({
      expected: out.checks[3].found,
      differences: [],
    });
  });
  test('a book with a manual journal on its tax account says so, by period', () => {
    // The first fixture holds a journal that was written by hand.
    const { code, out } = prove('by-hand.able', fixture(1));
    expect([code, out.holds]).toEqual([1, false]);
    const wrong = out.checks.filter(({ holds }: { holds: boolean }) => !holds);
    expect(wrong.map(({ check }: { check: string }) => check)).toContain('periods');
    expect(JSON.stringify(wrong)).toContain('manual journal');
  });
  test('what is no book, or was cut, cannot be read', () => {
    expect(prove('words.able', 'no book').code).toBe(2);
    expect(prove('cut.able', fixture(7).subarray(0, 9000)).code).toBe(2);
    const { code, out } = prove('empty.able', '');
    expect([code, typeof out.error.message]).toEqual([2, 'string']);
  });
});

import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { CALC_DOCUMENT as good } from 'tests/calcDocument';
import { strangeInvoice } from 'tests/strangeInvoice';

const ABLE = join(process.cwd(), 'scripts', 'able.mjs');
const FOLDER = mkdtempSync(join(tmpdir(), 'able-'));

function kept(name: string, content: string | Uint8Array): string {
  const file = join(FOLDER, name);
  writeFileSync(file, content);
  return file;
}

/** Runs a line of the shell, in which `able` is the command, from a folder that is not the project's. */
function shell(line: string) {
  const run = spawnSync('sh', ['-c', line.replaceAll('able ', `node "${ABLE}" `)], {
    cwd: FOLDER,
    encoding: 'utf8',
    timeout: 60_000,
    maxBuffer: 2 ** 28,
    env: { ...process.env, NODE_OPTIONS: `--require "${join(process.cwd(), 'tests', 'maxRss.cjs')}"` },
  });
  const megabytes = Number(/maxRSS (\d+)/.exec(run.stderr)?.[1]) / 1000;
  return { code: run.status, out: run.stdout, err: run.stderr.replace(/maxRSS \d+\n/g, ''), megabytes };
}

const compound = (count: number) => ({
  ...good,
  taxes: {
    R: {
      category: 'S',
      components: Array.from({ length: count }, (_, i) => ({ id: `r${i}`, rate: '9.1234', compound: true })),
    },
  },
});

describe('what strangers give to able calc', () => {
  test.each<[string, string, RegExp]>([
    ['lists that stand in each other', '['.repeat(200_000) + ']'.repeat(200_000), /nested deeper than 32/],
    ['objects that stand in each other', `${'{"a":'.repeat(200_000)}1${'}'.repeat(200_000)}`, /nested deeper than 32/],
    ['3,000 taxes on top of each other', JSON.stringify(compound(3000)), /at most 20 entries/],
    ['a number that is no text', JSON.stringify({ ...good, prepaid: 1e9 }), /decimal written as text/],
  ])('%s end with 2 and a plain error', (name, json, words) => {
    kept(`${name}.json`, json);
    const { code, out, err, megabytes } = shell(`able calc "${name}.json"`);
    expect([code, err]).toEqual([2, '']);
    expect(out).toMatch(words);
    expect(megabytes).toBeLessThan(300);
  });

  test('input without an end is read up to its bound', () => {
    const { code, out, megabytes } = shell('yes "[[]]" | able calc -');
    expect(code).toBe(2);
    expect(out).toContain('must not be larger than 64 MB');
    expect(megabytes).toBeLessThan(300);
  });

  test('a file with a mark of byte order, a pipe, and twenty taxes on top of each other are read', () => {
    kept('bom.json', `\ufeff${JSON.stringify(good)}`);
    expect(shell('able calc bom.json')).toMatchObject({ code: 0, err: '' });
    expect(shell('cat bom.json | able calc /dev/stdin')).toMatchObject({ code: 0, err: '' });
    kept('twenty.json', JSON.stringify(compound(20)));
    expect(shell('able calc twenty.json')).toMatchObject({ code: 0, err: '' });
  });

  test('a reader that has read enough ends it without a stack of calls', () => {
    kept('many.json', JSON.stringify(Array.from({ length: 2000 }, () => good)));
    const { out, err } = shell('able calc many.json | head -c 10');
    expect([out.length, err]).toEqual([10, '']);
  });
});

describe('what strangers give to able check and convert', () => {
  const schema = 'urn:oasis:names:specification:ubl:schema:xsd';
  const head = `<Invoice xmlns="${schema}:Invoice-2" xmlns:cac="${schema}:CommonAggregateComponents-2" xmlns:cbc="${schema}:CommonBasicComponents-2">`;
  const line = (i: number) =>
    `<cac:InvoiceLine><cbc:ID>${i}</cbc:ID><cbc:InvoicedQuantity>1</cbc:InvoicedQuantity></cac:InvoiceLine>`;
  const invoice = (lines: number) => `${head}${Array.from({ length: lines }, (_, i) => line(i)).join('')}</Invoice>`;

  test('as many lines as are read are converted in less than 300 MB', () => {
    kept('lines.xml', invoice(66_000));
    const { code, out, megabytes } = shell('able convert --to cii lines.xml');
    expect(code).toBe(0);
    expect(out.match(/<ram:IncludedSupplyChainTradeLineItem>/g)).toHaveLength(66_000);
    expect(megabytes).toBeLessThan(300);
  });

  test.each<[string, () => string | Uint8Array, RegExp]>([
    ['130,000 lines', () => invoice(130_000), /more than 200000 elements/],
    [
      'a PDF that unpacks to 300 MB',
      () => {
        const stream = deflateSync(new Uint8Array(300 * 2 ** 20));
        const begin = `%PDF-1.7\n1 0 obj << /Length ${stream.length} /Filter /FlateDecode >>\nstream\r\n`;
        return Buffer.concat([Buffer.from(begin), stream, Buffer.from('\nendstream\nendobj\n')]);
      },
      /unpacks to more than 40 MB/,
    ],
  ])('%s end with 2 and a plain error in less than 300 MB', (name, make, words) => {
    kept(name, make());
    const { code, out, megabytes } = shell(`able check "${name}"`);
    expect(code).toBe(2);
    expect(out).toMatch(words);
    expect(megabytes).toBeLessThan(300);
  });

  test('of 500 changed e-invoices each has its line, in less than 300 MB', () => {
    for (let seed = 1; seed <= 500; seed++) kept(`strange-${seed}.xml`, strangeInvoice(seed).file);
    const { code, out, err, megabytes } = shell('able check strange-*.xml');
    expect([code, err, out.trim().split('\n').length]).toEqual([2, '', 500]);
    expect(megabytes).toBeLessThan(300);
  });

  test('a pipe is read like a file', () => {
    kept('one.xml', invoice(1));
    expect(shell('cat one.xml | able check -').code).toBe(1);
    expect(shell('cat one.xml | able check /dev/stdin').code).toBe(1);
  });
});

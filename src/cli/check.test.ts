import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { baseInvoice, readBack, set } from 'tests/einvoice';
import { plainModel } from '@/core/einvoice/model';
import { writeEInvoice } from '@/core/einvoice/syntax';

const folder = mkdtempSync(join(tmpdir(), 'able-check-'));

function file(name: string, text: string): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}

function able(...args: readonly string[]) {
  const run = spawnSync('node', ['scripts/able.mjs', ...args], { encoding: 'utf8', timeout: 60_000 });
  return { code: run.status, out: run.stdout, err: run.stderr };
}

const lines = (out: string) =>
  out
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line));

const base = baseInvoice();
const good = file('good.xml', writeEInvoice(base, 'ubl'));
const goodCii = file('good-cii.xml', writeEInvoice(base, 'cii'));
const bad = file('bad.xml', writeEInvoice(set({ 'BT-112': '124.00' })(base), 'ubl'));
const unreferenced = file('unreferenced.xml', writeEInvoice(set({ 'BT-10': '' })(base), 'cii'));
const bomb = file('bomb.xml', '<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>');

describe('able check', () => {
  test('prints one object for each file, and ends with 0 when all are fine', () => {
    const { code, out } = able('check', good, goodCii);
    expect(code).toBe(0);
    expect(lines(out)).toEqual([
      { file: good, syntax: 'ubl', profile: 'peppol', ok: true, findings: [] },
      { file: goodCii, syntax: 'cii', profile: 'peppol', ok: true, findings: [] },
    ]);
  });
  test('names rule, term, element and mend, and ends with 1', () => {
    const { code, out } = able('check', bad);
    expect(code).toBe(1);
    const [{ ok, findings }] = lines(out);
    expect(ok).toBe(false);
    expect(findings[0]).toEqual({
      rule: 'BR-CO-15',
      severity: 'error',
      term: 'BT-112',
      path: '/Invoice/cac:LegalMonetaryTotal/cbc:TaxInclusiveAmount',
      message: expect.stringContaining('100.00 + 23.00 = 123.00'),
    });
  });
  test('keeps to the profile asked for', () => {
    expect(able('check', unreferenced).code).toBe(1);
    expect(able('check', '--profile', 'en16931', unreferenced).code).toBe(0);
  });
  test('ends with 2 when a file cannot be read, and still checks the others', () => {
    const { code, out } = able('check', bomb, '/nowhere/at/all.xml', good);
    expect(code).toBe(2);
    const [first, second, third] = lines(out);
    expect([first.ok, first.error]).toEqual([false, 'The file has a DTD; files from outside must not have one.']);
    expect(second.error).toBe('The file cannot be read: check its name and place.');
    expect(third.ok).toBe(true);
  });
  test('called wrongly says how', () => {
    for (const args of [['check'], ['check', '--profile', 'x', good], ['convert', good], ['check', '--what', good]]) {
      const { code, err } = able(...args);
      expect([code, err.includes('usage')]).toEqual([2, true]);
    }
  });
});

describe('able convert', () => {
  test('writes the other syntax, and back, without losing anything', () => {
    const cii = able('convert', '--to', 'cii', good);
    expect(cii.code).toBe(0);
    const back = able('convert', '--to', 'ubl', file('converted.xml', cii.out));
    expect(plainModel(readBack(back.out).invoice)).toEqual(plainModel(base));
    expect(back.out).toBe(readFileSync(good, 'utf8'));
  });
  test('ends with 2 and the reason for what it cannot read', () => {
    expect(able('convert', '--to', 'ubl', bomb)).toEqual({ code: 2, out: '', err: expect.stringContaining('DTD') });
  });
});

import { readFileSync } from 'node:fs';
import type { Refusal } from '@/core/kernel/result';
import { calculate } from '@/core/tax/calculate';
import { readCalcInput } from '@/core/tax/readCalcInput';
import { writeCalcResult } from '@/core/tax/writeCalcResult';

function asError({ path, expected, found }: Refusal) {
  return { error: { path, message: found === undefined ? (expected ?? '') : `${expected}, found ${found}` } };
}

function calcOne(data: unknown): { ok: boolean; output: unknown } {
  const read = readCalcInput(data);
  if (read.ok) return { ok: true, output: writeCalcResult(calculate(read.value)) };
  return { ok: false, output: asError(read.refusals[0] as Refusal) };
}

/**
 * Prints the computed document of a JSON file (an array gives an array, with an `error` in the place
 * of an entry that can't be read). Returns the exit code: 0, or 2 for bad input.
 */
export function runCalc(file: string): 0 | 2 {
  let data: unknown;
  try {
    data = JSON.parse(readFileSync(file === '-' ? 0 : file, 'utf8'));
  } catch (error) {
    const message = error instanceof SyntaxError ? 'must be a JSON file' : 'cannot be read: check its name and place';
    process.stdout.write(`${JSON.stringify({ error: { path: '', message } })}\n`);
    return 2;
  }
  const results = (Array.isArray(data) ? data : [data]).map(calcOne);
  const outputs = results.map((result) => result.output);
  process.stdout.write(`${JSON.stringify(Array.isArray(data) ? outputs : outputs[0], null, 2)}\n`);
  return results.every((result) => result.ok) ? 0 : 2;
}

import type { Refusal } from '@/core/kernel/result';
import { calculate } from '@/core/tax/calculate';
import { readCalcInput } from '@/core/tax/readCalcInput';
import { writeCalcResult } from '@/core/tax/writeCalcResult';
import { wordRefusal } from '@/core/wording/refusals';
import { readJson } from './readJson';

/** A refusal as the commands print it. */
export function asError(refusal: Refusal) {
  const { path } = refusal;
  if (refusal.code !== 'malformed') return { error: { path, message: wordRefusal(refusal) } };
  const { must, found } = refusal;
  return { error: { path, message: found === undefined ? must : `${must}, found ${found}` } };
}

function calcOne(data: unknown): { ok: boolean; output: unknown } {
  const read = readCalcInput(data);
  if (read.ok) return { ok: true, output: writeCalcResult(calculate(read.value)) };
  return { ok: false, output: asError(read.refusals[0] as Refusal) };
}

/**
 * Prints the computed document of a JSON file, or of standard input (`-`); an array gives an array, with an `error` in
 * the place of an entry that can't be read. Returns the exit code: 0, or 2 for bad input.
 */
export function runCalc(file: string): 0 | 2 {
  const read = readJson(file);
  if (!read.ok) {
    process.stdout.write(`${JSON.stringify(asError(read.refusals[0] as Refusal))}\n`);
    return 2;
  }
  const data = read.value;
  const results = (Array.isArray(data) ? data : [data]).map(calcOne);
  const outputs = results.map((result) => result.output);
  process.stdout.write(`${JSON.stringify(Array.isArray(data) ? outputs : outputs[0], null, 2)}\n`);
  return results.every((result) => result.ok) ? 0 : 2;
}

import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { calculate } from '@/core/tax/calculate';
import { readCalcInput } from '@/core/tax/readCalcInput';
import { writeCalcResult } from '@/core/tax/writeCalcResult';
import { wordRefusal } from '@/core/wording/refusals';
import { readFile } from './readFile';

function asError(refusal: Refusal) {
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

/** Largest file of documents: 64 MiB. */
const LARGEST = 64 * 2 ** 20;
/** Deepest nesting that is read; a document needs six. */
const DEEPEST = 32;

/** True when brackets outside of texts stand in each other more than `most` deep. */
function isDeeper(json: string, most: number): boolean {
  let depth = 0;
  let inText = false;
  for (let i = 0; i < json.length; i++) {
    const mark = json[i];
    if (inText && mark === '\\') i++;
    else if (mark === '"') inText = !inText;
    else if (inText) continue;
    else if (mark === '[' || mark === '{') depth++;
    else if (mark === ']' || mark === '}') depth--;
    if (depth > most) return true;
  }
  return false;
}

const bad = (must: string) => refuse({ code: 'malformed', path: '', must });

function readJson(file: string): Result<unknown> {
  const bytes = readFile(file, LARGEST);
  if (bytes === null) return bad('cannot be read: check its name and place');
  if (bytes.length > LARGEST) return bad(`must not be larger than ${LARGEST / 2 ** 20} MB`);
  // A mark of byte order at the start is left out by the decoder.
  const json = new TextDecoder().decode(bytes);
  if (isDeeper(json, DEEPEST)) return bad(`must not be nested deeper than ${DEEPEST}`);
  try {
    return accept(JSON.parse(json));
  } catch {
    return bad('must be a JSON file');
  }
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

import { accept, type Result, refuse } from '@/core/kernel/result';
import { readFile } from './readFile';

/** Largest file of JSON: 64 MiB. */
const LARGEST = 64 * 2 ** 20;
/** Deepest nesting that is read; no command needs half of it. */
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

/** The content of a JSON file, or of standard input (`-`), within bounds. */
export function readJson(file: string): Result<unknown> {
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

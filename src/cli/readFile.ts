import { closeSync, openSync, readSync } from 'node:fs';

const CHUNK = 2 ** 16;
const STANDARD_INPUT = 0;

/**
 * Reads a file, a pipe, or standard input (`-`), never more of it than `most` bytes and one: what is longer is for the
 * caller to refuse. Null when it can't be read.
 */
export function readFile(file: string, most: number): Uint8Array | null {
  let handle: number;
  try {
    handle = file === '-' ? STANDARD_INPUT : openSync(file, 'r');
  } catch {
    return null;
  }
  const chunks: Buffer[] = [];
  let size = 0;
  try {
    while (size <= most) {
      const chunk = Buffer.allocUnsafe(Math.min(CHUNK, most + 1 - size));
      const read = readSync(handle, chunk, 0, chunk.length, null);
      if (read === 0) break;
      chunks.push(chunk.subarray(0, read));
      size += read;
    }
    return Buffer.concat(chunks);
  } catch {
    return null;
  } finally {
    if (handle !== STANDARD_INPUT) closeSync(handle);
  }
}

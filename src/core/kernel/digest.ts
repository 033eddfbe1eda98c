import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** SHA-256 of a text, hexadecimal. Synchronous, so that it can run inside a database transaction. */
export function digest(text: string): string {
  return digestOf(utf8ToBytes(text));
}

/** The same of bytes. */
export function digestOf(bytes: Uint8Array): string {
  return bytesToHex(sha256(bytes));
}

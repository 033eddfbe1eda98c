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

/** The digest of a text that comes in pieces. */
export interface RunningDigest {
  readonly add: (text: string) => void;
  /** SHA-256 of all of it, hexadecimal; nothing may be added after. */
  readonly end: () => string;
}

export function runningDigest(): RunningDigest {
  const hash = sha256.create();
  return {
    add: (text) => {
      hash.update(utf8ToBytes(text));
    },
    end: () => bytesToHex(hash.digest()),
  };
}

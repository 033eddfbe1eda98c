import { writeCanonical } from '@/core/kernel/canonical';
import { digest } from '@/core/kernel/digest';
import type { Content } from './content';

/** Proof that content was not altered: its hash together with that of the one before in its series. */
export interface Seal {
  /** SHA-256, hexadecimal. */
  readonly hash: string;
  /** Hash of the document before; empty for the first. */
  readonly previous: string;
}

export function sealOf(content: Content, previous: string): Seal {
  return { hash: digest(`${previous}\n${writeCanonical(content)}`), previous };
}

/**
 * Looks for the first document whose content no longer gives its seal, or that does not follow the
 * one before it. `chain` is one series in order of issue. Returns its number, or null when all fit.
 */
export function firstBroken(chain: readonly { readonly content: Content; readonly seal: Seal }[]): string | null {
  let previous = '';
  for (const { content, seal } of chain) {
    if (seal.previous !== previous || sealOf(content, previous).hash !== seal.hash) return content.number;
    previous = seal.hash;
  }
  return null;
}

/* Digits and letters that are not mistaken for one another when they are read out (Crockford). */
const CODE_LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const CODE_LENGTH = 12;

/** A short code of a seal to print on the document, 60 bits of its hash: `7KQ2-M0XR-94TD`. */
export function sealCode({ hash }: Pick<Seal, 'hash'>): string {
  const bits = BigInt(`0x${hash.slice(0, 15)}`);
  let code = '';
  for (let i = CODE_LENGTH - 1; i >= 0; i--) code += CODE_LETTERS[Number((bits >> BigInt(5 * i)) & 31n)];
  return code.replace(/(.{4})(?=.)/g, '$1-');
}

/** A typed code as it is compared: blanks and dashes dropped, O as 0, I and L as 1. */
export function readSealCode(typed: string): string {
  return typed.toUpperCase().replace(/[\s-]/g, '').replaceAll('O', '0').replace(/[IL]/g, '1');
}

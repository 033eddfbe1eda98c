import { writeCanonical } from '@/core/kernel/canonical';
import { digest } from '@/core/kernel/digest';
import { type DocumentStyle, PLAIN_STYLE } from './style';

/** A style as it was when a document was issued in it. Kept once for all documents that look the same. */
export interface Look {
  /** SHA-256 of the style. */
  readonly id: string;
  readonly style: DocumentStyle;
}

export function lookOf(style: DocumentStyle): Look {
  return { id: digest(writeCanonical(style)), style };
}

/** The style of a document: the first of these ids that is there (its own, its customer's, the default), else plain. */
export function styleFor(styles: readonly DocumentStyle[], ...ids: readonly string[]): DocumentStyle {
  for (const id of ids) {
    const found = styles.find((style) => style.id === id);
    if (found !== undefined) return found;
  }
  return PLAIN_STYLE;
}

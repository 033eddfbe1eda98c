import type { BookContent } from '@/core/decisions/changes';
import type { Attachment } from '@/core/documents/attachment';

/** Tables of version 3, as far as they are read here; all others stay as they are. */
export interface BookContentV3 {
  readonly attachments: readonly Omit<Attachment, 'goesOut'>[];
}

/** A book of version 3 in the shape of version 4: files that go out with their documents, and the exchange. */
export function upgradeV3(old: BookContentV3): Pick<BookContent, 'attachments' | 'transmissions'> {
  // What was kept before was for ourselves: nobody was told that it might be sent.
  return { attachments: old.attachments.map((file) => ({ ...file, goesOut: false })), transmissions: [] };
}

/** A file kept with a draft, a document or a customer. */
export interface Attachment {
  readonly id: string;
  /** Id of what it belongs to; a draft and the document that it becomes share theirs. */
  readonly ownerId: string;
  readonly name: string;
  /** Media type as the browser told it. */
  readonly type: string;
  /** Bytes. */
  readonly size: number;
  /** Base64, so that the book file can hold it as text. */
  readonly data: string;
  /** Instant. */
  readonly addedAt: string;
  /** It goes out inside the e-invoice of its document. */
  readonly goesOut: boolean;
}

/** Owner of files that came from others and belong to nothing of ours. */
export const RECEIVED = 'received';

/** The largest file that a book takes in: 10 MiB. */
export const LARGEST_ATTACHMENT = 10 * 2 ** 20;

/** The same files for another owner, as the draft that takes the place of a document. */
export function filesFor(ownerId: string, files: readonly Attachment[], newId: () => string): Attachment[] {
  return files.map((file) => ({ ...file, id: newId(), ownerId }));
}

/** The files that go out with their document. */
export function goingOut(attachments: readonly Attachment[]): readonly Attachment[] {
  return attachments.filter(({ goesOut }) => goesOut);
}

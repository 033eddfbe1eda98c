import { base64ToUint8Array, uint8ArrayToBase64 } from 'uint8array-extras';
import type { Attachment } from '@/core/documents/attachment';

/** The bytes of a file that the book keeps. */
export function bytesOf({ data }: Pick<Attachment, 'data'>): Uint8Array<ArrayBuffer> {
  return base64ToUint8Array(data);
}

/** Bytes as the book keeps them. */
export function base64OfBytes(bytes: Uint8Array): string {
  return uint8ArrayToBase64(bytes);
}

/** A file as the book keeps it. @throws DOMException when it can't be read. */
export async function base64Of(file: Blob): Promise<string> {
  return base64OfBytes(new Uint8Array(await file.arrayBuffer()));
}

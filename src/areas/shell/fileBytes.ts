import type { Attachment } from '@/core/documents/attachment';

/** The bytes of a file that the book keeps. */
export function bytesOf({ data }: Pick<Attachment, 'data'>): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
}

/** A file as the book keeps it. @throws DOMException when it can't be read. */
export async function base64Of(file: Blob): Promise<string> {
  const url = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(file);
  });
  return url.slice(url.indexOf(',') + 1);
}

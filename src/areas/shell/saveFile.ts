/** Hands a file to the browser to save. */
export function saveFile(name: string, content: string | Uint8Array | Blob, type: string): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser reads the blob after the click returns.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

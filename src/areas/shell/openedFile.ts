import { createStore } from 'zustand';

/** A file that was dropped or chosen to be looked at. It is not part of the book. */
export interface OpenedFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** The file that is looked at; null before one came. */
export const openedFile = createStore<{ readonly file: OpenedFile | null }>(() => ({ file: null }));

/** Takes a file to be looked at. */
export async function openFile(file: File): Promise<void> {
  openedFile.setState({ file: { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) } });
}

/** Puts the file away again; what the book keeps stays kept. */
export function closeFile(): void {
  openedFile.setState({ file: null });
}

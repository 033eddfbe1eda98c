/** A text file as it was read. */
export interface TextFile {
  readonly text: string;
  /** What its bytes were taken for, as people name it. */
  readonly encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252 (Latin-1)';
}

const UTF16: readonly (readonly [readonly [number, number], string])[] = [
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
];

/**
 * The text of a file of unknown encoding, as spreadsheets save them: UTF-16 by its mark, else UTF-8, else, where that does
 * not hold, Windows-1252, which has a sign for every byte.
 */
export function readTextFile(bytes: Uint8Array): TextFile {
  for (const [mark, label] of UTF16)
    if (mark.every((byte, i) => bytes[i] === byte))
      return { text: new TextDecoder(label).decode(bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252 (Latin-1)' };
  }
}

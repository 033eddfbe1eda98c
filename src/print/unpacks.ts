import { Unzlib } from 'fflate';

const STREAM = [...'stream'].map((letter) => letter.charCodeAt(0));
/** Small, as what one chunk unpacks to, up to a thousand times as much, is held at once. */
const CHUNK = 2 ** 8;
/** A stream may be packed again inside itself; nobody sound does so more often than this. */
const DEEPEST = 3;

class TooMuch extends Error {}

/** How much may still come out, of all streams together. */
interface Bound {
  left: number;
}

const looksPacked = (bytes: Uint8Array, at: number): boolean =>
  ((bytes[at] ?? 0) & 0x0f) === 8 && (((bytes[at] ?? 0) << 8) | (bytes[at + 1] ?? 0)) % 31 === 0;

/** Unpacks what it is given, and what is packed again inside, keeping nothing. */
class Drain {
  private readonly unzlib: Unzlib;
  private inner: Drain | null = null;
  private begun = false;
  private broken = false;
  private came = 0;

  constructor(
    private readonly bound: Bound,
    private readonly depth = 1,
  ) {
    this.unzlib = new Unzlib((chunk) => this.take(chunk));
  }

  private take(chunk: Uint8Array): void {
    this.came += chunk.length;
    this.bound.left -= chunk.length;
    if (this.bound.left < 0) throw new TooMuch();
    if (!this.begun && chunk.length > 1) {
      this.begun = true;
      if (this.depth < DEEPEST && looksPacked(chunk, 0)) this.inner = new Drain(this.bound, this.depth + 1);
    }
    this.inner?.push(chunk);
  }

  /** Gives whether anything came out. Bytes that only look packed are no harm, and end it. @throws TooMuch */
  push(bytes: Uint8Array): boolean {
    if (this.broken) return false;
    const before = this.came;
    try {
      this.unzlib.push(bytes);
    } catch (error) {
      if (error instanceof TooMuch) throw error;
      this.broken = true;
    }
    return this.came > before;
  }
}

/** Unpacks what begins here until nothing more comes. */
function drain(pdf: Uint8Array, from: number, bound: Bound): void {
  const stream = new Drain(bound);
  for (let at = from; at < pdf.length; at += CHUNK) if (!stream.push(pdf.subarray(at, at + CHUNK))) return;
}

/**
 * True where the packed streams of a PDF come to no more than `most` bytes. A stranger's small file may unpack to
 * more than any memory holds, and what reads PDFs does not ask before it unpacks. Takes time in the length of the file
 * and what it unpacks to, up to `most`.
 */
export function unpacksWithin(pdf: Uint8Array, most: number): boolean {
  const [first = 0] = STREAM;
  const bound = { left: most };
  try {
    for (let at = pdf.indexOf(first); at >= 0; at = pdf.indexOf(first, at + 1)) {
      if (!STREAM.every((letter, i) => pdf[at + i] === letter)) continue;
      const body = at + STREAM.length + (pdf[at + STREAM.length] === 13 ? 2 : 1);
      if (looksPacked(pdf, body)) drain(pdf, body, bound);
    }
  } catch (error) {
    if (error instanceof TooMuch) return false;
    throw error;
  }
  return true;
}

import Dexie, { type EntityTable } from 'dexie';

/** A book file that this browser keeps beside the book, made before the book was replaced. */
export interface KeptCopy {
  readonly id: 'replaced';
  readonly business: string;
  /** Instant. */
  readonly madeAt: string;
  readonly bytes: Uint8Array;
}

/** Copies lie in a database of their own, which no replacing, upgrading or clearing of the book touches. */
class CopiesDb extends Dexie {
  declare copies: EntityTable<KeptCopy, 'id'>;

  constructor(name: string) {
    super(name);
    this.version(1).stores({ copies: 'id' });
  }
}

const DEFAULT_NAME = 'able-ledger-copies';

async function withCopies<T>(name: string, work: (db: CopiesDb) => Promise<T>): Promise<T> {
  const db = new CopiesDb(name);
  try {
    return await work(db);
  } finally {
    db.close();
  }
}

/** Keeps a copy in place of the one before. @throws DexieError when the browser has no room. */
export function keepCopy(copy: Omit<KeptCopy, 'id'>, name = DEFAULT_NAME): Promise<unknown> {
  return withCopies(name, (db) => db.copies.put({ ...copy, id: 'replaced' }));
}

/** The copy of the book that was replaced last; null for none. */
export async function keptCopy(name = DEFAULT_NAME): Promise<KeptCopy | null> {
  return (await withCopies(name, (db) => db.copies.get('replaced'))) ?? null;
}

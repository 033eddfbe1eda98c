import type { BookDb } from '../../schema';

/** What of the beginning of a book is done; null once something was issued. */
export interface FirstSteps {
  readonly customers: boolean;
  readonly styles: boolean;
  readonly drafts: boolean;
}

/** How far a new book has come. */
export async function firstSteps(db: BookDb): Promise<FirstSteps | null> {
  if ((await db.documents.limit(1).count()) > 0) return null;
  const [customers, styles, drafts] = await Promise.all(
    [db.customers, db.styles, db.drafts].map(async (table) => (await table.limit(1).count()) > 0),
  );
  return { customers: customers === true, styles: styles === true, drafts: drafts === true };
}

import Dexie from 'dexie';
import type { IssuedDocument } from '@/core/documents/issued';
import type { SalesMaterial } from '@/core/reports/sales';
import { type ReportSpan, spanBefore } from '@/core/reports/span';
import { loadBook } from '../load';
import type { BookDb } from '../schema';

/* What reports of sales are made of: as much as the days hold, never the book. */

/** Documents issued between two days, by number. */
export function documentsIssued(db: BookDb, { from, until }: ReportSpan): Promise<IssuedDocument[]> {
  return db.documents.where('[issueDate+number]').between([from, Dexie.minKey], [until, Dexie.maxKey]).toArray();
}

export async function salesMaterial(db: BookDb, span: ReportSpan): Promise<SalesMaterial> {
  const [{ business }, documents, before, items] = await Promise.all([
    loadBook(db),
    documentsIssued(db, span),
    documentsIssued(db, spanBefore(span)),
    db.items.toArray(),
  ]);
  return {
    ...span,
    home: business.homeCurrency,
    documents,
    before,
    items: new Map(items.map(({ id, name }) => [id, name])),
  };
}

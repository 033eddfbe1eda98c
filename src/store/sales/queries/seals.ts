import Dexie from 'dexie';
import type { IssuedDocument } from '@/core/documents/issued';
import { readSealCode, sealCode, sealOf } from '@/core/documents/seal';
import type { Series } from '@/core/documents/series';
import { inBatches } from '../../batches';
import type { BookDb } from '../../schema';

/** What came of looking through one chain of seals. */
export interface ChainCheck {
  readonly seriesId: string;
  readonly kind: Series['kind'];
  readonly documents: number;
  /** The first document that does not fit, or null. */
  readonly broken: { readonly id: string; readonly number: string } | null;
  /** The end of the chain is not what the series keeps: documents at its end are missing. */
  readonly cut: boolean;
  /** Ids of all documents whose content no longer gives their seal. */
  readonly altered: readonly string[];
}

const BATCH = 500;

/** Recomputes a chain from its first document on, a batch at a time. `onDone` is told how far it is. */
async function checkChain(db: BookDb, series: Series, onDone: (done: number) => void): Promise<ChainCheck> {
  let [previous, position] = ['', 0];
  let broken: ChainCheck['broken'] = null;
  const altered: string[] = [];
  await inBatches<IssuedDocument>(
    BATCH,
    (after) =>
      db.documents
        .where('[seriesId+position]')
        .between([series.id, after?.position ?? 0], [series.id, Dexie.maxKey], false, true)
        .limit(BATCH)
        .toArray(),
    (batch) => {
      for (const { id, number, content, seal, position: at } of batch) {
        const fits = sealOf(content, seal.previous).hash === seal.hash;
        if (!fits) altered.push(id);
        if (!fits || seal.previous !== previous || at !== position + 1) broken ??= { id, number };
        [previous, position] = [seal.hash, at];
      }
      onDone(batch.length);
    },
  );
  const cut = broken === null && (previous !== series.lastSeal || position !== series.count);
  return { seriesId: series.id, kind: series.kind, documents: series.count, broken, cut, altered };
}

/** Recomputes every chain of seals in the book. */
export async function checkSeals(db: BookDb, onDone: (done: number, of: number) => void): Promise<ChainCheck[]> {
  const all = (await db.series.toArray()).filter(({ kind }) => kind !== 'receipt' && kind !== 'refund');
  const of = all.reduce((sum, series) => sum + series.count, 0);
  let done = 0;
  const checks: ChainCheck[] = [];
  for (const series of all)
    checks.push(
      await checkChain(db, series, (by) => {
        done += by;
        onDone(done, of);
      }),
    );
  return checks;
}

/** What a paper copy is held against: the document of its number whose seal has the printed code. */
export type PaperCheck =
  | { readonly found: 'unaltered'; readonly document: IssuedDocument }
  | { readonly found: 'altered' | 'other-code'; readonly document: IssuedDocument }
  | { readonly found: 'unknown' };

/** Holds a number and the code printed on paper against the book. */
export async function checkPaper(db: BookDb, number: string, code: string): Promise<PaperCheck> {
  const documents = await db.documents.where('number').equals(number.trim().toUpperCase()).toArray();
  const typed = readSealCode(code);
  const document = documents.find(({ seal }) => readSealCode(sealCode(seal)) === typed);
  if (document === undefined)
    return documents[0] === undefined ? { found: 'unknown' } : { found: 'other-code', document: documents[0] };
  const intact = sealOf(document.content, document.seal.previous).hash === document.seal.hash;
  return { found: intact ? 'unaltered' : 'altered', document };
}

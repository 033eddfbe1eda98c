import { prove } from '@/core/returns/proof';
import { archiveBook, openArchive } from '@/store/archive';
import { present } from '@/store/load';
import { BookDb } from '@/store/schema';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';
import { proveBook } from '@/store/tax/queries/proveBook';

/** Whatever was done, the book opens from its own file, its periods prove, and so does the whole of it. */
export async function expectSoundBook(db: BookDb): Promise<void> {
  const other = new BookDb(`opened-${Math.random()}`);
  expect(await openArchive(other, await archiveBook(db, '2026-12-31T12:00:00.000Z'))).toMatchObject({ ok: true });
  await other.delete();
  for (const { registrationId, start } of await db.taxPeriods.toArray()) {
    const registration = present(await db.registrations.get(registrationId), 'registration');
    expect(prove(await proofMaterial(db, registration, start))).toMatchObject({ holds: true });
  }
  expect((await proveBook(db, () => undefined)).filter(({ holds }) => !holds)).toEqual([]);
}

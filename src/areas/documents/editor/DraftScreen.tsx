'use client';

import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { blankDraft, type Draft } from '@/core/documents/draft';
import type { DraftKind } from '@/core/documents/kinds';
import { recordOf } from '@/store/records';
import { isDocument } from '@/store/sales/queries/documents';
import { Button } from '@/ui/Button';
import { Empty, Sheet } from '@/ui/Page';
import { useOpenBook } from '../../shell/BookContext';
import { bookDb, today } from '../../shell/book';
import { routes } from '../../shell/routes';
import { DraftEditor } from './DraftEditor';
import { dropSideCopy, sideCopyOf } from './sideCopy';

const kindOf = (asked: string): DraftKind => (asked === 'quote' || asked === 'cash-sale' ? asked : 'invoice');

/** Loads a draft once and hands it to the editor; other tabs' changes are met when it is kept. */
export function DraftScreen({ id }: { readonly id: string }) {
  const router = useRouter();
  const { registration } = useOpenBook();
  const asked = useSearchParams().get('new');
  const [draft, setDraft] = useState<Draft | null | undefined>(undefined);
  const registrationId = useRef(registration.id);
  const [reading, setReading] = useState(0);
  const [unkept, setUnkept] = useState(false);

  // biome-ignore lint/correctness/useExhaustiveDependencies: `reading` asks for the draft again
  useEffect(() => {
    let current = true;
    const db = bookDb();
    void Promise.all([recordOf(db, 'drafts', id), isDocument(db, id)]).then(([stored, issued]) => {
      if (!current) return;
      // The way back leads over the draft that the document was: on to the document.
      if (issued) return router.replace(routes.document(id));
      const copy = sideCopyOf(id, stored ?? undefined);
      setUnkept(copy !== null);
      const fresh = asked === null ? null : blankDraft(id, kindOf(asked), registrationId.current, today());
      setDraft(copy ?? stored ?? fresh);
    });
    return () => {
      current = false;
    };
  }, [id, asked, reading]);

  if (draft === undefined) return <Sheet label="Draft">{null}</Sheet>;
  if (draft === null)
    return (
      <Sheet label="Draft">
        <Empty action={<Button onClick={() => router.push(routes.sales)}>Back to Sales</Button>}>
          This draft is gone: it was issued or deleted.
        </Empty>
      </Sheet>
    );
  return (
    <DraftEditor
      key={reading}
      initial={draft}
      unkept={unkept}
      onLoadAgain={() => {
        dropSideCopy(id);
        setDraft(undefined);
        setReading((n) => n + 1);
      }}
    />
  );
}

'use client';

import { toast } from 'sonner';
import { type Attachment, RECEIVED } from '@/core/documents/attachment';
import { dayOf, writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { detachFile } from '@/store/sales/actions/afterIssue';
import { attachmentsOf } from '@/store/sales/queries/family';
import { Ruled } from '@/ui/Ruled';
import { TextButton } from '@/ui/TextButton';
import { act, useBook } from '../../shell/book';
import { bytesOf } from '../../shell/fileBytes';
import { openFile } from '../../shell/openedFile';

/** Files that were received and kept, newest first. */
export function useShelf(): readonly Attachment[] {
  return useBook(async (db) => (await attachmentsOf(db, RECEIVED)).reverse()) ?? [];
}

/** Received files that the book keeps: to be looked at again, or taken out. */
export function Shelf({ files }: { readonly files: readonly Attachment[] }) {
  const takeOut = async (id: string) => {
    const result = await act(detachFile, { id });
    if (!result.ok) toast.error(wordRefusals(result.refusals));
  };
  return (
    <section aria-label="Saved files" className="mt-5">
      <h2 className="mb-1 font-semibold font-serif">Saved files</h2>
      <Ruled
        caption="Saved files"
        rows={files}
        keyOf={({ id }) => id}
        columns={[
          {
            head: 'File',
            cell: (file) => (
              <TextButton
                className="break-all text-left"
                onClick={() => void openFile(new File([bytesOf(file)], file.name))}
              >
                {file.name}
              </TextButton>
            ),
          },
          { head: 'Saved', width: '120px', cell: ({ addedAt }) => writeDate(dayOf(addedAt)) },
          {
            head: '',
            width: '80px',
            align: 'right',
            cell: ({ id, name }) => (
              <TextButton aria-label={`Remove ${name}`} className="text-soft" onClick={() => void takeOut(id)}>
                remove
              </TextButton>
            ),
          },
        ]}
      />
    </section>
  );
}

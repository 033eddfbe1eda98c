'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { ArchivableTable, EndableTable } from '@/core/decisions/setup/endRecord';
import { wordRefusals } from '@/core/wording/refusals';
import { endRecord, setArchived } from '@/store/setup/actions/endRecord';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { act } from '../shell/book';

interface RecordEndProps {
  readonly table: EndableTable;
  readonly record: { readonly id: string; readonly name: string; readonly archived?: boolean };
  /** Whether it can be kept without being offered any more. */
  readonly archivable?: boolean;
  readonly onDeleted: () => void;
}

/** What ends a record: it is archived, or, while nothing uses it, deleted after a question. */
export function RecordEnd({ table, record, archivable = false, onDeleted }: RecordEndProps) {
  const { id, name, archived = false } = record;
  const [asking, setAsking] = useState(false);
  const [refused, setRefused] = useState('');
  const archive = async () => {
    const result = await act(setArchived, { table: table as ArchivableTable, id, archived: !archived });
    toast(result.ok ? `${name} is ${archived ? 'offered again' : 'archived'}` : wordRefusals(result.refusals));
  };
  const remove = async () => {
    const result = await act(endRecord, { table, id });
    setAsking(false);
    if (!result.ok) return setRefused(wordRefusals(result.refusals));
    toast(`${name} is deleted`);
    onDeleted();
  };
  return (
    <div className="mt-3 border-rule border-t pt-2">
      {archivable && (
        <Button weight="quiet" onClick={() => void archive()}>
          {archived ? 'Offer it again' : 'Archive'}
        </Button>
      )}
      <Button weight="quiet" onClick={() => setAsking(true)}>
        Delete…
      </Button>
      {refused !== '' && (
        <p role="alert" className="text-brick">
          ▲ {refused}
        </p>
      )}
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Delete ${name}?`}
        description="Only what nothing uses can be deleted. It can't be brought back."
      >
        <div className="flex gap-2.5">
          <Button weight="grave" onClick={() => void remove()}>
            Delete
          </Button>
          <Button onClick={() => setAsking(false)}>Keep it</Button>
        </div>
      </Dialog>
    </div>
  );
}

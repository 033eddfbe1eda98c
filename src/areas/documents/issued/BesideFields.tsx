'use client';

import { useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { allOf } from '@/store/records';
import { annotateDocument } from '@/store/sales/actions/afterIssue';
import type { DocumentFile } from '@/store/sales/queries/family';
import { Attachments } from '../../shared/Attachments';
import { act, useBook } from '../../shell/book';
import { readTags } from '../tags';

type Beside = Pick<IssuedDocument, 'remarks' | 'tags' | 'styleId'>;

/** What stands beside the sealed document and may still change: tags, style, remarks, files. */
export function BesideFields({ file }: { readonly file: DocumentFile }) {
  const { id, remarks, tags, styleId } = file.document;
  const styles = useBook((db) => allOf(db, 'styles')) ?? [];
  const [typedRemarks, setRemarks] = useState(remarks);
  const [typedTags, setTags] = useState(tags.join(', '));
  const keep = (patch: Partial<Beside>) => {
    const beside = { remarks, tags, styleId, ...patch };
    if (JSON.stringify(beside) !== JSON.stringify({ remarks, tags, styleId }))
      void act(annotateDocument, { documentId: id, beside });
  };
  return (
    <details className="mt-5 border-rule border-t pt-2 text-sm" open={remarks !== '' || file.attachments.length > 0}>
      <summary className="cursor-pointer text-soft">Internal: tags, notes, files</summary>
      <div className="mt-1 grid grid-cols-3 gap-x-5 gap-y-1">
        <label className="text-soft">
          Tags
          <input
            className="cell -mx-1.5 border-rule border-b text-ink"
            value={typedTags}
            placeholder="such as hire, Mayo"
            onChange={(event) => setTags(event.target.value)}
            onBlur={() => keep({ tags: readTags(typedTags) })}
          />
        </label>
        <label className="text-soft">
          Document style
          <select
            className="cell -mx-1.5 border-rule border-b text-ink"
            value={styleId}
            onChange={(event) => keep({ styleId: event.target.value })}
          >
            <option value="">the customer’s, else the first</option>
            {styles.map((style) => (
              <option key={style.id} value={style.id}>
                {style.name}
              </option>
            ))}
          </select>
        </label>
        <Attachments mayGoOut ownerId={id} />
        <label className="col-span-3 text-soft">
          Internal notes, never printed
          <textarea
            rows={1}
            className="cell -mx-1.5 block border-rule border-b text-ink"
            value={typedRemarks}
            onChange={(event) => setRemarks(event.target.value)}
            onBlur={() => keep({ remarks: typedRemarks })}
          />
        </label>
      </div>
    </details>
  );
}

'use client';

import type { ComponentType } from 'react';
import { Empty, Sheet } from '@/ui/Page';

/** A list of records with a page for each, or a page of what there is one of. */
export interface RecordSection {
  /** Its part of the address. */
  readonly path: string;
  readonly name: string;
  /** Its own page: a list, or what there is one of. */
  readonly Page: ComponentType;
  /** One record of its list; `id` is `new` for one that is yet to be made. */
  readonly Record?: ComponentType<{ readonly id: string }>;
}

interface RecordSheetProps {
  /** Undefined where the address names none. */
  readonly section: RecordSection | undefined;
  /** Of one record; empty for the section's own page. */
  readonly id: string;
  /** Where the sections belong: `Setup`. */
  readonly area: string;
}

/** One section, or one record of it, on the sheet. */
export function RecordSheet({ section, id, area }: RecordSheetProps) {
  const { Page, Record } = section ?? {};
  return (
    <Sheet label={section?.name ?? area}>
      {Page === undefined ? (
        <Empty>There is no such part of {area}.</Empty>
      ) : (
        <div key={id}>{Record !== undefined && id !== '' ? <Record id={id} /> : <Page />}</div>
      )}
    </Sheet>
  );
}

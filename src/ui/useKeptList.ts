'use client';

import { useState } from 'react';
import * as yup from 'yup';
import { keepText, keptText } from './kept';

/** How a person has a list: by what it is sorted, and which columns are out of sight. */
export interface KeptList {
  readonly sorting: readonly { readonly id: string; readonly desc: boolean }[];
  readonly hidden: readonly string[];
}

const PLAIN: KeptList = { sorting: [], hidden: [] };

const SCHEMA = yup.object({
  sorting: yup
    .array()
    .of(yup.object({ id: yup.string().defined(), desc: yup.boolean().defined() }))
    .defined(),
  hidden: yup.array().of(yup.string().defined()).defined(),
});

/** What this browser keeps of a list; plain where it keeps nothing, or nothing that can be read. */
export function readKeptList(text: string | null): KeptList {
  try {
    return SCHEMA.validateSync(JSON.parse(text ?? ''), { strict: true }) as KeptList;
  } catch {
    return PLAIN;
  }
}

/** A list as it was left in this browser, under its name. */
export function useKeptList(name: string) {
  const key = `able-ledger-list-${name}`;
  const [list, setList] = useState(() => (typeof window === 'undefined' ? PLAIN : readKeptList(keptText(key))));
  const keep = (patch: Partial<KeptList>) => {
    const next = { ...list, ...patch };
    setList(next);
    keepText(key, JSON.stringify(next));
  };
  return { list, keep };
}

'use client';

import type { Draft } from '@/core/documents/draft';
import { datesOf } from '@/core/documents/lineTax';
import type { Setting } from '@/core/documents/setting';
import type { Customer } from '@/core/parties/customer';
import { loadSetting } from '@/store/load';
import { useBook } from '../../shell/book';

/** A setting and what it was read for: another customer or day needs another one. */
export interface ReadSetting {
  readonly key: string;
  readonly setting: Setting;
}

/** What the setting of a draft rests on. */
export function settingKey(draft: Draft): string {
  const { country = '', region = '', postalCode = '', city = '' } = draft.delivery ?? {};
  return [draft.customerId, draft.currency, datesOf(draft).taxPoint, country, region, postalCode, city].join('|');
}

/** What a draft is written against, read again when the set-up, its customer or its tax point changes. */
export function useSetting(draft: Draft, customer: Customer | null): ReadSetting | undefined {
  const key = settingKey(draft);
  return useBook(
    async (db) => ({ key, setting: await loadSetting(db, draft, customer) }),
    [],
    // The lines' own taxes are named by places that the address finds anyway, but for those chosen by hand.
    [
      key,
      customer,
      draft.lines
        .map((line) => line.taxCode)
        .filter((code) => code.startsWith('@'))
        .join(' '),
    ],
  );
}

'use client';

import type { Changes } from '@/core/book/changes';
import type { Result } from '@/core/kernel/result';
import { type Action, preview } from '@/store/perform';
import { moment, useBook } from './book';

const asText = (value: unknown) =>
  JSON.stringify(value, (_, part: unknown) => (typeof part === 'bigint' ? `${part}n` : part));

/** What an action would write by what is typed now, or why it would not; undefined until it is known, or without input. */
export function usePreview<Input, Value>(
  action: Action<Input, Value>,
  input: Input | null,
): Result<Changes> | undefined {
  return useBook(
    async (db) => (input === null ? undefined : preview(db, action, input, moment())),
    [action.name],
    [asText(input)],
  );
}

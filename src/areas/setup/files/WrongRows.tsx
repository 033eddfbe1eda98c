import type { Refusal } from '@/core/kernel/result';
import { wordRefusal } from '@/core/wording/refusals';
import { Mark } from '@/ui/Mark';

/** What is wrong with a file, row by row; nothing of it is taken meanwhile. */
export function WrongRows({ refusals }: { readonly refusals: readonly Refusal[] }) {
  if (refusals.length === 0) return null;
  return (
    <div role="alert">
      <p className="mt-1">Nothing is imported while a row is wrong:</p>
      <ul>
        {refusals.map((refusal) => (
          <li key={`${refusal.path}-${wordRefusal(refusal)}`} className="text-sm">
            <Mark kind="wrong" /> {refusal.path === '' ? '' : `${refusal.path}: `}
            {wordRefusal(refusal)}
          </li>
        ))}
      </ul>
    </div>
  );
}

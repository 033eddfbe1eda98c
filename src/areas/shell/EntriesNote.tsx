'use client';

import type { ReactNode } from 'react';
import { type Minor, minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { plainName } from '@/core/tax/taxCode';
import { Note, NoteRow } from '@/ui/Page';
import { useOpenBook } from './BookContext';

interface PostedSide {
  readonly account: string;
  readonly amount: Minor;
  /** Code of a tax line, told beside the account. */
  readonly taxCode?: string;
}

interface EntriesNoteProps {
  readonly sides: readonly PostedSide[];
  /** Opens the workings of an amount; amounts are plain text where it is missing. */
  readonly onOpen?: (side: { readonly account: string; readonly taxCode: string }) => void;
  readonly children?: ReactNode;
}

function opened(side: PostedSide, figure: string, onOpen: EntriesNoteProps['onOpen']): ReactNode {
  if (onOpen === undefined) return figure;
  return (
    <button
      type="button"
      title="Show workings"
      className="cursor-pointer hover:underline"
      onClick={() => onOpen({ account: side.account, taxCode: side.taxCode ?? '' })}
    >
      {figure}
    </button>
  );
}

/** What is posted: debits first, as Dr and Cr. */
export function EntriesNote({ sides, onOpen, children }: EntriesNoteProps) {
  const { accounts, codes, currency } = useOpenBook();
  const nameOf = ({ account, taxCode }: PostedSide) => {
    const code = codes.find((c) => c.id === taxCode);
    const name = accounts.find((a) => a.code === account)?.name ?? account;
    return code === undefined ? name : `${name}, ${plainName(code)}`;
  };
  const shown = sides.filter((side) => side.amount !== 0n);
  return (
    <Note title="Entries">
      {shown.length === 0 && <p className="text-soft text-sm">Nothing to post yet.</p>}
      {shown.map((side, i) => (
        <NoteRow
          key={`${side.account}-${i}`}
          label={`${side.amount > 0n ? 'Dr' : 'Cr'} ${nameOf(side)}`}
          figure={opened(side, showMoney(minor(side.amount < 0n ? -side.amount : side.amount), currency), onOpen)}
        />
      ))}
      {children}
    </Note>
  );
}

'use client';

import { signed } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { writeDay } from '@/core/kernel/date';
import { showMoney } from '@/core/kernel/show';
import type { Receipt } from '@/core/settlement/receipt';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Note } from '@/ui/Page';
import { documentMark, KIND_WORDS } from '../../shared/documentMark';
import { today } from '../../shell/book';
import { routes } from '../../shell/routes';

interface FamilyNoteProps {
  readonly current: string;
  readonly family: readonly IssuedDocument[];
  readonly drafts: readonly Draft[];
  readonly receipts: readonly Receipt[];
}

const LINK = 'underline decoration-rule underline-offset-2';

/** Quote, its versions and stages, invoices, credit notes and receipts that belong together. */
export function FamilyNote({ current, family, drafts, receipts }: FamilyNoteProps) {
  if (family.length + drafts.length + receipts.length < 2) return null;
  return (
    <Note title="Related documents">
      <ol>
        {family.map((document) => {
          const { content, figures } = document;
          const mark = documentMark(document, today());
          const name = `${document.number}${(content.version ?? 1) > 1 ? ` v${content.version}` : ''}`;
          const words = [KIND_WORDS[document.kind], content.stage?.words, mark.word].filter(Boolean).join(', ');
          return (
            <li key={document.id} className="flex gap-1 text-sm">
              <Mark kind={mark.kind} />
              <span className="flex-1">
                {document.id === current ? (
                  <strong className="font-semibold">{name}</strong>
                ) : (
                  <Link href={routes.document(document.id)} className={LINK}>
                    {name}
                  </Link>
                )}{' '}
                <span className="text-soft">{words}</span>
              </span>
              <span className="tabular-nums">
                {showMoney(signed(content, figures.totals.payable), content.currency)}
              </span>
            </li>
          );
        })}
        {drafts.map((draft) => (
          <li key={draft.id} className="flex gap-1 text-sm">
            <Mark kind="draft" />
            <Link href={routes.draft(draft.id)} className={LINK}>
              {draft.kind === 'quote' ? 'Draft quote' : 'Draft'}
            </Link>
            <span className="text-soft">{draft.origin?.words}</span>
          </li>
        ))}
        {receipts.map((receipt) => (
          <li key={receipt.id} className="flex gap-1 text-sm">
            <Mark kind="paid" />
            <span className="flex-1">
              <Link href={routes.receipt(receipt.id)} className={LINK}>
                {receipt.number}
              </Link>{' '}
              <span className="text-soft">receipt, {writeDay(receipt.date)}</span>
            </span>
            <span className="tabular-nums">{showMoney(receipt.amount, receipt.currency)}</span>
          </li>
        ))}
      </ol>
    </Note>
  );
}

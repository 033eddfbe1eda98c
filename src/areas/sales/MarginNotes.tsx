'use client';

import type { FrozenTax } from '@/core/documents/content';
import type { Finding } from '@/core/documents/finding';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { showMoney, showNumber } from '@/core/kernel/show';
import type { Reason } from '@/core/tax/determine';
import type { WorkingStep } from '@/core/tax/workings';
import { Mark } from '@/ui/Mark';
import { Note, NoteRow } from '@/ui/Page';

/** Steps of a computation, sums under their rule. */
export function Steps({ steps, currency }: { readonly steps: readonly WorkingStep[]; readonly currency: Currency }) {
  return (
    <div>
      {steps.map((step, i) => (
        <div key={`${i}-${step.words}`} className={step.tone === 'aside' ? 'text-soft' : ''}>
          <NoteRow
            label={step.words}
            figure={step.amount === null ? '' : showMoney(step.amount, currency)}
            strong={step.tone === 'sum'}
          />
        </div>
      ))}
    </div>
  );
}

interface BecauseProps {
  readonly tax: FrozenTax;
  readonly trail: readonly Reason[];
  readonly byHand: boolean;
}

/** Why a line carries its code: each condition that held or failed, and the rate with its day. */
export function Because({ tax, trail, byHand }: BecauseProps) {
  return (
    <p className="my-2 text-sm">
      <strong className="font-semibold">{tax.name}</strong> {byHand && <span>was chosen by hand; by itself: </span>}
      {!byHand && 'because '}
      {trail.map((reason) => reason.text).join(' · ')}
      {' · '}
      {showNumber(tax.percent)} % since {writeDate(tax.since)}.
    </p>
  );
}

const MARKS = { must: 'wrong', should: 'warning', note: 'note' } as const;
const WORDS = { must: 'Must', should: 'Should', note: 'Note' } as const;

interface ChecksNoteProps {
  readonly findings: readonly Finding[];
  /** How many rules hold beside those that found something. */
  readonly holding: number;
  /** A way to the field of a finding; null where there is none. */
  readonly wayTo: (finding: Finding) => (() => void) | null;
}

/** Findings on the document, gravest first, each with its rule and a way to the field. */
export function ChecksNote({ findings, holding, wayTo }: ChecksNoteProps) {
  return (
    <Note title="Checks">
      <ul aria-live="polite">
        {findings.map((finding) => {
          const go = wayTo(finding);
          return (
            <li key={`${finding.rule}-${finding.field}-${finding.message}`} className="mb-2 flex gap-1.5 text-sm">
              <Mark kind={MARKS[finding.severity]} label={WORDS[finding.severity]} />
              <span>
                {finding.message}{' '}
                {go !== null && (
                  <button type="button" className="cursor-pointer underline underline-offset-2" onClick={go}>
                    Go there
                  </button>
                )}{' '}
                {finding.rule !== '' && (
                  <span className="whitespace-nowrap text-soft text-xs" title={finding.source}>
                    {finding.rule}
                  </span>
                )}
              </span>
            </li>
          );
        })}
        {holding > 0 && (
          <li className="flex gap-1.5 text-sm">
            <Mark kind="good" label="Good" />
            <span>
              {holding} {findings.length > 0 ? 'other ' : ''}checks hold: EU VAT invoice, EN 16931, Peppol profile.
            </span>
          </li>
        )}
      </ul>
    </Note>
  );
}

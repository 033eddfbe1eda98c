'use client';

import type { FrozenTax } from '@/core/documents/content';
import type { Finding } from '@/core/documents/finding';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { showMoney, showNumber } from '@/core/kernel/show';
import type { Reason } from '@/core/tax/determine';
import type { ResolvedComponent } from '@/core/tax/resolve';
import type { WorkingStep } from '@/core/tax/workings';
import { Mark } from '@/ui/Mark';
import { Note, NoteRow } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';

/** What each tax of a document is called in its workings: by its jurisdiction. */
export function componentNames(taxes: readonly FrozenTax[]): (id: string) => string {
  const names = new Map(
    taxes.flatMap((tax) => (tax.components ?? []).map((c) => [c.taxId, c.jurisdictionName] as const)),
  );
  return (id) => names.get(id) ?? id;
}

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

/** The reasons from the deciding row on; everything that was looked at unfolds below. */
function decisive(trail: readonly Reason[]): string {
  const from = trail.findIndex((reason) => reason.held);
  return trail
    .slice(Math.max(0, from))
    .map((reason) => reason.text)
    .join(' · ');
}

/** The taxes of a code one by one, with rate, day and source; nothing for a single plain one. */
function Components({ components }: { readonly components: readonly ResolvedComponent[] }) {
  if (components.length < 2 && components.every((c) => c.relief === null)) return null;
  return (
    <ul className="my-2 text-sm">
      {components.map((c) => (
        <li key={c.taxId} title={c.source}>
          {c.jurisdictionName} {c.percent === '' ? c.perUnit : `${showNumber(c.percent)} %`} since {writeDate(c.since)}
          {c.relief !== null && (
            <span className="text-soft">
              {c.insteadOf === '' ? '' : `, not ${showNumber(c.insteadOf)} %`}: {c.relief.reason}
              {c.relief.certificate === '' ? '' : `, certificate ${c.relief.certificate}`}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Why a line carries its code: each condition that held or failed, and the rate with its day. */
export function Because({ tax, trail, byHand }: BecauseProps) {
  return (
    <>
      <p className="my-2 text-sm">
        <strong className="font-semibold">{tax.name}</strong>{' '}
        {byHand && <span>was chosen manually{trail.length > 0 && '; by itself: '}</span>}
        {!byHand && 'because '}
        {decisive(trail)}
        {tax.components?.length !== 0 && ` · ${showNumber(tax.percent)} % since ${writeDate(tax.since)}`}.
      </p>
      <Components components={tax.components ?? []} />
      {trail.length > 1 && (
        <details className="my-2 text-sm">
          <summary className="cursor-pointer text-soft">All conditions checked</summary>
          <TrailList trail={trail} />
        </details>
      )}
    </>
  );
}

/** Conditions in the order they were looked at, each with whether it held. */
export function TrailList({ trail }: { readonly trail: readonly Reason[] }) {
  return (
    <ol className="mt-1">
      {trail.map((reason, i) => (
        <li key={`${i}-${reason.text}`} className="flex gap-1.5">
          <Mark kind={reason.held ? 'good' : 'open'} label={reason.held ? 'held' : 'not met'} />
          <span>{reason.text}</span>
        </li>
      ))}
    </ol>
  );
}

const MARKS = { must: 'wrong', should: 'warning', note: 'note' } as const;
const WORDS = { must: 'Must', should: 'Should', note: 'Note' } as const;

interface ChecksNoteProps {
  readonly findings: readonly Finding[];
  /** How many rules hold beside those that found something. */
  readonly holding: number;
  /** What the rules are of. */
  readonly by: string;
  /** A way to the field of a finding; null where there is none. */
  readonly wayTo: (finding: Finding) => (() => void) | null;
}

/** Findings on the document, gravest first, each with its rule and a way to the field. */
export function ChecksNote({ findings, holding, by, wayTo }: ChecksNoteProps) {
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
                  <TextButton onClick={go}>{finding.field === 'held' ? 'Use the new rate' : 'Go there'}</TextButton>
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
              {holding} {findings.length > 0 ? 'other ' : ''}checks passed: {by}.
            </span>
          </li>
        )}
      </ul>
    </Note>
  );
}

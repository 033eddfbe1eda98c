import type { Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import type { CustomerRow } from '@/core/book/rows';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { traitsOfDraft } from '@/core/documents/kinds';
import { newRunRow, type Run, type RunRow, runSchema } from '@/core/documents/run';
import { registrationFor, type Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import type { Customer } from '@/core/parties/customer';
import { NOTHING_STORED, saveDraft } from './draft';
import { draftFindings } from './draftFindings';
import { findingsOn } from './findings';
import { type IssueMaterial, issue, numberOf } from './issue';

/** What is done with the customers of a run. */
export type RunDoes = 'drafts' | 'issue-sound' | 'issue-all';

/** Keeps the name and the date of a run. */
export function saveRun(value: Run, before: Run | undefined): Decision<Run> {
  const checked = validated<Run>(runSchema, value);
  if (!checked.ok) return checked;
  return accept({
    value,
    changes: {
      put: { runs: [value] },
      audit: { subject: value.name, about: [value.id], ...(before && { before }), after: value },
    },
  });
}

/** A draft becomes what a run says for many customers. */
export function beginRun(
  draft: Draft,
  run: Run,
  customer: Customer | undefined,
  setting: Setting,
  moment: Moment,
): Decision<Run> {
  const pattern: Draft = { ...draft, runId: run.id };
  const kept = saveDraft(pattern, { draft, issued: false }, customer, setting, moment);
  if (!kept.ok) return kept;
  const rows = customer === undefined ? [] : [newRunRow(run.id, customer)];
  return accept({
    value: run,
    changes: {
      put: { ...kept.value.changes.put, runs: [run], runRows: rows },
      audit: { subject: run.name, about: [run.id], after: run },
    },
  });
}

export interface AskedMaterial {
  readonly draft: Draft;
  readonly customer: CustomerRow | null;
  readonly setting: Setting;
  readonly issuing: Pick<IssueMaterial, 'series'>;
  /** Refusals in words, for whoever looks at what waits. */
  readonly say: (refusals: readonly Refusal[]) => string;
}

export interface RunDocumentMaterial extends AskedMaterial {
  readonly row: RunRow;
  readonly customer: CustomerRow;
  readonly issuing: Pick<IssueMaterial, 'series' | 'chart'>;
  /** It is dated so by its rhythm. */
  readonly ownDay: boolean;
}

/** Rules that ask about documents which are dated their own day by intention, however long ago that is. */
const OWN_DAY: ReadonlySet<string> = new Set(['DATE-ISSUE']);

/**
 * What a person would be asked about the draft, or what keeps it from being issued; empty where nothing does.
 * @param ownDay it is dated so by its rhythm: that this is not today is not asked about, but a filed period is.
 */
export function askedAbout(
  { draft, customer, setting, issuing, say }: AskedMaterial,
  today: Moment['today'],
  ownDay: boolean,
): string {
  const frozen = freezeDraft(draft, numberOf(draft, issuing.series), customer, setting);
  if (!frozen.ok) return say(frozen.refusals);
  const { registrationId, taxPoint } = frozen.value;
  const { filedUntil = '' } = registrationFor(setting, registrationId) ?? {};
  if (ownDay && traitsOfDraft(draft.kind).posts && taxPoint <= filedUntil)
    return say([{ code: 'period-filed', path: '', until: filedUntil as IsoDate }]);
  const [first] = [
    ...findingsOn(frozen.value),
    ...draftFindings(draft, frozen.value, customer, setting, { today, orderUsed: '' }),
  ].filter(({ severity, rule }) => severity !== 'note' && !(ownDay && OWN_DAY.has(rule)));
  return first?.message ?? '';
}

/**
 * Does for one customer what the run does: keeps a draft, or issues at once; what can't be issued, or should be looked at, is
 * kept as a draft that waits. One that is done already is left as it is.
 */
export function runDocument(material: RunDocumentMaterial, does: RunDoes, moment: Moment): Decision<RunRow> {
  const { row, draft, customer, setting, issuing, say, ownDay } = material;
  if (row.state !== 'planned') return accept({ value: row, changes: { audit: null } });
  const asDraft = (state: 'draft' | 'waits', why: string): Decision<RunRow> => {
    const kept = saveDraft(draft, NOTHING_STORED, customer, setting, moment);
    if (!kept.ok) return kept;
    const value: RunRow = { ...row, documentId: draft.id, state, why };
    return accept({
      value,
      changes: joinChanges(
        { changes: kept.value.changes, action: 'begin draft' },
        { changes: { put: { runRows: [value] }, audit: null } },
      ),
    });
  };
  if (does === 'drafts') return asDraft('draft', '');
  const asked = does === 'issue-sound' ? askedAbout(material, moment.today, ownDay) : '';
  if (asked !== '') return asDraft('waits', asked);
  const issued = issue({ draft, customer, setting, ...issuing, family: [], advances: [] }, { overrun: false }, moment);
  if (!issued.ok) return asDraft('waits', say(issued.refusals));
  const value: RunRow = { ...row, documentId: draft.id, state: 'issued', why: '' };
  return accept({
    value,
    changes: joinChanges(
      { changes: issued.value.changes, action: 'issue invoice' },
      { changes: { put: { runRows: [value] }, audit: null } },
    ),
  });
}

/** Takes the drafts of a run back: its customers are planned again. What was issued stays issued. */
export function undoDrafts(run: Run, rows: readonly RunRow[], there: ReadonlySet<string>): Decision<number> {
  const open = rows.filter(
    ({ state, documentId }) => (state === 'draft' || state === 'waits') && there.has(documentId),
  );
  if (open.length === 0) return refuse({ code: 'not-found', path: 'id' });
  return accept({
    value: open.length,
    changes: {
      put: { runRows: open.map((row): RunRow => ({ ...row, documentId: '', state: 'planned', why: '' })) },
      remove: { drafts: open.map(({ documentId }) => documentId) },
      audit: { subject: run.name, about: [run.id], after: { undone: open.length } },
    },
  });
}

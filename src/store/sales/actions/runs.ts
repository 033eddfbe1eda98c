import { beginRun, type RunDoes, runDocument, saveRun, undoDrafts } from '@/core/decisions/sales/run';
import {
  type CustomerGroup,
  customerGroupSchema,
  newRunRow,
  type Run,
  type RunRow,
  runRowId,
} from '@/core/documents/run';
import { isIsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { wordRefusals } from '@/core/wording/refusals';
import { loadSetting } from '../../load';
import type { Action } from '../../perform';
import { loadForCustomer, rowsOfRun } from '../queries/runs';

/** Keeps the name and the date of a run. */
export const keepRun: Action<Run, Run> = {
  name: 'keep run',
  async decide(db, value) {
    return saveRun(value, await db.runs.get(value.id));
  },
};

/** Makes a run of a draft that was kept; its customer is the first in it. */
export const runOfDraft: Action<{ readonly draftId: string; readonly name: string }, Run> = {
  name: 'begin run',
  async decide(db, { draftId, name }, moment) {
    const draft = await db.drafts.get(draftId);
    if (draft === undefined) return refuse({ code: 'not-found', path: 'draftId' });
    const customer = await db.customers.get(draft.customerId);
    const setting = await loadSetting(db, draft, customer ?? null);
    const date = isIsoDate(draft.issueDate) ? draft.issueDate : moment.today;
    const run: Run = { id: draftId, name, date, at: moment.now, operator: moment.operator };
    return beginRun(draft, run, customer, setting, moment);
  },
};

/** Takes customers into a run; those that are in it already stay as they are. */
export const addToRun: Action<{ readonly runId: string; readonly customerIds: readonly string[] }, number> = {
  name: 'add customers to run',
  async decide(db, { runId, customerIds }) {
    const [run, customers, known] = await Promise.all([
      db.runs.get(runId),
      db.customers.bulkGet([...new Set(customerIds)]),
      db.runRows.bulkGet(customerIds.map((id) => runRowId(runId, id))),
    ]);
    if (run === undefined) return refuse({ code: 'not-found', path: 'runId' });
    const there = new Set(known.map((row) => row?.customerId));
    const rows = customers.flatMap((one) =>
      one === undefined || there.has(one.id) || one.mergedInto !== '' ? [] : [newRunRow(runId, one)],
    );
    return accept({
      value: rows.length,
      changes: {
        put: { runRows: rows },
        audit: rows.length === 0 ? null : { subject: run.name, about: [runId], after: { added: rows.length } },
      },
    });
  },
};

/** Changes what stands in a run for customers that nothing was made for yet. */
export const changeRunRows: Action<{ readonly rows: readonly RunRow[] }, number> = {
  name: 'change run',
  async decide(db, { rows }) {
    const before = await db.runRows.bulkGet(rows.map(({ id }) => id));
    const planned = rows.filter((_, i) => before[i]?.state === 'planned');
    return accept({ value: planned.length, changes: { put: { runRows: planned }, audit: null } });
  },
};

/** Takes customers out of a run that nothing was made for yet. */
export const dropFromRun: Action<{ readonly ids: readonly string[] }, number> = {
  name: 'take customers out of run',
  async decide(db, { ids }) {
    const rows = (await db.runRows.bulkGet([...ids])).flatMap((row) => (row?.state === 'planned' ? [row] : []));
    return accept({ value: rows.length, changes: { remove: { runRows: rows.map(({ id }) => id) }, audit: null } });
  },
};

/** Does for one customer what a run does; what is done already is left as it is. */
export const makeRunDocument: Action<{ readonly rowId: string; readonly does: RunDoes }, RunRow> = {
  name: 'run',
  async decide(db, { rowId, does }, moment) {
    const row = await db.runRows.get(rowId);
    if (row === undefined) return refuse({ code: 'not-found', path: 'rowId' });
    const [found, series, chart] = await Promise.all([
      loadForCustomer(db, row, moment.newId()),
      db.series.toArray(),
      db.accounts.toArray(),
    ]);
    if (found === null) return refuse({ code: 'not-found', path: 'runId' });
    return runDocument({ row, ...found, issuing: { series, chart }, say: wordRefusals }, does, moment);
  },
};

/** Takes the drafts of a run back. */
export const undoRunDrafts: Action<{ readonly runId: string }, number> = {
  name: 'undo drafts of run',
  async decide(db, { runId }) {
    const run = await db.runs.get(runId);
    if (run === undefined) return refuse({ code: 'not-found', path: 'id' });
    const rows = await rowsOfRun(db, runId);
    const drafts = await db.drafts.bulkGet(rows.map(({ documentId }) => documentId || '-'));
    return undoDrafts(run, rows, new Set(drafts.flatMap((draft) => (draft === undefined ? [] : [draft.id]))));
  },
};

/** Keeps a group of customers. */
export const keepGroup: Action<CustomerGroup, CustomerGroup> = {
  name: 'keep group of customers',
  async decide(db, group) {
    const checked = validated<CustomerGroup>(customerGroupSchema, group);
    if (!checked.ok) return checked;
    const before = await db.customerGroups.get(group.id);
    return accept({
      value: group,
      changes: {
        put: { customerGroups: [group] },
        audit: { subject: group.name, about: [group.id], ...(before && { before }), after: group },
      },
    });
  },
};

export const dropGroup: Action<{ readonly id: string }, null> = {
  name: 'delete group of customers',
  async decide(db, { id }) {
    const before = await db.customerGroups.get(id);
    if (before === undefined) return refuse({ code: 'not-found', path: 'id' });
    return accept({
      value: null,
      changes: { remove: { customerGroups: [id] }, audit: { subject: before.name, about: [id], before } },
    });
  },
};

import { addOpening, addOpenings, type OpeningInput } from '@/core/decisions/sales/opening';
import { recordTakings, type TakingsInput } from '@/core/decisions/sales/takings';
import { blankDraft } from '@/core/documents/draft';
import type { DocumentLink } from '@/core/documents/issued';
import { seriesFor } from '@/core/documents/series';
import { registrationFor } from '@/core/documents/setting';
import { readOpenings } from '@/core/files/openingFile';
import { refuse } from '@/core/kernel/result';
import { loadBook, loadSetting, present } from '../../load';
import type { Action } from '../../perform';
import { openingMaterial } from '../../setup/queries/importMaterial';

/** Records a day's till total by tax code. */
export const enterTakings: Action<TakingsInput, DocumentLink> = {
  name: 'enter takings',
  async decide(db, input, moment) {
    const [series, chart] = await Promise.all([db.series.toArray(), db.accounts.toArray()]);
    const setting = await loadSetting(db, blankDraft('', 'cash-sale', input.registrationId, input.date), null);
    const own = seriesFor(series, 'takings', registrationFor(setting, input.registrationId)?.id ?? '');
    return recordTakings(input, { setting, series: present(own, 'the takings series'), chart }, moment);
  },
};

/** Takes in an open item of the books kept before this one. */
export const enterOpening: Action<OpeningInput, DocumentLink> = {
  name: 'enter opening item',
  async decide(db, input, moment) {
    const [{ business }, customer, registrations, series, chart] = await Promise.all([
      loadBook(db),
      db.customers.get(input.customerId),
      db.registrations.toArray(),
      db.series.toArray(),
      db.accounts.toArray(),
    ]);
    const [registration] = registrations;
    if (registration === undefined) return refuse({ code: 'not-found', path: '' });
    const own = present(seriesFor(series, 'opening', registration.id), 'the opening series');
    return addOpening(input, { business, customer, registration, series: own, chart }, moment);
  },
};

/** Takes in a file of opening invoices, whole or not at all; refusals say their rows. */
export const importOpenings: Action<{ readonly text: string }, readonly DocumentLink[]> = {
  name: 'import opening invoices',
  async decide(db, { text }, moment) {
    const { customers, calls, known } = await openingMaterial(db);
    const read = readOpenings(text, calls, moment.today);
    if (!read.ok) return read;
    const { rows, wrong } = read.value;
    if (wrong.length > 0) return refuse(...wrong);
    const [{ business }, [registration], series, chart] = await Promise.all([
      loadBook(db),
      db.registrations.toArray(),
      db.series.toArray(),
      db.accounts.toArray(),
    ]);
    if (registration === undefined) return refuse({ code: 'not-found', path: '' });
    const own = present(seriesFor(series, 'opening', registration.id), 'the opening series');
    const inputs = rows.map(({ input }) => input);
    const added = addOpenings(inputs, { business, registration, series: own, chart, customers, known }, moment);
    if (added.ok) return added;
    const placed = added.refusals.map(({ path, ...refusal }) => {
      const [at = '', ...field] = path.split('.');
      return { ...refusal, path: `row ${rows[Number(at)]?.row}, ${field.join('.')}` };
    });
    return refuse(...placed);
  },
};

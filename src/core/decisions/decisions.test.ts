import { accepted, day, draftOf, EUR, lineOf, momentOn, refusalCodes, settingOf } from 'tests/book';
import { onePart } from '@/core/decisions/payments/onePart';
import { positionOf } from '@/core/decisions/payments/position';
import { FIRST_SERIES, type Series } from '@/core/documents/series';
import { PLAIN_STYLE } from '@/core/documents/style';
import { minor } from '@/core/kernel/money';
import { FIRST_CHART } from '@/core/ledger/account';
import type { Proof } from '@/core/returns/proof';
import type { TaxBalance } from '@/core/returns/return';
import { DEMO_CUSTOMERS, demoRegistration } from '@/demo/setup';
import { present } from '@/store/load';
import { receive } from './payments/recordReceipt';
import { credit } from './sales/credit';
import { checksOf, findingsOn } from './sales/findings';
import { type IssueMaterial, issue } from './sales/issue';
import { sendQuote } from './sales/quote';
import { postingDate } from './sales/writeDocument';
import { file } from './tax/fileReturn';

/* The pure halves of actions: what they answer and what they want written, with no database at all. */

const registration = demoRegistration(day('2026-01-01'));
const series = (id: Series['id']) => FIRST_SERIES.find((s) => s.id === id) as Series;
const material = (over: Partial<IssueMaterial> = {}): IssueMaterial => ({
  draft: draftOf(),
  customer: { ...present(DEMO_CUSTOMERS[0], 'a customer'), keys: [] },
  setting: settingOf(),
  advances: [],
  series: FIRST_SERIES,
  chart: FIRST_CHART,
  family: [],
  ...over,
});
const moment = momentOn('2026-01-15');
const ASKED = { overrun: false };

function issuedBy(over: Partial<IssueMaterial> = {}) {
  const { changes } = accepted(issue(material(over), ASKED, moment));
  const document = changes.add?.documents?.[0];
  if (document === undefined) throw new Error('no document');
  return { changes, document };
}

describe('issuing', () => {
  test('decides the same for the same material and moment', () => {
    const fixed = { ...moment, newId: () => 'id' };
    const same = material();
    expect(issue(same, ASKED, fixed)).toEqual(issue(same, ASKED, fixed));
  });
  test('adds truth, puts the moved series, and removes the draft', () => {
    const { changes, document } = issuedBy();
    expect(Object.keys(changes.add ?? {}).sort()).toEqual(['documents', 'journal', 'journalLines', 'taxEntries']);
    expect(changes.put?.series?.[0]).toMatchObject({
      id: 'invoice',
      next: { '2026': 2 },
      lastSeal: document.seal.hash,
      lastDate: '2026-01-15',
    });
    expect(changes.remove?.drafts).toHaveLength(1);
  });
  test('does not look at what it was not given: no clock, no hidden number', () => {
    const later = issuedBy({
      series: [{ ...series('invoice'), next: { '2026': 142 }, count: 141, lastSeal: 'abc' }],
    }).document;
    expect([later.number, later.position, later.seal.previous]).toEqual(['INV-2026-0142', 142, 'abc']);
  });
  test('an invoice of nothing is paid as it is issued', () => {
    expect(issuedBy({ draft: draftOf({ lines: [lineOf({ price: '0' })] }) }).document).toMatchObject({
      open: 0n,
      isOpen: 0,
    });
  });
});

describe('the days of numbers', () => {
  const lastOn = (date: string) => FIRST_SERIES.map((s) => ({ ...s, count: 1, lastDate: day(date) }));
  const backwards = { code: 'number-order', path: 'issueDate', last: '2026-01-16', day: '2026-01-15' };

  test('never go back: an invoice, a credit note and a quote before the last number are refused', () => {
    expect(issue(material({ series: lastOn('2026-01-16') }), ASKED, moment)).toEqual({
      ok: false,
      refusals: [backwards],
    });
    const quote = { draft: draftOf({ kind: 'quote' }), customer: material().customer, setting: settingOf() };
    expect(sendQuote({ ...quote, series: lastOn('2026-01-16'), before: undefined }, moment)).toEqual({
      ok: false,
      refusals: [backwards],
    });
    const { document } = issuedBy();
    const of = {
      registration,
      series: present(lastOn('2026-01-16')[2], 'series'),
      chart: FIRST_CHART,
      style: PLAIN_STYLE,
    };
    const back = { date: day('2026-01-15'), reason: 'Returned' };
    expect(
      credit(
        { ...of, invoice: document, family: [document], transmissions: [], allocations: [] },
        { kind: 'rest' },
        back,
        moment,
      ),
    ).toEqual({
      ok: false,
      refusals: [{ ...backwards, path: 'date' }],
    });
  });
  test('may be the same, or later', () =>
    expect(issuedBy({ series: lastOn('2026-01-15') }).document.issueDate).toBe('2026-01-15'));
});

describe('the day an entry is posted', () => {
  test.each([
    ['', '2026-01-15', '2026-01-15'],
    ['2026-02-28', '2026-02-28', '2026-03-01'],
    ['2026-02-28', '2026-03-01', '2026-03-01'],
    ['2026-02-28', '2026-05-05', '2026-05-05'],
  ])('filed until %p, dated %s: %s', (filedUntil, date, posted) => {
    expect(postingDate({ ...registration, filedUntil: filedUntil as never }, day(date))).toBe(posted);
  });
});

describe('findings', () => {
  test('come gravest first', () => {
    const { content } = issuedBy({ draft: draftOf({ taxPoint: '2026-01-10', buyerReference: '' }) }).document;
    const broken = { ...content, seller: { ...content.seller, taxNumber: '', iban: '' } };
    const found = findingsOn(broken).map((f) => f.severity);
    expect(found).toEqual(
      [...found].sort((a, b) => ['must', 'should', 'note'].indexOf(a) - ['must', 'should', 'note'].indexOf(b)),
    );
    expect(new Set(found)).toEqual(new Set(['must', 'should', 'note']));
  });
  const { content } = issuedBy({ draft: draftOf({ lines: [lineOf(), lineOf({ id: 'b' })] }) }).document;
  const taking = { ...content, buyer: { ...content.buyer, endpoint: { scheme: '9935', id: 'IE8100234D' } } };
  const takingNone = { ...content, buyer: { ...content.buyer, endpoint: { scheme: '', id: '' } } };
  test('of e-invoices stand at the field and block for a customer who takes them', () => {
    const nameless = {
      ...taking,
      lines: taking.lines.map((line, i) => (i === 1 ? { ...line, unit: 'PIECES' } : line)),
    };
    expect(findingsOn(nameless).find(({ rule }) => rule === 'BR-CL-23')).toMatchObject({
      severity: 'must',
      field: 'lines[1].unit',
      source: 'EN 16931-1',
    });
    expect(findingsOn(taking).filter(({ severity }) => severity === 'must')).toEqual([]);
  });
  test('of e-invoices do not hold up a customer who takes none, but for what the law asks for', () => {
    const odd = { ...takingNone, lines: takingNone.lines.map((line) => ({ ...line, unit: 'PIECES' })) };
    const rules = findingsOn(odd).map(({ rule }) => rule);
    // Neither the address that the customer never has, nor what only its e-invoice would need.
    for (const rule of ['PEPPOL-EN16931-R010', 'PEPPOL-EN16931-R020', 'BR-CL-23']) expect(rules).not.toContain(rule);
    // Nor are they counted as kept.
    expect([checksOf(odd).holding, checksOf(odd).by]).toEqual([checksOf(takingNone).holding, checksOf(takingNone).by]);
    expect(checksOf(odd).by).not.toContain('EN 16931');
    const reverse = {
      ...takingNone,
      buyer: { ...takingNone.buyer, taxNumber: '' },
      taxes: takingNone.taxes.map((tax) => ({ ...tax, category: 'AE' as const, percent: '0' as never })),
    };
    expect(findingsOn(reverse).find(({ rule }) => rule === 'BR-AE-02')?.severity).toBe('must');
  });
  test('of one look agree with those asked for one by one', () => {
    const { findings, holding, by } = checksOf(taking);
    expect(findings).toEqual(findingsOn(taking));
    expect(holding).toBeGreaterThan(200);
    expect(by).toContain('EN 16931');
    expect(checksOf({ ...taking, kind: 'quote' }).findings.every(({ severity }) => severity === 'note')).toBe(true);
  });
});

describe('crediting', () => {
  const note = (over: object = {}, date = '2026-02-01') => {
    const { document } = issuedBy();
    const changed = { ...document, ...over };
    const invoice = { ...changed, openHome: changed.open, isOpen: changed.open === 0n ? (0 as const) : (1 as const) };
    return credit(
      {
        invoice,
        family: [invoice],
        registration,
        series: series('credit-note'),
        chart: FIRST_CHART,
        style: PLAIN_STYLE,
        transmissions: [],
        allocations: [],
      },
      { kind: 'rest' },
      { date: day(date), reason: 'Returned' },
      momentOn(date),
    );
  };
  test.each([
    [12300n, 0n, 0n, 12300n],
    [2300n, 10000n, -10000n, 2300n],
    [0n, 12300n, -12300n, 0n],
  ])('open %s, received %s: the note keeps %s open and sets off %s', (open, received, left, setOff) => {
    const { changes } = accepted(note({ open: minor(open), received: minor(received) }));
    expect(changes.add?.documents?.[0]).toMatchObject({ open: left, credited: -setOff, isOpen: left === 0n ? 0 : 1 });
    expect(changes.put?.documents?.[0]).toMatchObject({ open: 0n, credited: setOff, isOpen: 0 });
  });
  test('goes to the period of its own day', () => {
    expect(accepted(note({}, '2026-03-10')).changes.put?.taxPeriods?.[0]?.id).toBe('ie-vat|2026-03-01');
  });
});

describe('receiving', () => {
  test('for nobody asks for the customer and writes nothing', () => {
    const input = { customerId: 'x', date: '2026-01-20', method: 'bank' as const, reference: '', allocations: [] };
    const decision = receive(
      onePart(input),
      {
        customer: undefined,
        position: positionOf(
          { chart: FIRST_CHART, registrations: [registration] },
          { debts: [], credits: [], allocations: [], notes: [] },
        ),
        homeCurrency: EUR,
        series: series('receipt'),
        numberTaken: false,
        rate: null,
        withholdingTypes: [],
        credits: new Map(),
      },
      moment,
    );
    expect(refusalCodes(decision)).toEqual(['missing']);
  });
});

describe('filing', () => {
  const proof: Proof = {
    documents: minor(0n),
    taxEntries: minor(0n),
    ledger: minor(0n),
    documentCount: 0,
    account: { opening: minor(0n), steps: [], closing: minor(0n) },
    touching: [],
    overridden: [],
    differences: [],
    holds: true,
  };
  const row = (tax: bigint): TaxBalance => ({
    periodId: 'ie-vat|2026-01-01',
    code: 'IE-S',
    percent: '23',
    codeName: 'Standard 23',
    category: 'S',
    jurisdictionId: 'IE',
    jurisdictionName: 'Ireland',
    taxId: 'IE-VAT',
    kind: 'due',
    boxBase: '',
    boxTax: 'T1',
    base: minor(0n),
    baseOnce: minor(0n),
    tax: minor(tax),
    filingCurrency: EUR,
    filingBase: minor(0n),
    filingBaseOnce: minor(0n),
    filingTax: minor(tax),
    entries: 1,
    lateEntries: 0,
  });
  const filed = (balances: readonly TaxBalance[], today = '2026-03-01', over: Partial<typeof registration> = {}) =>
    file(
      { registration: { ...registration, ...over }, balances, proof, chart: FIRST_CHART, homeCurrency: EUR, typed: [] },
      day('2026-01-01'),
      '',
      momentOn(today),
    );
  test('in whole units posts what is rounded away', () => {
    const rounding = { ...registration.rounding, wholeUnits: true };
    const { changes } = accepted(filed([row(12_350n)], '2026-03-01', { rounding }));
    expect(changes.add?.journalLines?.map((l) => [l.account, l.amount])).toEqual([
      ['2200', 12_350n],
      ['7910', 50n],
      ['2210', -12_400n],
    ]);
  });
  test('in whole units states its boxes in them, as it posts', () => {
    const rounding = { ...registration.rounding, wholeUnits: true };
    const boxed = {
      ...row(12_350n),
      boxTax: 'T1',
      boxBase: 'E1',
      filingBaseOnce: minor(53_649n),
      filingTax: minor(12_350n),
    };
    const filing = accepted(filed([boxed], '2026-03-01', { rounding })).value.filed;
    expect(filing?.figures.boxes).toEqual([
      { box: 'E1', amount: 53_600n },
      { box: 'T1', amount: 12_400n },
    ]);
  });
  test('nothing files an entry without lines', () => {
    const { changes } = accepted(filed([]));
    expect([changes.add?.journal?.length, changes.add?.journalLines]).toEqual([1, []]);
  });
  test('more credited than sold gives a claim on the authority', () => {
    const { changes } = accepted(filed([row(-2300n)]));
    expect(changes.add?.journalLines?.map((l) => [l.account, l.amount])).toEqual([
      ['2210', 2300n],
      ['2200', -2300n],
    ]);
  });
  test('waits for the last day to be over', () => {
    expect(refusalCodes(filed([], '2026-02-28'))).toEqual(['not-ended']);
    expect(refusalCodes(filed([], '2026-03-01'))).toEqual([]);
  });
});

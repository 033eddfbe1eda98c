import { day, draftOf, lineOf, settingOf } from 'tests/book';
import { recordsOf, registeredIn } from 'tests/taxSetup';
import { decimal } from '@/core/kernel/decimal';
import { withRate } from '@/core/tax/tax';
import { prepareSetup } from '@/core/tax/taxSetup';
import { DEMO_CERTIFICATES, DEMO_CUSTOMERS } from '@/demo/setup';
import type { Draft } from './draft';
import { draftTaxes, holdTaxes } from './draftTaxes';
import { freezeDraft } from './freeze';
import { decideTaxes, lineTrail, lineVerdict, supplyOf } from './lineTax';
import { heldTotal } from './preview';
import type { Setting } from './setting';

const who = (id: string) => DEMO_CUSTOMERS.find((c) => c.id === id) ?? null;
const irish = settingOf();
const both: Setting = settingOf({
  setup: prepareSetup(
    recordsOf(['IE', 'EU', 'US-WA'], [registeredIn('IE', { id: 'ie-vat' }), registeredIn('US-WA', { id: 'us-wa' })]),
  ),
  certificates: DEMO_CERTIFICATES,
});

describe('a line as the decision table looks at it', () => {
  test('takes kind and number from the customer, addresses from both sides, the day from the tax point', () => {
    const draft = draftOf({ issueDate: '2026-01-15', taxPoint: '2026-01-10' });
    expect(supplyOf(draft, lineOf(), who('nordlicht'), irish)).toMatchObject({
      supply: 'service',
      taxClass: 'standard',
      customer: 'business',
      number: 'verified',
      shipFrom: { country: 'IE' },
      shipTo: { country: 'DE' },
      day: '2026-01-10',
    });
  });
  test('goes where it is delivered, not where the customer lives', () => {
    const delivery = { street: 'Pier', city: 'Oslo', region: '', postalCode: '', country: 'NO' };
    const goods = lineOf({ supply: 'goods' });
    expect(lineVerdict(draftOf({ delivery }), goods, who('clewbay'), irish).key).toBe('IE-EX');
  });
  test('takes the place that was chosen for its customer before the one that its address lies in', () => {
    const salish = who('salish');
    if (salish === null) throw new Error('no customer');
    const goods = lineOf({ supply: 'goods' });
    expect(lineVerdict(draftOf(), goods, salish, both).key).toBe('@WA-SEATTLE/standard');
    expect(lineVerdict(draftOf(), goods, { ...salish, placeId: 'WA-TACOMA' }, both).key).toBe('@WA-TACOMA/standard');
    // A place that is no longer in Setup is no choice.
    expect(lineVerdict(draftOf(), goods, { ...salish, placeId: 'GONE' }, both).key).toBe('@WA-SEATTLE/standard');
  });
  test('without a customer is one to a consumer at home', () => {
    expect(lineVerdict(draftOf(), lineOf(), null, irish).key).toBe('IE-S');
  });
  test('without a tax point is not decided, and says so', () => {
    const draft = draftOf({ issueDate: 'soon' });
    expect(lineVerdict(draft, lineOf(), who('clewbay'), irish).problem).toBe('Enter the tax point first.');
    expect(lineTrail(draft, lineOf(), who('clewbay'), irish)).toEqual([
      { held: false, text: 'Enter the tax point first.' },
    ]);
  });
  test('takes the customer’s own code before the table', () => {
    const own = { ...(who('clewbay') as NonNullable<ReturnType<typeof who>>), taxCode: 'IE-E' };
    expect(lineVerdict(draftOf(), lineOf(), own, irish).key).toBe('IE-E');
    expect(lineTrail(draftOf(), lineOf(), own, irish)).toEqual([
      { held: true, text: 'Clew Bay Salmon Co-op takes Exempt on everything' },
    ]);
  });
});

describe('deciding a draft', () => {
  const draft = (over: Partial<Draft>): Draft =>
    draftOf({ customerId: 'orcas', lines: [lineOf({ supply: 'goods' })], ...over });
  test('gives its lines their taxes and the draft its registration', () => {
    const decided = decideTaxes(draft({}), who('orcas'), both);
    expect([decided.registrationId, decided.lines[0]?.taxCode]).toEqual(['us-wa', '@WA-SANJUAN/standard']);
  });
  test('leaves what was chosen manually', () => {
    const lines = [lineOf({ supply: 'goods', taxCode: 'IE-EX', taxByHand: true })];
    const decided = decideTaxes(draft({ lines, registrationByHand: true }), who('orcas'), both);
    expect([decided.registrationId, decided.lines[0]?.taxCode]).toEqual(['ie-vat', 'IE-EX']);
  });
  test('under a registration chosen manually looks at that one alone', () => {
    const decided = decideTaxes(draft({ registrationByHand: true }), who('orcas'), both);
    expect(decided.lines[0]?.taxCode).toBe('IE-EX');
  });
  test('leaves everything while there is no tax point', () => {
    const undated = draft({ issueDate: 'soon' });
    expect(decideTaxes(undated, who('orcas'), both)).toBe(undated);
  });
  test('gives the very same draft back when nothing changes', () => {
    const decided = decideTaxes(draft({}), who('orcas'), both);
    expect(decideTaxes(decided, who('orcas'), both)).toBe(decided);
  });
});

describe('the taxes a draft holds', () => {
  const draft = draftOf({ lines: [lineOf(), lineOf({ taxCode: 'IE-R', taxClass: 'reduced' })] });
  const raised = (percent: string): Setting => {
    const rate = {
      taxClass: 'standard',
      from: day('2026-01-01'),
      until: '',
      percent: decimal(percent),
      perUnit: '',
      source: '',
    } as const;
    const taxes = irish.setup.taxes.map((tax) => (tax.id === 'IE-VAT' ? withRate(tax, rate) : tax));
    return settingOf({ setup: prepareSetup({ ...irish.setup, taxes }) });
  };
  const held = { ...draft, held: holdTaxes(draft, who('ballyvaughan'), irish) };
  test('stay when the set-up changes, and the change is named', () => {
    const { taxes, changed } = draftTaxes(held, who('ballyvaughan'), raised('25'));
    expect(taxes.map((tax) => tax.percent)).toEqual(['23', '13.5']);
    expect(changed.map((c) => [c.held.name, c.held.percent, c.now.percent])).toEqual([['Standard 23', '23', '25']]);
  });
  test('are taken anew for another day or customer', () => {
    const moved = { ...held, taxPoint: '2026-01-20' };
    expect(draftTaxes(moved, who('ballyvaughan'), raised('25')).taxes[0]?.percent).toBe('25');
    const other = { ...held, customerId: 'clewbay' };
    expect(draftTaxes(other, who('clewbay'), raised('25')).changed).toEqual([]);
  });
  test('keep the draft from being issued until the change is taken', () => {
    const frozen = freezeDraft(held, 'INV', who('ballyvaughan'), raised('25'));
    expect(frozen.ok ? [] : frozen.refusals.map((r) => [r.code, r.path])).toEqual([['rate-changed', 'held']]);
    expect(freezeDraft({ ...held, held: null }, 'INV', who('ballyvaughan'), raised('25')).ok).toBe(true);
  });
  test('are enough for the total in a list', () => {
    expect(heldTotal(held, irish.business.homeCurrency)).toBe(12300n + 11350n);
    expect(heldTotal(draft, irish.business.homeCurrency)).toBe(0n);
  });
  test('a code or place that is gone is named, not guessed', () => {
    const gone = draftOf({ lines: [lineOf({ taxCode: 'OLD' }), lineOf({ taxCode: '@NOWHERE/standard' })] });
    const { unresolved } = draftTaxes(gone, who('ballyvaughan'), irish);
    expect([...unresolved.keys()]).toEqual(['OLD', '@NOWHERE/standard']);
  });
});

describe('a certificate', () => {
  test('lets the stack of its state charge nothing, only while it is in force', () => {
    const draft = (issueDate: string) =>
      draftOf({
        customerId: 'salish',
        registrationId: 'us-wa',
        issueDate,
        lines: [lineOf({ supply: 'goods', taxCode: '@WA-SEATTLE/standard' })],
      });
    const percentOn = (issueDate: string) => draftTaxes(draft(issueDate), who('salish'), both).taxes[0]?.percent;
    expect(['2024-12-31', '2025-01-01', '2027-12-31', '2028-01-01'].map(percentOn)).toEqual([
      '10.35',
      '0',
      '0',
      '10.55',
    ]);
  });
});

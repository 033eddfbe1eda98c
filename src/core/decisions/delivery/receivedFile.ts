import { takeCustomer } from '@/core/documents/determineLine';
import { blankAdjustment, blankLine, type Draft, type DraftAdjustment, type DraftLine } from '@/core/documents/draft';
import { datesOf, lineVerdict, resolveKey } from '@/core/documents/lineTax';
import { preview } from '@/core/documents/preview';
import type { Setting } from '@/core/documents/setting';
import { CODES } from '@/core/einvoice/codes';
import { SCALE, scaled } from '@/core/einvoice/numbers';
import type { TermId } from '@/core/einvoice/terms';
import { groupsIn, type ViewGroup, valueIn } from '@/core/einvoice/view';
import { isCurrency } from '@/core/kernel/currency';
import { type Decimal, decimal, ratioOf, tenTo, trimmed, writeUnits } from '@/core/kernel/decimal';
import { writeMoney } from '@/core/kernel/money';
import { divide } from '@/core/kernel/ratio';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';
import { wordsOf } from '@/core/kernel/words';
import type { Customer } from '@/core/parties/customer';
import { PRICE_DECIMALS } from '@/core/tax/price';
import { bareNumber } from '@/core/tax/taxNumber';

/** Parts of words by which the buyer of an e-invoice may be found among the customers. */
export function buyerWords(invoice: ViewGroup): readonly string[] {
  const buyer = groupsIn(invoice, 'BG-7')[0];
  const texts = [valueIn(buyer, 'BT-48'), valueIn(buyer, 'BT-44')];
  return texts.flatMap((text) => wordsOf(text)[0] ?? []);
}

/** The customer that the buyer of an e-invoice is: by tax number, else by electronic address, else by name. */
export function buyerAmong<C extends Customer>(customers: readonly C[], invoice: ViewGroup): C | null {
  const buyer = groupsIn(invoice, 'BG-7')[0];
  const number = bareNumber(valueIn(buyer, 'BT-48'));
  const endpoint = valueIn(buyer, 'BT-49');
  const name = valueIn(buyer, 'BT-44').trim().toLowerCase();
  const known = customers.filter(({ mergedInto }) => mergedInto === '');
  return (
    known.find(({ taxNumbers }) => number !== '' && taxNumbers.some((one) => bareNumber(one.number) === number)) ??
    known.find((customer) => endpoint !== '' && customer.endpoint.id === endpoint) ??
    known.find((customer) => name !== '' && customer.name.trim().toLowerCase() === name) ??
    null
  );
}

/** A number of a file as a plain decimal; '' where it is none. */
function plain(text: string): Decimal | '' {
  const units = scaled(text.trim());
  return units === null ? '' : trimmed(writeUnits(units, SCALE));
}

/** BT-146 for one, where it is given for more (BT-149). */
function priceOf(line: ViewGroup): Decimal | '' {
  const price = plain(valueIn(line, 'BT-146'));
  const base = plain(valueIn(line, 'BT-149'));
  if (price === '' || base === '' || ratioOf(base).n === 0n) return price;
  const { n, d } = divide(ratioOf(price), ratioOf(base));
  return trimmed(writeUnits(halfUp({ n: n * tenTo(PRICE_DECIMALS), d }), PRICE_DECIMALS));
}

/** The sum of a term over the groups of an id, in units of 10^−18. */
function sumIn(of: ViewGroup, group: 'BG-27' | 'BG-28', term: TermId): bigint {
  return groupsIn(of, group).reduce((sum, one) => sum + (scaled(valueIn(one, term)) ?? 0n), 0n);
}

/** The code of ours that is of a category and rate, for one with this customer on this day. */
function codeOf(category: string, rate: string, draft: Draft, customer: Customer | null, setting: Setting) {
  const day = datesOf(draft).taxPoint;
  const percent = plain(rate) === '' ? decimal('0') : plain(rate);
  return (key: string): boolean => {
    if (day === null || key === '') return false;
    const tax = resolveKey(key, day, customer, setting);
    return !('problem' in tax) && tax.category === category && trimmed(tax.percent) === percent;
  };
}

type Taxed = Pick<DraftLine, 'taxCode' | 'taxByHand'>;

interface Taking {
  readonly draft: Draft;
  readonly customer: Customer | null;
  readonly setting: Setting;
  readonly newId: () => string;
  /** Says what is not taken over as it stands. */
  readonly tell: (words: string) => void;
}

/** The tax of a line or a charge: what is decided here where it agrees, else a code that does, else what is decided. */
function taxedAs(category: string, rate: string, what: string, taking: Taking): Taxed {
  const { draft, customer, setting, tell } = taking;
  const fits = codeOf(category, rate, draft, customer, setting);
  const decided = lineVerdict(draft, blankLine('', ''), customer, setting).key;
  if (fits(decided)) return { taxCode: decided, taxByHand: false };
  const other = [...setting.setup.code.keys()].find(fits);
  if (other !== undefined) return { taxCode: other, taxByHand: true };
  tell(`${what} carries ${category} ${plain(rate)} %, which no tax code here does`);
  return { taxCode: decided, taxByHand: false };
}

function lineFrom(line: ViewGroup, at: number, account: string, taking: Taking): DraftLine {
  const what = `line ${at + 1}`;
  const discount = sumIn(line, 'BG-27', 'BT-136') - sumIn(line, 'BG-28', 'BT-141');
  if (discount < 0n) taking.tell(`${what} has a charge of ${trimmed(writeUnits(-discount, SCALE))}`);
  const unit = valueIn(line, 'BT-130');
  const description = [valueIn(line, 'BT-153'), valueIn(line, 'BT-154')].filter(Boolean).join('\n');
  return {
    ...blankLine(taking.newId(), account),
    description,
    quantity: plain(valueIn(line, 'BT-129')),
    unit: CODES.units.has(unit) ? unit : 'C62',
    price: priceOf(line),
    discount: discount > 0n ? trimmed(writeUnits(discount, SCALE)) : '',
    ...taxedAs(valueIn(line, 'BT-151'), valueIn(line, 'BT-152'), what, taking),
  };
}

function adjustmentsFrom(invoice: ViewGroup, account: string, taking: Taking): readonly DraftAdjustment[] {
  const from = (group: 'BG-20' | 'BG-21', kind: DraftAdjustment['kind'], terms: readonly TermId[]) =>
    groupsIn(invoice, group).map((one): DraftAdjustment => {
      const [amount = '', category = '', rate = '', reason = ''] = terms.map((term) => valueIn(one, term));
      const blank = blankAdjustment(taking.newId(), kind, account);
      const text = reason || blank.text;
      return {
        ...blank,
        text,
        amount: plain(amount),
        spread: false,
        ...taxedAs(category, rate, `“${text}”`, taking),
      };
    });
  return [
    ...from('BG-20', 'allowance', ['BT-92', 'BT-95', 'BT-96', 'BT-97']),
    ...from('BG-21', 'charge', ['BT-99', 'BT-102', 'BT-103', 'BT-104']),
  ];
}

/** Accounts that lines and charges of a foreign document are booked to, until somebody says otherwise. */
interface Accounts {
  readonly income: string;
  readonly discounts: string;
}

/**
 * A draft that says what a received e-invoice says, dated anew: lines with net prices, discounts and charges,
 * references and note. What could not be taken over stands in its remarks. A credit note is refused: those are made
 * from their invoice.
 */
export function draftFromEInvoice(
  invoice: ViewGroup,
  name: string,
  blank: Draft,
  customer: Customer | null,
  accounts: Accounts,
  setting: Setting,
  newId: () => string,
): Result<Draft> {
  if (CODES.creditNoteTypes.has(valueIn(invoice, 'BT-3')))
    return refuse({
      code: 'invalid',
      path: '',
      wanted: 'credit-from-invoice',
    });
  const told: string[] = [];
  const currency = valueIn(invoice, 'BT-5');
  if (!isCurrency(currency)) told.push(`its currency is ${currency}, which is not known here`);
  const head: Draft = {
    ...(customer === null ? blank : takeCustomer(blank, customer, setting)),
    priceMode: 'net',
    currency: isCurrency(currency) && currency !== setting.business.homeCurrency ? currency : '',
    buyerReference: valueIn(invoice, 'BT-10'),
    orderNumber: valueIn(invoice, 'BT-13'),
    note: groupsIn(invoice, 'BG-1')
      .map((note) => valueIn(note, 'BT-22'))
      .join('\n'),
  };
  const buyer = valueIn(groupsIn(invoice, 'BG-7')[0], 'BT-44');
  if (customer === null) told.push(`${buyer || 'its buyer'} is not among the customers`);
  const taking: Taking = { draft: head, customer, setting, newId, tell: (words) => told.push(words) };
  const lines = groupsIn(invoice, 'BG-25').map((line, i) => lineFrom(line, i, accounts.income, taking));
  const draft: Draft = { ...head, lines, adjustments: adjustmentsFrom(invoice, accounts.discounts, taking) };
  const shown = preview(draft, customer, setting);
  const gross = writeMoney(shown.figures.totals.gross, shown.currency);
  const stated = plain(valueIn(invoice, 'BT-112'));
  if (stated === '' || trimmed(decimal(gross)) !== stated)
    told.push(`it comes to ${gross} here, the file says ${stated || 'nothing'}`);
  const seller = valueIn(groupsIn(invoice, 'BG-4')[0], 'BT-27');
  const from = `From ${name}: ${valueIn(invoice, 'BT-1')} of ${seller}.`;
  const remarks = told.length === 0 ? from : `${from} Look at this: ${told.join('; ')}.`;
  return accept({ ...draft, remarks });
}

import type { Content, ContentLine, FrozenBuyer, FrozenSeller, FrozenTax } from '@/core/documents/content';
import { isCountry } from '@/core/kernel/country';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import { type Decimal, decimal, ratioOf, tenTo, trimmed, writeUnits } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { inMinorUnits, type Minor, minor, NOTHING, plus, total, writeMoney } from '@/core/kernel/money';
import { divide, multiply, type Ratio } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import { unitCode } from '@/core/kernel/unit';
import type { Address } from '@/core/parties/address';
import { compactIban } from '@/core/parties/iban';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { CalcResult, LineResult } from '@/core/tax/calcTypes';
import { PRICE_DECIMALS } from '@/core/tax/price';
import { CODES } from './codes';
import { type EInvoice, type Group, group, type TermInput } from './model';
import { SPECIFICATION as PEPPOL_SPECIFICATION } from './rules/peppol';
import type { GroupId, TermId } from './terms';

/** BT-23 of the Peppol BIS Billing 3.0 profile. */
export const PEPPOL_PROCESS = 'urn:fdc:peppol.eu:2017:poacc:billing:01:1.0';

/** Numbers that begin with a country are VAT numbers (BR-CO-09); others are those of some other tax office. */
const isVatNumber = (number: string) => isCountry(number.slice(0, 2)) || /^(EL|XI)/.test(number);

/** Terms of an address by its lines: three of the street, city, post code, region, country. */
type AddressTerms = readonly [TermId, TermId, TermId, TermId, TermId, TermId, TermId];

function addressOf(id: GroupId, address: Address, terms: AddressTerms): Group {
  const [street = '', extra = '', ...more] = address.street
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  const values = [street, extra, more.join(', '), address.city, address.postalCode, address.region, address.country];
  return group(id, Object.fromEntries(terms.map((term, i) => [term, values[i] ?? ''])));
}

function endpointOf({ endpoint }: FrozenBuyer | FrozenSeller): TermInput {
  return endpoint.id === '' ? '' : { value: endpoint.id, scheme: endpoint.scheme };
}

/** BG-4. What lies outside the scope of VAT names no VAT number (BR-O-02), so that the number is one of another kind. */
function sellerOf({ seller, salesperson = '' }: Content, outside: boolean): Group {
  const number = seller.taxNumber.replace(/\s/g, '');
  const vat = isVatNumber(number) && !outside;
  return group(
    'BG-4',
    {
      'BT-27': seller.name,
      'BT-29': outside && seller.legalId === '' ? number : '',
      'BT-30': seller.legalId,
      'BT-31': vat ? number : '',
      'BT-32': vat ? '' : number,
      'BT-34': endpointOf(seller),
      'BT-41': salesperson,
      'BT-42': seller.phone,
      'BT-43': seller.email,
    },
    [addressOf('BG-5', seller.address, ['BT-35', 'BT-36', 'BT-162', 'BT-37', 'BT-38', 'BT-39', 'BT-40'])],
  );
}

/** BG-7 */
function buyerOf({ buyer }: Content, outside: boolean): Group {
  const number = buyer.taxNumber.replace(/\s/g, '');
  const vat = isVatNumber(number) && !outside;
  return group(
    'BG-7',
    {
      'BT-44': buyer.name,
      'BT-46': vat ? '' : number,
      'BT-48': vat ? number : '',
      'BT-49': endpointOf(buyer),
      'BT-56': buyer.contact ?? '',
      'BT-58': buyer.email,
    },
    [addressOf('BG-8', buyer.address, ['BT-50', 'BT-51', 'BT-163', 'BT-52', 'BT-53', 'BT-54', 'BT-55'])],
  );
}

/** An amount as the standard takes it (BR-DEC): of three decimals the last is left out where it is 0. */
function amountOf(amount: Minor, currency: Currency): Decimal {
  return decimal(writeMoney(amount, currency).replace(/(\.\d\d)0$/, '$1'));
}

interface Price {
  readonly quantity: Decimal;
  readonly price: Decimal;
  readonly baseQuantity: Decimal;
}

function negative(value: Decimal): Decimal {
  return decimal(value.startsWith('-') ? value.slice(1) : `-${value}`);
}

/** What a reader computes, BT-129 × BT-146 ÷ BT-149, lies within a hundredth of the line (PEPPOL-EN16931-R120). */
function gives(line: Price, target: Minor, currency: Currency): boolean {
  const full = divide(multiply(ratioOf(line.quantity), ratioOf(line.price)), ratioOf(line.baseQuantity));
  const { n, d } = inMinorUnits(full, currency);
  const apart = n - target * d;
  const hundredth = tenTo(Math.max(0, exponentOf(currency) - 2)) * d;
  return (apart < 0n ? -apart : apart) * tenTo(Math.max(0, 2 - exponentOf(currency))) <= hundredth;
}

/** The sum itself as the price of the whole quantity, where no price by one gives it, as in a currency without decimals. */
function priceOfAll(quantity: Decimal, target: Minor, currency: Currency): Price {
  const turned = target < 0n !== quantity.startsWith('-') ? negative(quantity) : quantity;
  const base = turned.startsWith('-') ? negative(turned) : turned;
  return { quantity: turned, price: amountOf(minor(target < 0n ? -target : target), currency), baseQuantity: base };
}

/**
 * The price without tax of a line that comes to `target` before discounts that are shown apart. A
 * price that holds tax becomes the net one that gives it, with up to ten decimals. Prices are never
 * negative (BR-27): a negative one turns the quantity.
 */
function priceOf(line: ContentLine, target: Minor, content: Content): Price {
  const { currency, priceMode } = content;
  const { quantity } = line;
  const baseQuantity = decimal('1');
  if (ratioOf(quantity).n === 0n) return { quantity, price: decimal('0'), baseQuantity };
  let price = line.unitPrice;
  if (priceMode === 'gross') {
    const exact: Ratio = divide(
      { n: target * tenTo(PRICE_DECIMALS), d: tenTo(exponentOf(currency)) },
      ratioOf(quantity),
    );
    price = trimmed(writeUnits(halfUp(exact), PRICE_DECIMALS));
  }
  const plain: Price = price.startsWith('-')
    ? { quantity: negative(quantity), price: negative(price), baseQuantity }
    : { quantity, price, baseQuantity };
  return gives(plain, target, currency) ? plain : priceOfAll(quantity, target, currency);
}

/** An allowance (BG-27) or, where it raises the line, a charge (BG-28). */
function discountOf(discount: Minor, currency: Currency): Group | null {
  if (discount === 0n) return null;
  const amount = amountOf(minor(discount < 0n ? -discount : discount), currency);
  return discount > 0n
    ? group('BG-27', { 'BT-136': amount, 'BT-139': 'Discount', 'BT-140': '95' })
    : group('BG-28', { 'BT-141': amount, 'BT-144': 'Surcharge' });
}

/** BR-O-05: what is outside the scope of tax has no rate. */
const rateOf = ({ category, percent }: Pick<FrozenTax, 'category' | 'percent'>): string =>
  category === 'O' ? '' : trimmed(percent);

/** UNTDID 7143: harmonised system of customs codes. */
const CUSTOMS = 'HS';

function lineOf(line: ContentLine, figures: LineResult, tax: FrozenTax, index: number, content: Content): Group {
  const { currency, supplyFrom, taxPoint } = content;
  // In net mode a discount is shown apart; in gross mode it is inside the net price.
  const discount = content.priceMode === 'net' ? figures.discount : NOTHING;
  const { quantity, price, baseQuantity } = priceOf(line, plus(figures.net, discount), content);
  const [name = '', ...more] = line.description.split('\n');
  // PEPPOL-EN16931-R110: the period of a line lies within that of the document.
  const { supplied } = line;
  const within =
    supplied !== undefined && (supplyFrom === undefined || (supplied >= supplyFrom && supplied <= taxPoint));
  return group(
    'BG-25',
    {
      'BT-126': String(index + 1),
      'BT-129': quantity,
      'BT-130': unitCode(line.unit),
      'BT-131': amountOf(figures.net, currency),
      'BT-146': price,
      'BT-149': baseQuantity === '1' ? '' : baseQuantity,
      'BT-150': baseQuantity === '1' ? '' : unitCode(line.unit),
      'BT-151': tax.category,
      'BT-152': rateOf(tax),
      'BT-153': name,
      'BT-154': more.join('\n'),
      'BT-158': line.itemCode ? { value: line.itemCode, scheme: CUSTOMS } : '',
    },
    [within ? group('BG-26', { 'BT-134': supplied, 'BT-135': supplied }) : null, discountOf(discount, currency)],
  );
}

/** Categories that say no reason for an exemption: BR-S-10, BR-Z-10, BR-IG-10, BR-IP-10. */
const WITHOUT_REASON: readonly string[] = ['S', 'Z', 'L', 'M'];

/** BG-23: one row for each category and rate, summed over the codes that share them. */
function breakdownOf(content: Content, figures: CalcResult): Group[] {
  const taxOf = (code: string) => content.taxes.find((t) => t.code === code) as FrozenTax;
  const rows = grouped(figures.groups, (g) => `${taxOf(g.tax).category}|${trimmed(taxOf(g.tax).percent)}`);
  return [...rows.values()].map((groups): Group => {
    const taxes = groups.map((g) => taxOf(g.tax));
    const [first] = taxes as [FrozenTax];
    const silent = WITHOUT_REASON.includes(first.category);
    return group('BG-23', {
      'BT-116': amountOf(total(groups.map((g) => g.net)), content.currency),
      'BT-117': amountOf(total(groups.map((g) => g.taxAmount)), content.currency),
      'BT-118': first.category,
      'BT-119': rateOf(first),
      'BT-120': silent ? '' : [...new Set(taxes.map((t) => t.legend).filter(Boolean))].join(' '),
      'BT-121': silent ? '' : (taxes.find((t) => t.exemptionCode !== '')?.exemptionCode ?? ''),
    });
  });
}

/** What allowances or charges come to without tax, above zero. */
function adjustedBy(figures: CalcResult, counts: (net: Minor) => boolean): Minor {
  const sum = total(figures.adjustments.flatMap(({ net }) => (counts(net) ? net : [])));
  return minor(sum < 0n ? -sum : sum);
}

/** BG-20 and BG-21: each part of an allowance or charge without tax; one that turned its sign changes sides. */
function adjustmentsOf(content: Content, figures: CalcResult): Group[] {
  return figures.adjustments.flatMap((part): Group[] => {
    if (part.net === 0n) return [];
    const tax = content.taxes.find((t) => t.code === part.tax) as FrozenTax;
    const reason = content.adjustments?.find((a) => a.id === part.id)?.text || (part.net > 0n ? 'Charge' : 'Discount');
    const amount = amountOf(minor(part.net < 0n ? -part.net : part.net), content.currency);
    const { category } = tax;
    return [
      part.net > 0n
        ? group('BG-21', { 'BT-99': amount, 'BT-102': category, 'BT-103': rateOf(tax), 'BT-104': reason })
        : group('BG-20', { 'BT-92': amount, 'BT-95': category, 'BT-96': rateOf(tax), 'BT-97': reason }),
    ];
  });
}

/** UNTDID 4461 of the ways in which money comes in. */
const MEANS: Readonly<Record<PaymentMethod, string>> = { bank: '30', cash: '10', cheque: '20', card: '48', other: '1' };
const SEPA_TRANSFER = '58';
const SEPA_DEBIT = '59';
const DEBIT = '49';

/** BG-16; a document that is to be paid is collected (BG-19) or asks for a transfer to our account. */
function paymentOf({ seller, paidBy, currency, debit, corrects }: Content): Group {
  if (paidBy !== undefined && paidBy !== 'bank') return group('BG-16', { 'BT-81': MEANS[paidBy] });
  if (debit !== undefined && corrects === undefined)
    return group('BG-16', { 'BT-81': currency === 'EUR' ? SEPA_DEBIT : DEBIT, 'BT-91': debit.iban });
  const { local } = seller;
  // Without an IBAN the account is its branch code and number, as they are paid to.
  const id = seller.iban === '' && local !== undefined ? `${local.code} ${local.number}` : compactIban(seller.iban);
  const account = group('BG-17', { 'BT-84': id, 'BT-85': seller.name, 'BT-86': seller.bic });
  const means = currency === 'EUR' ? SEPA_TRANSFER : MEANS.bank;
  return group('BG-16', { 'BT-81': means }, [id === '' ? null : account]);
}

/** BT-20: instalments and what is taken off for paying early, then the conditions. */
function termsIn({ corrects, instalments = [], settlement, conditions = '' }: Content): string {
  // BR-CO-25: an amount due needs a due date or terms; a credit note of UBL has no due date.
  if (corrects !== undefined) return `Set off against ${corrects.number}`;
  const parts = instalments.map(({ percent, due }) => `${percent} % due ${due}`);
  if (settlement !== undefined) parts.push(`${settlement.percent} % off if paid by ${settlement.until}`);
  return [parts.join('; '), conditions].filter(Boolean).join('\n');
}

/** BG-24: files that go out with a document, as far as the standard takes their media type (BR-CL-24). */
function filesOf(files: readonly EFile[]): Group[] {
  return files
    .filter(({ type }) => CODES.mimeTypes.has(type))
    .map(({ name, type, data }) =>
      group('BG-24', { 'BT-122': name, 'BT-125': { value: data, version: type, fileName: name } }),
    );
}

/** A file to put into an e-invoice. */
export interface EFile {
  readonly name: string;
  /** Media type. */
  readonly type: string;
  /** Base64. */
  readonly data: string;
}

/** Where it was delivered: an intra-community supply says so always (BR-IC-11, BR-IC-12). */
function deliveryOf({ delivery, buyer, taxPoint, taxes, lines }: Content): { day: string; address: Group | null } {
  const inside = lines.some((line) => taxes.find(({ code }) => code === line.tax)?.category === 'K');
  const to = delivery ?? (inside ? buyer.address : undefined);
  const terms: AddressTerms = ['BT-75', 'BT-76', 'BT-165', 'BT-77', 'BT-78', 'BT-79', 'BT-80'];
  return { day: to === undefined ? '' : taxPoint, address: to === undefined ? null : addressOf('BG-15', to, terms) };
}

/**
 * BG-3: the invoice that a credit note takes back; else the earlier stages of what this one bills a stage of, and the
 * advance invoices that it takes off.
 */
function precedingOf({ corrects, stage, lines }: Content): Group[] {
  const advances = new Map(
    lines.flatMap(({ takesOff }) => (takesOff ? [[takesOff.documentId, takesOff] as const] : [])),
  );
  const before = corrects === undefined ? [...(stage?.before ?? []), ...advances.values()] : [corrects];
  return before.map(({ number, issueDate }) => group('BG-3', { 'BT-25': number, 'BT-26': issueDate }));
}

/** The semantic model of a document, so that every figure in the file is the document's own. */
export function einvoiceOf(content: Content, figures: CalcResult, files: readonly EFile[] = []): EInvoice {
  const { currency, issueDate, taxPoint, corrects, supplyFrom, paidBy, debit } = content;
  const { totals } = figures;
  const money = (amount: Minor) => amountOf(amount, currency);
  const some = (amount: Minor) => (amount === 0n ? '' : money(amount));
  const taxOf = (code: string) => content.taxes.find((t) => t.code === code) as FrozenTax;
  const outside = content.lines.length > 0 && content.lines.every((line) => taxOf(line.tax)?.category === 'O');
  const note = [content.subject ?? '', content.note, content.reason ?? ''].filter(Boolean).join('\n');
  const home = content.home !== undefined && figures.home !== undefined ? content.home.currency : null;
  const { day, address } = deliveryOf(content);
  const paid = paidBy === undefined ? totals.prepaid : minor(totals.prepaid + totals.payable);
  return group(
    'ROOT',
    {
      'BT-1': content.number,
      'BT-2': issueDate,
      'BT-3': content.kind === 'credit-note' ? '381' : content.advance === true ? '386' : '380',
      'BT-5': currency,
      'BT-6': home ?? '',
      'BT-7': taxPoint === issueDate ? '' : taxPoint,
      'BT-9': corrects === undefined ? content.dueDate : '',
      'BT-10': content.buyerReference,
      'BT-13': content.orderNumber,
      'BT-20': termsIn(content),
      'BT-23': PEPPOL_PROCESS,
      'BT-24': PEPPOL_SPECIFICATION,
      'BT-72': day,
      'BT-83': content.number,
      'BT-89': corrects === undefined ? (debit?.reference ?? '') : '',
      'BT-90': corrects === undefined ? (debit?.creditorId ?? '') : '',
      'BT-106': money(total(figures.lines.map((line) => line.net))),
      'BT-107': some(adjustedBy(figures, (net) => net < 0n)),
      'BT-108': some(adjustedBy(figures, (net) => net > 0n)),
      'BT-109': money(totals.net),
      'BT-110': money(totals.taxAmount),
      'BT-111': home === null || figures.home === undefined ? '' : amountOf(figures.home.taxAmount, home),
      'BT-112': money(totals.gross),
      'BT-113': some(paid),
      'BT-114': some(totals.rounding),
      'BT-115': money(paidBy === undefined ? totals.payable : NOTHING),
    },
    [
      note === '' ? null : group('BG-1', { 'BT-22': note }),
      ...precedingOf(content),
      sellerOf(content, outside),
      buyerOf(content, outside),
      supplyFrom === undefined ? null : group('BG-14', { 'BT-73': supplyFrom, 'BT-74': taxPoint }),
      address,
      paymentOf(content),
      ...adjustmentsOf(content, figures),
      ...breakdownOf(content, figures),
      ...filesOf(files),
      ...content.lines.map((line, i) => lineOf(line, figures.lines[i] as LineResult, taxOf(line.tax), i, content)),
    ],
  );
}

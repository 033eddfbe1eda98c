import type { Content, ContentLine, FrozenBuyer, FrozenSeller, FrozenTax } from '@/core/documents/content';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import { type Decimal, decimal, ratioOf, tenTo, trimmed, writeUnits } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { inMinorUnits, type Minor, minor, total, writeMoney } from '@/core/kernel/money';
import { divide, multiply, type Ratio } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import { compactIban } from '@/core/parties/iban';
import type { CalcResult, LineResult } from '@/core/tax/calcTypes';
import { PRICE_DECIMALS } from '@/core/tax/price';
import type { EAdjustment, EBreakdown, EInvoice, ELine, EParty } from './model';

/** BT-24 of the public Peppol BIS Billing 3.0 profile. */
export const PEPPOL_SPECIFICATION = 'urn:cen.eu:en16931:2017#compliant#urn:fdc:peppol.eu:2017:poacc:billing:3.0';
/** BT-23 of the same. */
export const PEPPOL_PROCESS = 'urn:fdc:peppol.eu:2017:poacc:billing:01:1.0';

function partyOf(party: FrozenBuyer & Partial<FrozenSeller>): EParty {
  const [street = '', ...more] = party.address.street.split('\n').map((line) => line.trim());
  return {
    name: party.name,
    taxNumber: party.taxNumber.replace(/\s/g, ''),
    legalId: party.legalId ?? '',
    endpoint: party.endpoint.id === '' ? null : party.endpoint,
    address: {
      street,
      extra: more.filter(Boolean).join(', '),
      city: party.address.city,
      region: party.address.region,
      postalCode: party.address.postalCode,
      country: party.address.country,
    },
    phone: party.phone ?? '',
    email: party.email,
  };
}

interface Price {
  readonly quantity: Decimal;
  readonly price: Decimal;
  readonly baseQuantity: Decimal;
}

function negative(value: Decimal): Decimal {
  return decimal(value.startsWith('-') ? value.slice(1) : `-${value}`);
}

/** The extension a reader of the file computes: BT-129 × BT-146 ÷ BT-149, rounded to the minor unit. */
export function extensionOf(line: Price, currency: Currency): bigint {
  const full = multiply(ratioOf(line.quantity), ratioOf(line.price));
  return halfUp(inMinorUnits(divide(full, ratioOf(line.baseQuantity)), currency));
}

/**
 * The price without tax of a line. A price that holds tax becomes the net one that gives `net`, with up to ten decimals; where no such price gives the exact sum, the sum itself is the
 * price of the whole quantity. Prices are never negative (BR-27): a negative one turns the quantity.
 */
function priceOf(line: ContentLine, net: Minor, content: Content): Price {
  const { currency } = content;
  const one = decimal('1');
  let quantity = line.quantity;
  if (content.priceMode === 'net') {
    if (!line.unitPrice.startsWith('-')) return { quantity, price: line.unitPrice, baseQuantity: one };
    return { quantity: negative(quantity), price: negative(line.unitPrice), baseQuantity: one };
  }
  if (ratioOf(quantity).n === 0n) return { quantity, price: decimal('0'), baseQuantity: one };
  const scaled: Ratio = divide({ n: net * tenTo(PRICE_DECIMALS), d: tenTo(exponentOf(currency)) }, ratioOf(quantity));
  let units = halfUp(scaled);
  if (units < 0n) {
    units = -units;
    quantity = negative(quantity);
  }
  const plain: Price = { quantity, price: trimmed(writeUnits(units, PRICE_DECIMALS)), baseQuantity: one };
  if (extensionOf(plain, currency) === net) return plain;
  const positive = net < 0n !== quantity.startsWith('-') ? negative(quantity) : quantity;
  const base = positive.startsWith('-') ? negative(positive) : positive;
  return { quantity: positive, price: writeMoney(minor(net < 0n ? -net : net), currency), baseQuantity: base };
}

function lineOf(line: ContentLine, figures: LineResult, tax: FrozenTax, index: number, content: Content): ELine {
  const { currency } = content;
  // In net mode the discount is shown apart (BG-27); in gross mode it is inside the net price.
  const apart = content.priceMode === 'net' && figures.discount !== 0n;
  const [name = '', ...more] = line.description.split('\n');
  return {
    id: String(index + 1),
    ...priceOf(line, figures.net, content),
    unit: line.unit,
    net: writeMoney(figures.net, currency),
    allowance: apart ? writeMoney(figures.discount, currency) : null,
    category: tax.category,
    percent: tax.percent,
    name,
    description: more.join('\n'),
  };
}

/** BG-23: one row for each category and rate, summed over the codes that share them. */
function breakdownOf(content: Content, figures: CalcResult): EBreakdown[] {
  const taxOf = (code: string) => content.taxes.find((t) => t.code === code) as FrozenTax;
  const rows = grouped(figures.groups, (g) => `${taxOf(g.tax).category}|${trimmed(taxOf(g.tax).percent)}`);
  return [...rows.values()].map((groups): EBreakdown => {
    const taxes = groups.map((g) => taxOf(g.tax));
    const [first] = taxes as [FrozenTax];
    return {
      base: writeMoney(total(groups.map((g) => g.net)), content.currency),
      tax: writeMoney(total(groups.map((g) => g.taxAmount)), content.currency),
      category: first.category,
      percent: first.percent,
      exemptionReason: [...new Set(taxes.map((t) => t.legend).filter(Boolean))].join(' '),
      exemptionCode: taxes.find((t) => t.exemptionCode !== '')?.exemptionCode ?? '',
    };
  });
}

/** Category S says no exemption reason (BR-S-10), nor does Z (BR-Z-10). */
function withoutNeedlessReason(row: EBreakdown): EBreakdown {
  return row.category === 'S' || row.category === 'Z' ? { ...row, exemptionReason: '', exemptionCode: '' } : row;
}

/** What allowances or charges come to without tax, above zero. */
function sumOf(figures: CalcResult, counts: (net: Minor) => boolean): Minor {
  const sum = total(figures.adjustments.flatMap(({ net }) => (counts(net) ? net : [])));
  return minor(sum < 0n ? -sum : sum);
}

/** BG-20 and BG-21: each part of an allowance or charge without tax; one that turned its sign changes sides. */
function adjustmentsOf(content: Content, figures: CalcResult): EAdjustment[] {
  return figures.adjustments.flatMap((part): EAdjustment[] => {
    if (part.net === 0n) return [];
    const tax = content.taxes.find((t) => t.code === part.tax) as FrozenTax;
    const reason = content.adjustments?.find((a) => a.id === part.id)?.text ?? '';
    const size = minor(part.net < 0n ? -part.net : part.net);
    const { category, percent } = tax;
    return [{ charge: part.net > 0n, amount: writeMoney(size, content.currency), reason, category, percent }];
  });
}

/** The semantic model of a document, so that every figure in the file is the document's own. */
export function einvoiceOf(content: Content, figures: CalcResult): EInvoice {
  const { currency, seller, buyer } = content;
  const money = (amount: Minor) => writeMoney(amount, currency);
  const iban = compactIban(seller.iban);
  return {
    number: content.number,
    issueDate: content.issueDate,
    typeCode: content.kind === 'credit-note' ? '381' : '380',
    currency,
    taxPointDate: content.taxPoint === content.issueDate ? '' : content.taxPoint,
    dueDate: content.dueDate,
    buyerReference: content.buyerReference,
    orderReference: content.orderNumber,
    note: [content.note, content.reason ?? ''].filter(Boolean).join('\n'),
    specification: PEPPOL_SPECIFICATION,
    process: PEPPOL_PROCESS,
    ...(content.corrects && { preceding: { number: content.corrects.number, issueDate: content.corrects.issueDate } }),
    seller: partyOf(seller),
    buyer: partyOf(buyer),
    payment:
      iban === ''
        ? null
        : {
            means: currency === 'EUR' ? '58' : '30',
            remittance: content.number,
            iban,
            accountName: seller.name,
            bic: seller.bic,
          },
    // BR-CO-25: an amount due needs a due date or terms; a credit note of UBL has no due date.
    terms: content.corrects === undefined ? '' : `Set off against ${content.corrects.number}`,
    totals: {
      lineNet: money(total(figures.lines.map((line) => line.net))),
      allowances: money(sumOf(figures, (net) => net < 0n)),
      charges: money(sumOf(figures, (net) => net > 0n)),
      withoutTax: money(figures.totals.net),
      tax: money(figures.totals.taxAmount),
      withTax: money(figures.totals.gross),
      prepaid: money(figures.totals.prepaid),
      rounding: money(figures.totals.rounding),
      payable: money(figures.totals.payable),
    },
    adjustments: adjustmentsOf(content, figures),
    taxInHome:
      content.home === undefined || figures.home === undefined
        ? null
        : { currency: content.home.currency, tax: writeMoney(figures.home.taxAmount, content.home.currency) },
    breakdown: breakdownOf(content, figures).map(withoutNeedlessReason),
    lines: content.lines.map((line, i) =>
      lineOf(
        line,
        figures.lines[i] as LineResult,
        content.taxes.find((t) => t.code === line.tax) as FrozenTax,
        i,
        content,
      ),
    ),
  };
}

import type { Content, ContentLine } from '@/core/documents/content';
import type { AddressWindow, StyleColumn, StylePart } from '@/core/documents/style';
import { type DocumentStyle, PLAIN_STYLE } from '@/core/documents/style';
import { namedTaxes, taxRows } from '@/core/documents/taxRows';
import type { IsoDate } from '@/core/kernel/date';
import { ratioOf } from '@/core/kernel/decimal';
import { type Minor, minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { share } from '@/core/kernel/share';
import { writeIban } from '@/core/parties/iban';
import { LOCAL_FORMS, type LocalAccount } from '@/core/parties/localAccount';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { CalcResult } from '@/core/tax/calcTypes';
import { paymentCode } from './epc';
import { wordingOf } from './wording';
import { itemCodeName, lawTitle, taxNumberWords } from './wording/lawNames';
import { fill, type Variant, type Wording } from './wording/wording';
import { Writer } from './writer';

/** One printed line, all as text. */
export interface PrintedLine {
  readonly title: string;
  readonly detail: string;
  readonly supplied: string;
  readonly quantity: string;
  readonly price: string;
  readonly less: string;
  readonly tax: string;
  readonly value: string;
  /** Sum of the values down to this line, for what is carried forward. */
  readonly running: string;
}

export interface PrintedColumn {
  readonly field: keyof Omit<PrintedLine, 'detail' | 'running'>;
  readonly head: string;
  /** What stands in it is never parted on two lines, as dates in tables of few columns. */
  readonly whole?: true;
}

/** Label and value. */
export type PrintedFact = readonly [string, string];

/** Everything a printed document says, as text; layout adds nothing to it. Screen and PDF share it. */
export interface PrintedDocument {
  readonly language: string;
  readonly title: string;
  /** Across each page; empty unless it is a draft or was cancelled. The line below the title says when and why. */
  readonly stamp: string;
  readonly stampLine: string;
  readonly number: string;
  readonly currency: string;
  readonly seller: readonly string[];
  readonly buyer: readonly string[];
  readonly facts: readonly PrintedFact[];
  /** Columns that somebody used and the style shows; the first is the item, the last the value. */
  readonly columns: readonly PrintedColumn[];
  readonly valueHead: string;
  readonly lines: readonly PrintedLine[];
  /** The last one is the total; none on a delivery note. */
  readonly totals: readonly PrintedFact[];
  /** What the customer keeps back, and the money expected then; empty when it keeps nothing back. */
  readonly withheld: readonly PrintedFact[];
  /** The tax in home currency, for a document in another one; else empty. */
  readonly homeTax: string;
  readonly legends: readonly string[];
  /** Instalments, the discount for paying early, and what goes along. */
  readonly terms: readonly string[];
  readonly payment: readonly PrintedFact[];
  /** Text of a code for banking apps, and the words beside it. */
  readonly code: { readonly text: string; readonly words: string } | null;
  /** A slip at the foot of the last page. */
  readonly slip: { readonly title: string; readonly rows: readonly PrintedFact[] } | null;
  readonly note: string;
  readonly conditions: string;
  /** Closing line of the style. */
  readonly foot: string;
  /** Lines at the foot of every page. */
  readonly footer: string;
  /** Code of the seal; empty where none is printed. */
  readonly seal: string;
  readonly carried: string;
  readonly brought: string;
  /** With `{page}` and `{count}`. */
  readonly page: string;
  readonly accent: string;
  /** Window of the envelope that the buyer's address is to be seen in. */
  readonly window: AddressWindow;
  /** JPEG as a data address, or empty. */
  readonly logo: string;
}

/** How a document is to be printed. */
export interface PrintOptions {
  readonly style?: DocumentStyle;
  readonly variant?: Variant;
  /** Goes before the buyer's language. */
  readonly language?: string;
  /** Code of the seal; see `sealCode`. */
  readonly seal?: string;
  /** What a receipt says was received, oldest first. */
  readonly received?: readonly Received[];
  /** It is not issued yet: stands across each page. */
  readonly draft?: boolean;
  /** Names of the files that go along with it. */
  readonly attachments?: readonly string[];
  /** Stands across a document that was cancelled. */
  readonly cancelled?: { readonly on: IsoDate; readonly reason: string } | null;
}

/** Money that settled a document, by day and method, in the document's currency. */
export interface Received {
  readonly date: IsoDate;
  readonly method: PaymentMethod;
  readonly amount: Minor;
}

/** The document's own title. */
export function titleOf(
  content: Pick<Content, 'kind' | 'paidBy' | 'seller' | 'taxes' | 'advance'>,
  variant: Variant,
  wording: Wording,
): string {
  if (variant === 'delivery-note') return wording.deliveryNote;
  if (variant === 'receipt') return wording.receipt;
  if (content.advance === true && content.kind === 'invoice') return wording.advance;
  const own =
    content.kind === 'invoice' && content.paidBy !== undefined ? wording.cashSale : wording.titles[content.kind];
  return lawTitle(content, wording) ?? own;
}

function factsOf(
  content: Content,
  write: Writer,
  leaveOut: ReadonlySet<StylePart>,
  payable: boolean,
): readonly PrintedFact[] {
  const { wording } = write;
  const { kind, version = 1, supplyFrom, taxPoint, corrects, stage } = content;
  const versioned =
    version > 1 ? `${content.number}, ${fill(wording.version, { version: String(version) })}` : content.number;
  const span =
    supplyFrom === undefined
      ? null
      : fill(wording.suppliedSpan, { from: write.day(supplyFrom), until: write.day(taxPoint) });
  const facts: (readonly [string, string | undefined])[] = [
    [wording.number, versioned],
    [wording.issueDate, write.day(content.issueDate)],
    // A quote supplies nothing yet.
    span === null ? [wording.taxPoint, kind === 'quote' ? undefined : write.day(taxPoint)] : [wording.supplied, span],
    [wording.due, payable || kind === 'opening' ? write.day(content.dueDate) : undefined],
    [wording.holdsUntil, kind === 'quote' ? write.day(content.dueDate) : undefined],
    [
      wording.credits,
      corrects && fill(wording.creditsOf, { number: corrects.number, date: write.day(corrects.issueDate) }),
    ],
    [wording.reason, content.reason],
    [wording.quote, stage && fill(wording.stage, { number: stage.number, stage: stage.words })],
    [wording.yourReference, content.buyerReference],
    [wording.orderNumber, content.orderNumber],
    [wording.subject, leaveOut.has('subject') ? '' : content.subject],
    [wording.salesperson, leaveOut.has('salesperson') ? '' : content.salesperson],
    [
      wording.deliveredTo,
      content.delivery && !leaveOut.has('delivery') ? write.address(content.delivery).join(', ') : undefined,
    ],
    [wording.carrier, content.carrier],
    [wording.tracking, content.tracking],
  ];
  return facts.flatMap(([label, value]) => (value === undefined || value === '' ? [] : [[label, value] as const]));
}

function linesOf(content: Content, figures: CalcResult, write: Writer): readonly PrintedLine[] {
  const taxes = new Map(
    content.taxes.map((tax) => [
      tax.code,
      namedTaxes(tax)
        .map((one) => write.tax(one))
        .join(' + '),
    ]),
  );
  let running = NOTHING;
  const lessOf = ({ discount }: ContentLine): string => {
    if (discount === undefined) return '';
    return 'percent' in discount ? `${write.number(discount.percent)} %` : write.price(discount.amount);
  };
  return content.lines.map((line, i): PrintedLine => {
    const [title = '', ...more] = line.description.split('\n');
    const value = figures.lines[i]?.value;
    running = plus(running, value ?? NOTHING);
    return {
      title,
      detail: [...more, ...(line.itemCode ? [`${itemCodeName(content, write.wording)} ${line.itemCode}`] : [])].join(
        '\n',
      ),
      supplied: line.supplied === undefined ? '' : write.day(line.supplied),
      quantity: write.quantity(line.quantity, line.unit),
      price: write.price(line.unitPrice),
      less: lessOf(line),
      tax: taxes.get(line.tax) ?? line.tax,
      value: value === undefined ? '' : write.money(value),
      running: write.money(running),
    };
  });
}

function columnsOf(
  content: Content,
  lines: readonly PrintedLine[],
  variant: Variant,
  style: DocumentStyle,
  wording: Wording,
): readonly PrintedColumn[] {
  const hidden = new Set<StyleColumn>(style.leaveOutColumns);
  const all: readonly (PrintedColumn & { readonly shown: boolean })[] = [
    { field: 'title', head: wording.item, shown: true },
    {
      field: 'supplied',
      head: wording.supplied,
      shown: lines.some((line) => line.supplied !== '') && !hidden.has('supplied'),
    },
    { field: 'quantity', head: wording.quantity, shown: variant === 'delivery-note' || !hidden.has('quantity') },
    { field: 'price', head: wording.price, shown: variant !== 'delivery-note' && !hidden.has('price') },
    {
      field: 'less',
      head: wording.less,
      shown: variant !== 'delivery-note' && lines.some((line) => line.less !== '') && !hidden.has('discount'),
    },
    { field: 'tax', head: wording.tax, shown: variant !== 'delivery-note' && !hidden.has('tax') },
    {
      field: 'value',
      head: content.priceMode === 'net' ? wording.net : wording.withTax,
      shown: variant !== 'delivery-note',
    },
  ];
  return all.filter(({ shown }) => shown).map(({ field, head }) => ({ field, head }));
}

function totalsOf(content: Content, figures: CalcResult, write: Writer): readonly PrintedFact[] {
  const { wording } = write;
  const { totals } = figures;
  const adjusted = (content.adjustments ?? []).map(({ id, text, percent }): PrintedFact => {
    const parts = figures.adjustments.filter((part) => part.id === id);
    const named = wording.adjustments[text] ?? text;
    const words = percent === undefined ? named : `${named}, ${write.number(percent)} %`;
    return [words, write.money(total(parts.map((part) => part.value)))];
  });
  return [
    ...adjusted,
    [wording.net, write.money(totals.net)],
    ...taxRows(content.taxes, figures.groups).map(
      (row): PrintedFact => [
        fill(wording.taxOn, { tax: write.tax(row), base: write.money(row.base) }),
        write.money(row.amount),
      ],
    ),
    ...(totals.rounding === 0n ? [] : [[wording.rounded, write.money(totals.rounding)] as const]),
    [wording.total, write.money(totals.payable)],
  ];
}

function withheldOf(content: Content, figures: CalcResult, write: Writer): readonly PrintedFact[] {
  const withheld = figures.withholding.filter(({ amount }) => amount !== NOTHING);
  if (withheld.length === 0) return [];
  const nameOf = (id: string) => content.withholding?.find((type) => type.id === id)?.name ?? id;
  return [
    ...withheld.map(
      (part): PrintedFact => [
        fill(write.wording.taxOn, { tax: nameOf(part.id), base: write.money(part.base) }),
        write.money(negated(part.amount)),
      ],
    ),
    [write.wording.expected, write.money(figures.totals.expectedCash)],
  ];
}

/** Each instalment with its amount; the parts add up to what is payable. */
function termsOf(content: Content, figures: CalcResult, write: Writer): readonly string[] {
  const { instalments = [], settlement } = content;
  const weights = instalments.map(({ percent }) => {
    const { n, d } = ratioOf(percent);
    return (n * 10_000n) / d;
  });
  const amounts = instalments.length === 0 ? [] : share(figures.totals.payable, weights);
  const parts = instalments.map(({ percent, due }, i) =>
    fill(write.wording.instalment, {
      percent: write.number(percent),
      date: write.day(due),
      amount: `${write.money(minor(amounts[i] ?? 0n))} ${content.currency}`,
    }),
  );
  if (settlement === undefined) return parts;
  const { percent, until } = settlement;
  return [...parts, fill(write.wording.settlement, { percent: write.number(percent), date: write.day(until) })];
}

/** Where to pay to, that it will be collected, or that it was paid. */
function paymentOf(
  content: Content,
  write: Writer,
  payable: boolean,
  received: readonly Received[],
): readonly PrintedFact[] {
  const { seller, kind, paidBy, debit } = content;
  const { wording } = write;
  const paidOn = (date: IsoDate, method: PaymentMethod) =>
    fill(wording.paidBy, { date: write.day(date), method: wording.methods[method] ?? method });
  if (kind === 'invoice' && paidBy !== undefined) return [[paidOn(content.issueDate, paidBy), '']];
  if (received.length > 0)
    return received.map(({ date, method, amount }) => [
      paidOn(date, method),
      `${write.money(amount)} ${content.currency}`,
    ]);
  if (!payable) return [];
  if (debit !== undefined)
    return [
      [wording.collected, fill(wording.collectedOn, { date: write.day(content.dueDate), iban: writeIban(debit.iban) })],
      [wording.mandate, debit.reference],
      ...(debit.creditorId === '' ? [] : [[wording.creditorId, debit.creditorId] as const]),
      [wording.reference, content.number],
    ];
  const link = content.payLink === undefined ? [] : [[wording.payByCard, content.payLink] as const];
  if (seller.iban === '' && seller.local === undefined) return link;
  return [
    [wording.payTo, seller.name],
    ...(seller.iban === '' ? [] : [['IBAN', writeIban(seller.iban)] as const]),
    ...localRows(seller.local, wording),
    ...(seller.bic === '' ? [] : [['BIC', seller.bic] as const]),
    [wording.reference, content.number],
    [wording.due, write.day(content.dueDate)],
    ...link,
  ];
}

/** An account without IBAN, by what its banks call it. */
export function localRows(local: LocalAccount | undefined, wording: Wording): readonly PrintedFact[] {
  if (local === undefined) return [];
  return [
    [LOCAL_FORMS[local.kind].called, local.code],
    [wording.account, local.number],
  ];
}

function homeTaxOf(content: Content, figures: CalcResult, write: Writer): string {
  const { home } = content;
  if (home === undefined || figures.home === undefined) return '';
  return fill(write.wording.taxInHome, {
    currency: home.currency,
    amount: write.money(figures.home.taxAmount, home.currency),
    rate: write.number(home.perHome),
    foreign: content.currency,
    date: write.day(home.on),
  });
}

/** A document in words and printed figures. */
export function printed(content: Content, figures: CalcResult, options: PrintOptions = {}): PrintedDocument {
  const {
    style = PLAIN_STYLE,
    variant = 'document',
    language = content.buyer.language,
    seal = '',
    received = [],
    draft = false,
    attachments = [],
    cancelled = null,
  } = options;
  const { currency, seller, buyer } = content;
  const write = new Writer(language, currency);
  const { wording } = write;
  const leaveOut = new Set(style.leaveOut);
  const own = style.words.find((words) => words.language === wording.language);
  const lines = linesOf(content, figures, write);
  const columns = columnsOf(content, lines, variant, style, wording);
  const goods = variant === 'delivery-note';
  const owed = content.paidBy === undefined && content.kind === 'invoice' && cancelled === null;
  const payable = owed && variant === 'document';
  const payment = goods ? [] : paymentOf(content, write, payable, variant === 'receipt' ? received : []);
  const transferred = payable && content.debit === undefined;
  // Where banking apps have no code of their own, phones read the page of card payments.
  const code =
    transferred && style.payment !== 'account' ? (paymentCode(content, figures) ?? content.payLink ?? null) : null;
  const title = titleOf(content, variant, wording);
  const shipTo = write.address(goods && content.delivery !== undefined ? content.delivery : buyer.address);
  const numberOf = (number: string, country: string) => taxNumberWords(number, country, content.taxPoint, wording);
  return {
    language: wording.language,
    title:
      variant === 'document' && content.kind === 'invoice' && own !== undefined && own.title !== '' ? own.title : title,
    stamp: cancelled !== null ? wording.cancelled : draft ? wording.draft : '',
    stampLine:
      cancelled === null ? '' : fill(wording.cancelledOn, { date: write.day(cancelled.on), reason: cancelled.reason }),
    number: content.number,
    currency,
    seller: [
      seller.name,
      ...write.address(seller.address),
      seller.taxNumber && numberOf(seller.taxNumber, seller.taxCountry ?? seller.address.country),
      ...(seller.legalId && !leaveOut.has('companyNumber')
        ? [fill(wording.companyNumber, { number: seller.legalId })]
        : []),
      ...(leaveOut.has('phone') ? [] : [seller.phone]),
      ...(leaveOut.has('email') ? [] : [seller.email]),
    ].filter(Boolean),
    buyer: [
      buyer.name,
      ...(buyer.contact === undefined ? [] : [fill(wording.attention, { name: buyer.contact })]),
      ...shipTo,
      ...(buyer.taxNumber ? [numberOf(buyer.taxNumber, buyer.address.country)] : []),
    ],
    facts: factsOf(content, write, leaveOut, payable),
    columns,
    valueHead: content.priceMode === 'net' ? wording.net : wording.withTax,
    lines,
    totals: goods ? [] : totalsOf(content, figures, write),
    withheld: goods ? [] : withheldOf(content, figures, write),
    homeTax: goods ? '' : homeTaxOf(content, figures, write),
    legends: goods ? [] : [...new Set(content.taxes.map((tax) => tax.legend).filter(Boolean))],
    terms: [
      ...(variant !== 'document' ? [] : termsOf(content, figures, write)),
      ...(attachments.length === 0 ? [] : [`${wording.attachments}: ${attachments.join(', ')}`]),
    ],
    payment,
    code: code === null ? null : { text: code, words: code === content.payLink ? wording.payByCard : wording.scan },
    slip:
      transferred && style.payment === 'slip' && seller.iban !== ''
        ? {
            title: wording.slip,
            rows: [
              [wording.payTo, seller.name],
              ['IBAN', writeIban(seller.iban)],
              [wording.total, `${write.money(figures.totals.expectedCash)} ${currency}`],
              [wording.reference, content.number],
              [wording.payer, buyer.name],
            ],
          }
        : null,
    note: content.note,
    conditions: content.conditions ?? '',
    foot: own?.foot ?? '',
    footer: style.footer?.trim() ?? '',
    seal: seal === '' || leaveOut.has('seal') ? '' : fill(wording.seal, { code: seal }),
    carried: wording.carried,
    brought: wording.brought,
    page: wording.page,
    accent: style.accent,
    window: style.window ?? '',
    logo: style.logo,
  };
}

/** File name of a printed document in the customer's language: `Rechnung-INV-2026-0142.pdf`, `Lieferschein-…`. */
export function printName(
  { kind, number, buyer }: Pick<Content, 'kind' | 'number' | 'buyer'>,
  variant: Variant = 'document',
): string {
  const { titles, deliveryNote, receipt } = wordingOf(buyer.language);
  const title = { document: titles[kind], 'delivery-note': deliveryNote, receipt }[variant];
  return fileName({ number: `${title}-${number}` }, 'pdf');
}

/** File name for downloads: `INV-2026-0142.xml`. */
export function fileName(content: Pick<Content, 'number'>, extension: 'pdf' | 'xml'): string {
  return `${content.number.replace(/[^\p{L}\p{N}._-]/gu, '-')}.${extension}`;
}

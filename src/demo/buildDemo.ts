import type { Moment } from '@/core/book/changes';
import { exchangeRateId } from '@/core/currency/exchangeRate';
import {
  blankAdjustment,
  blankDraft,
  type Draft,
  type DraftAdjustment,
  type DraftLine,
  QUOTE_HOLDS,
  TYPED_CLASS,
} from '@/core/documents/draft';
import { decideTaxes } from '@/core/documents/lineTax';
import { type DocumentStyle, PLAIN_STYLE } from '@/core/documents/style';
import { currency } from '@/core/kernel/currency';
import { addDays, addMonths, type IsoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { type Minor, minor } from '@/core/kernel/money';
import type { Result } from '@/core/kernel/result';
import { moneySample, readTypedMoney } from '@/core/kernel/typedMoney';
import { accountFor, FIRST_CHART } from '@/core/ledger/account';
import { spanOf } from '@/core/returns/calendar';
import { eInvoiceJob } from '@/jobs/eInvoiceRound';
import { simulatedAccessPoint } from '@/standins/accessPoint';
import { sendEInvoices } from '@/store/delivery/actions/sending';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { loadBook, loadSetting, present } from '@/store/load';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { type Action, perform } from '@/store/perform';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { keepAnswer, sendQuoteDraft } from '@/store/sales/actions/quotes';
import type { BookDb } from '@/store/schema';
import { begin, changeBusiness, changeCustomer, changeItem } from '@/store/setup/actions/setup';
import {
  addStarterPack,
  keepCertificate,
  keepExchangeRate,
  keepRegistration,
  keepStyle,
} from '@/store/setup/actions/taxSetup';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { SCENARIO, type ScenarioLine, type Step, type When } from './scenario';
import { DEMO_CERTIFICATES, DEMO_CUSTOMERS, DEMO_ITEMS, demoBeginning, washingtonRegistration } from './setup';

const OPERATOR = 'Aoife (sample)';

/** Performs the scenario through the real actions. The same day always gives the same book. */
class DemoBuilder {
  private ids = 0;
  private readonly documents = new Map<string, string>();
  private readonly numbers = new Map<string, string>();
  private readonly accessPoint = simulatedAccessPoint();
  private readonly current: IsoDate;

  constructor(
    private readonly db: BookDb,
    private readonly today: IsoDate,
  ) {
    this.current = spanOf('two-monthly', today).start;
  }

  /** Start of a period counted from the current one. */
  start(period: number): IsoDate {
    return addMonths(this.current, 2 * period);
  }

  /** The day a step happens, never after today. */
  private day({ period, day }: When): IsoDate {
    const date = addDays(this.start(period), day);
    return date < this.today ? date : this.today;
  }

  private moment(today: IsoDate): Moment {
    return {
      now: `${today}T09:00:00.000Z`,
      today,
      operator: OPERATOR,
      newId: () => `demo-${String(++this.ids).padStart(5, '0')}`,
    };
  }

  async act<Input, Value>(action: Action<Input, Value>, input: Input, today: IsoDate): Promise<Value> {
    const result: Result<Value> = await perform(this.db, action, input, this.moment(today));
    if (!result.ok) throw new Error(`demo: ${action.name} refused: ${JSON.stringify(result.refusals)}`);
    return result.value;
  }

  private draftLine(line: ScenarioLine, id: string): DraftLine {
    const item = DEMO_ITEMS.find((i) => i.id === line.item);
    return {
      id,
      itemId: item?.id ?? '',
      description: [item?.name ?? line.text ?? '', item?.description ?? ''].filter(Boolean).join('\n'),
      quantity: line.quantity,
      unit: item?.unit ?? 'C62',
      price: line.price ?? item?.price ?? '',
      discount: line.discount ?? '',
      taxClass: item?.taxClass ?? TYPED_CLASS,
      supply: item?.supply ?? line.supply ?? 'goods',
      priceFrom: '',
      supplied: '',
      of: '',
      taxCode: line.code ?? '',
      taxByHand: line.code !== undefined,
      account: item?.account ?? '4100',
    };
  }

  private async writeDraft(step: Extract<Step, { kind: 'invoice' | 'draft' | 'quote' }>, day: IsoDate): Promise<Draft> {
    const customer = present(
      DEMO_CUSTOMERS.find((c) => c.id === step.customer),
      step.customer,
    );
    const draft: Draft = {
      ...blankDraft(`demo-${step.name}`, step.kind === 'quote' ? 'quote' : 'invoice', 'ie-vat', day),
      customerId: customer.id,
      taxPoint: step.taxPoint === undefined ? '' : this.day(step.taxPoint),
      due: step.kind === 'quote' ? QUOTE_HOLDS : customer.terms,
      subject: step.subject ?? '',
      tags: step.tags ?? [],
      currency: step.currency ?? '',
      adjustments: step.discount === undefined ? [] : [discountOf(step.name, step.discount)],
      ...this.originOf(step),
      priceMode: step.priceMode ?? 'net',
      buyerReference: step.buyerReference ?? '',
      orderNumber: step.orderNumber ?? '',
      note: step.note ?? '',
      lines: step.lines.map((line, i) => this.draftLine(line, `${step.name}-${i + 1}`)),
    };
    const setting = await loadSetting(this.db, draft, customer);
    return this.act(keepDraft, decideTaxes(draft, customer, setting), day);
  }

  /** A new version stays in the family of the one it replaces. */
  private originOf(step: { readonly replaces?: string }): Partial<Draft> {
    if (step.replaces === undefined) return {};
    const documentId = this.idOf(step.replaces);
    return {
      familyId: documentId,
      origin: { how: 'version', documentId, number: this.numbers.get(documentId) ?? '', words: '', by: 'sum' },
    };
  }

  private idOf(name: string): string {
    return present(this.documents.get(name), name);
  }

  private async receive(step: Extract<Step, { kind: 'receipt' }>, day: IsoDate): Promise<void> {
    const document = present(await this.db.documents.get(this.idOf(step.of)), step.of);
    const { currency } = document.content;
    const read = (typed: string): Minor => {
      const amount = readTypedMoney(typed, currency);
      if (amount === null) throw new Error(`demo: ${typed} is not like ${moneySample(currency)}`);
      return amount;
    };
    const sum = step.amount === undefined ? document.open : read(step.amount);
    const method = step.reference === 'Card' ? 'card' : step.reference === 'Cash' ? 'cash' : 'bank';
    const withheld = (step.withheld ?? []).map(({ typeId, amount }) => ({ typeId, amount: read(amount) }));
    const money = sum > document.open ? document.open : sum;
    await this.act(
      recordReceipt,
      {
        customerId: document.customerId,
        date: day,
        reference: step.reference,
        currency,
        parts: [{ method, amount: sum }],
        to: money === 0n ? [] : [{ documentId: document.id, number: document.number, money, withheld }],
      },
      day,
    );
  }

  /** Sends an e-invoice through the simulated access point, and hears what is answered within the hour. */
  private async send(name: string, day: IsoDate): Promise<void> {
    await this.act(sendEInvoices, { documentIds: [this.idOf(name)] }, day);
    for (const time of ['09:00', '09:10']) {
      const round = await eInvoiceJob(this.accessPoint).round(this.db, () => ({
        ...this.moment(day),
        now: `${day}T${time}:00.000Z`,
      }));
      if (!round.ok) throw new Error(`demo: sending was refused: ${JSON.stringify(round.refusals)}`);
    }
  }

  async perform(step: Step): Promise<void> {
    const day = this.day(step.when);
    switch (step.kind) {
      case 'draft':
        await this.writeDraft(step, day);
        return;
      case 'invoice': {
        const draft = await this.writeDraft(step, day);
        const { id } = await this.act(issueInvoice, { draftId: draft.id }, day);
        this.documents.set(step.name, id);
        return;
      }
      case 'quote': {
        const draft = await this.writeDraft(step, day);
        const { id, number } = await this.act(sendQuoteDraft, { draftId: draft.id }, day);
        this.documents.set(step.name, id);
        this.numbers.set(id, number);
        return;
      }
      case 'accept': {
        const answer = { kind: 'accepted', on: day, words: step.by } as const;
        await this.act(keepAnswer, { documentId: this.idOf(step.of), answer }, day);
        return;
      }
      case 'receipt':
        return this.receive(step, day);
      case 'credit':
        await this.act(creditInvoice, { documentId: this.idOf(step.of), date: day, reason: step.reason }, day);
        return;
      case 'send':
        return this.send(step.of, day);
      case 'file':
        await this.act(fileReturn, { registrationId: 'ie-vat', start: this.start(step.period), note: '' }, day);
        return;
      case 'journal': {
        const sides = step.sides.map(([account, amount]) => ({ account, amount: minor(amount) }));
        await this.act(writeJournal, { date: day, text: step.text, sides }, day);
      }
    }
  }
}

/** A discount on all lines. */
function discountOf(name: string, percent: string): DraftAdjustment {
  return {
    ...blankAdjustment(`${name}-discount`, 'allowance', accountFor(FIRST_CHART, 'discounts')),
    text: 'Discount for four gauges',
    amount: `${percent}%`,
  };
}

const HOUSE_STYLE: DocumentStyle = {
  ...PLAIN_STYLE,
  id: 'house',
  name: 'Corran Point',
  accent: '#9A4320',
  payment: 'code',
  words: [{ language: 'en', title: '', foot: 'Thank you for trusting our instruments. Everything here is a sample.' }],
};

/** Dollars for one euro, made up. */
const DOLLAR_RATES = (first: IsoDate) =>
  [
    [first, '1.0850'],
    [addMonths(first, 2), '1.0925'],
    [addMonths(first, 4), '1.1040'],
  ] as const;

/** Fills an empty book with the demo scenario, dated back from `today`. */
export async function buildDemo(db: BookDb, today: IsoDate): Promise<void> {
  const builder = new DemoBuilder(db, today);
  const first = builder.start(-2);
  await builder.act(begin, demoBeginning(first), first);
  for (const id of ['IE', 'US-WA', 'EU', 'KE']) await builder.act(addStarterPack, { id }, first);
  const washington = washingtonRegistration(builder.start(0));
  await builder.act(keepRegistration, { value: washington, isNew: true }, first);
  for (const [date, perHome] of DOLLAR_RATES(first)) {
    const value = { id: '', currency: currency('USD'), date, perHome: decimal(perHome), source: 'sample' };
    await builder.act(keepExchangeRate, { value: { ...value, id: exchangeRateId('USD', date) }, isNew: true }, first);
  }
  const crowns = { currency: currency('NOK'), date: first, perHome: decimal('11.6400'), source: 'sample' };
  await builder.act(keepExchangeRate, { value: { ...crowns, id: exchangeRateId('NOK', first) }, isNew: true }, first);
  await builder.act(keepStyle, { value: HOUSE_STYLE, isNew: true }, first);
  const { business } = await loadBook(db);
  const housed = { value: { ...business, styleId: HOUSE_STYLE.id }, before: business };
  await builder.act(changeBusiness, housed, first);
  for (const customer of DEMO_CUSTOMERS) await builder.act(changeCustomer, customer, first);
  for (const value of DEMO_CERTIFICATES) await builder.act(keepCertificate, { value, isNew: true }, first);
  for (const item of DEMO_ITEMS) await builder.act(changeItem, item, first);
  for (const step of SCENARIO) await builder.perform(step);
}

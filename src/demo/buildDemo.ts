import type { Moment } from '@/core/decisions/changes';
import type { Draft, DraftLine } from '@/core/documents/draft';
import { addDays, addMonths, type IsoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import type { Result } from '@/core/kernel/result';
import { spanOf } from '@/core/periods/calendar';
import { moneySample, readTypedMoney } from '@/core/receipts/receipt';
import { determineCode } from '@/core/tax/determine';
import { creditInvoice } from '@/store/actions/creditInvoice';
import { keepDraft } from '@/store/actions/drafts';
import { fileReturn } from '@/store/actions/fileReturn';
import { issueInvoice } from '@/store/actions/issueInvoice';
import { recordReceipt } from '@/store/actions/recordReceipt';
import { begin, changeCustomer, changeItem } from '@/store/actions/setup';
import { writeJournal } from '@/store/actions/writeJournal';
import { present } from '@/store/load';
import { type Action, perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';
import { SCENARIO, type ScenarioLine, type Step, type When } from './scenario';
import { DEMO_BUSINESS, DEMO_CUSTOMERS, DEMO_ITEMS, demoRegistration, IRISH_CODES } from './setup';

const OPERATOR = 'Aoife (sample)';

/** Performs the scenario through the real actions. The same day always gives the same book. */
class DemoBuilder {
  private ids = 0;
  private readonly documents = new Map<string, string>();
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

  private draftLine(line: ScenarioLine, customerId: string, id: string): DraftLine {
    const item = DEMO_ITEMS.find((i) => i.id === line.item);
    const customer = present(
      DEMO_CUSTOMERS.find((c) => c.id === customerId),
      customerId,
    );
    const own = determineCode(IRISH_CODES, customer, item?.taxClass ?? '').code?.id ?? '';
    return {
      id,
      itemId: item?.id ?? '',
      description: [item?.name ?? line.text ?? '', item?.description ?? ''].filter(Boolean).join('\n'),
      quantity: line.quantity,
      unit: item?.unit ?? 'C62',
      price: line.price ?? item?.price ?? '',
      discount: line.discount ?? '',
      taxCode: line.code ?? own,
      taxByHand: line.code !== undefined,
      account: item?.account ?? '4100',
    };
  }

  private async writeDraft(step: Extract<Step, { kind: 'invoice' | 'draft' }>, day: IsoDate): Promise<Draft> {
    const customer = present(
      DEMO_CUSTOMERS.find((c) => c.id === step.customer),
      step.customer,
    );
    const draft: Draft = {
      id: `demo-${step.name}`,
      revision: 0,
      registrationId: 'ie-vat',
      customerId: customer.id,
      issueDate: day,
      taxPoint: step.taxPoint === undefined ? '' : this.day(step.taxPoint),
      due: customer.terms,
      priceMode: step.priceMode ?? 'net',
      buyerReference: step.buyerReference ?? '',
      orderNumber: step.orderNumber ?? '',
      note: step.note ?? '',
      lines: step.lines.map((line, i) => this.draftLine(line, customer.id, `${step.name}-${i + 1}`)),
      savedAt: '',
      keys: [],
    };
    return this.act(keepDraft, draft, day);
  }

  private idOf(name: string): string {
    return present(this.documents.get(name), name);
  }

  private async receive(step: Extract<Step, { kind: 'receipt' }>, day: IsoDate): Promise<void> {
    const document = present(await this.db.documents.get(this.idOf(step.of)), step.of);
    const { currency } = document.content;
    const amount = step.amount === undefined ? document.open : readTypedMoney(step.amount, currency);
    if (amount === null) throw new Error(`demo: ${step.amount} is not like ${moneySample(currency)}`);
    const method = step.reference === 'Card' ? 'card' : step.reference === 'Cash' ? 'cash' : 'bank';
    const allocations = [{ documentId: document.id, number: document.number, amount }];
    await this.act(
      recordReceipt,
      { customerId: document.customerId, date: day, method, reference: step.reference, allocations },
      day,
    );
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
      case 'receipt':
        return this.receive(step, day);
      case 'credit':
        await this.act(creditInvoice, { documentId: this.idOf(step.of), date: day, reason: step.reason }, day);
        return;
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

/** Fills an empty book with the demo scenario, dated back from `today`. */
export async function buildDemo(db: BookDb, today: IsoDate): Promise<void> {
  const builder = new DemoBuilder(db, today);
  const first = builder.start(-2);
  await builder.act(
    begin,
    { business: DEMO_BUSINESS, registration: demoRegistration(first), codes: IRISH_CODES },
    first,
  );
  for (const customer of DEMO_CUSTOMERS) await builder.act(changeCustomer, customer, first);
  for (const item of DEMO_ITEMS) await builder.act(changeItem, item, first);
  for (const step of SCENARIO) await builder.perform(step);
}

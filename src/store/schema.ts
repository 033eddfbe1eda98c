import Dexie, { type EntityTable, type Table } from 'dexie';
import type { AuditEvent, Book, CustomerRow, DecisionTable, ItemRow, PlaceRow } from '@/core/decisions/changes';
import type { Attachment } from '@/core/documents/attachment';
import type { SavedView } from '@/core/documents/documentFilter';
import type { Draft } from '@/core/documents/draft';
import type { ExchangeRate } from '@/core/documents/exchangeRate';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Look } from '@/core/documents/look';
import type { PriceList } from '@/core/documents/priceList';
import type { Series } from '@/core/documents/series';
import type { DocumentStyle } from '@/core/documents/style';
import type { Transmission } from '@/core/exchange/transmission';
import type { Minor } from '@/core/kernel/money';
import type { Account } from '@/core/ledger/account';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import type { AccountMonth } from '@/core/ledger/trialBalance';
import type { Certificate } from '@/core/parties/certificate';
import type { TaxBalance, TaxPeriod } from '@/core/periods/return';
import type { TaxEntry } from '@/core/periods/taxEntry';
import type { Receipt } from '@/core/receipts/receipt';
import type { Jurisdiction } from '@/core/tax/jurisdiction';
import type { Registration } from '@/core/tax/registration';
import type { Tax } from '@/core/tax/tax';
import type { TaxCode } from '@/core/tax/taxCode';
import type { WithholdingType } from '@/core/tax/withholding';
import { upgradeToV2, upgradeToV3, upgradeToV4, upgradeToV5 } from './upgrade';
import type { VocabularyWord } from './vocabulary';

/** What a customer owes in all, in home currency: the sum of its documents' open amounts. Kept. */
export interface CustomerBalance {
  readonly customerId: string;
  readonly open: Minor;
}

/**
 * The book in the browser. The tables up to `audit` are the truth; the last four are balances and words kept
 * up in the same transaction (see `write.ts`) and can be rebuilt from the truth at any time.
 */
export class BookDb extends Dexie {
  declare book: EntityTable<Book, 'id'>;
  declare registrations: EntityTable<Registration, 'id'>;
  declare jurisdictions: EntityTable<Jurisdiction, 'id'>;
  declare taxes: EntityTable<Tax, 'id'>;
  declare places: EntityTable<PlaceRow, 'id'>;
  declare decisionTables: EntityTable<DecisionTable, 'id'>;
  declare withholdingTypes: EntityTable<WithholdingType, 'id'>;
  declare certificates: EntityTable<Certificate, 'id'>;
  declare priceLists: EntityTable<PriceList, 'id'>;
  declare exchangeRates: EntityTable<ExchangeRate, 'id'>;
  declare taxCodes: EntityTable<TaxCode, 'id'>;
  declare customers: EntityTable<CustomerRow, 'id'>;
  declare items: EntityTable<ItemRow, 'id'>;
  declare accounts: EntityTable<Account, 'code'>;
  declare series: EntityTable<Series, 'id'>;
  declare styles: EntityTable<DocumentStyle, 'id'>;
  declare looks: EntityTable<Look, 'id'>;
  declare savedViews: EntityTable<SavedView, 'id'>;
  declare attachments: EntityTable<Attachment, 'id'>;
  declare drafts: EntityTable<Draft, 'id'>;
  declare documents: EntityTable<IssuedDocument, 'id'>;
  declare receipts: EntityTable<Receipt, 'id'>;
  declare journal: EntityTable<JournalEntry, 'id'>;
  declare journalLines: EntityTable<JournalLine, 'id'>;
  declare taxEntries: EntityTable<TaxEntry, 'id'>;
  declare taxPeriods: EntityTable<TaxPeriod, 'id'>;
  declare transmissions: EntityTable<Transmission, 'id'>;
  declare audit: EntityTable<AuditEvent, 'id'>;
  declare accountMonths: Table<AccountMonth, [string, string]>;
  declare taxRows: Table<TaxBalance, string[]>;
  declare customerBalances: EntityTable<CustomerBalance, 'customerId'>;
  declare vocabulary: EntityTable<VocabularyWord, 'word'>;

  constructor(name = 'able-ledger') {
    super(name);
    // Each later version states only what changed, with an upgrade and a test from the one before.
    this.version(1).stores({
      book: 'id',
      registrations: 'id',
      taxCodes: 'id',
      customers: 'id, name, *keys',
      items: 'id, name, *keys',
      accounts: 'code',
      series: 'id',
      drafts: 'id, savedAt, *keys',
      documents:
        'id, [issueDate+number], [periodId+number], [customerId+isOpen], [isOpen+kind+dueDate], [kind+position], number, *keys',
      receipts: 'id, [date+number], customerId, *keys',
      journal: 'id, [date+id], sourceId',
      journalLines: 'id, entryId, [account+date+id], [account+taxPeriodId+date], taxPeriodId',
      taxEntries: 'id, [periodId+code+percent+documentNumber], documentId',
      taxPeriods: 'id, [registrationId+start]',
      audit: 'id, at',
      accountMonths: '[account+month], month',
      taxBalances: '[periodId+code+percent], periodId',
      customerBalances: 'customerId',
    });
    // Jurisdictions, places and the decision table; tax entries by jurisdiction and tax.
    this.version(2)
      .stores({
        jurisdictions: 'id, parentId',
        taxes: 'id, jurisdictionId',
        places: 'id, name, *keys',
        decisionTables: 'id',
        withholdingTypes: 'id',
        certificates: 'id, customerId, until',
        priceLists: 'id',
        exchangeRates: 'id, [currency+date]',
        documents:
          'id, [issueDate+number], [periodId+number], [customerId+isOpen], [customerId+issueDate], [isOpen+kind+dueDate], [kind+position], number, *keys',
        taxEntries:
          'id, [periodId+code+percent+jurisdictionId+taxId+kind+documentNumber], documentId, [taxId+taxPoint]',
        // A primary key can't change in place; the balances are rebuilt in a table of their own name.
        taxBalances: null,
        taxRows: '[periodId+code+percent+jurisdictionId+taxId+kind], periodId',
      })
      .upgrade(upgradeToV2);
    // Quotes, families, foreign currency, styles; documents are found by whole words and their vocabulary.
    this.version(3)
      .stores({
        customers: 'id, name, parentId, *keys',
        drafts: 'id, savedAt, familyId, customerId, *keys',
        documents:
          'id, [issueDate+number], [periodId+number], [customerId+isOpen], [customerId+issueDate], [isOpen+kind+dueDate], [kind+issueDate], [state+issueDate], [seriesId+position], amountKey, familyId, number, *tags, *words',
        receipts: 'id, [date+number], customerId, *settles, *keys',
        styles: 'id',
        savedViews: 'id, name',
        attachments: 'id, ownerId',
        audit: 'id, at, *about',
        vocabulary: 'word, *endings',
      })
      .upgrade(upgradeToV3);
    // E-invoices on their way, and files that go out with them.
    this.version(4).stores({ transmissions: 'id, documentId, dueAt, [phase+since]' }).upgrade(upgradeToV4);
    // Looks that documents were issued in; see `upgradeV4.ts` for what else came.
    this.version(5).stores({ looks: 'id', journal: 'id, [date+id], sourceId, [kind+date]' }).upgrade(upgradeToV5);
  }
}

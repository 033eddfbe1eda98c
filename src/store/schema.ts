import Dexie, { type DexieOptions, type EntityTable, type Table } from 'dexie';
import { type BookRows, type BookTable, tablesOfVersion } from '@/core/book/tables';
import { UPGRADES } from '@/core/files/upgrades';
import type { Minor } from '@/core/kernel/money';
import type { AccountMonth } from '@/core/ledger/accountMonth';
import type { TaxBalance } from '@/core/returns/return';
import { bringUp } from './upgrade';
import type { VocabularyWord } from './vocabulary';

/** What a customer owes in all, in home currency: the sum of its documents' open amounts. Kept. */
export interface CustomerBalance {
  readonly customerId: string;
  readonly open: Minor;
}

/** The library counts ten steps of the browser's database for one of its versions. */
const NATIVE_STEP = 10;

type BookTables = { readonly [T in BookTable]: Table<BookRows[T], string> };

/** The library's database with a field for each table of the book, as it makes them when it runs. */
const DatabaseOfTables = Dexie as unknown as new (name: string, options: DexieOptions) => Dexie & BookTables;

/**
 * The book in the browser. Its tables are those of `core/book/tables`; beside them stand balances and words that are
 * kept up in the same transaction (see `write.ts`) and can be rebuilt from the truth at any time.
 */
export class BookDb extends DatabaseOfTables {
  declare accountMonths: Table<AccountMonth, [string, string]>;
  declare taxRows: Table<TaxBalance, string[]>;
  declare customerBalances: EntityTable<CustomerBalance, 'customerId'>;
  declare vocabulary: EntityTable<VocabularyWord, 'word'>;

  constructor(name = 'able-ledger') {
    // What was read last is not kept a second time: it costs more on each write than it saves.
    super(name, { cache: 'disabled' });
    this.version(1).stores(tablesOfVersion(1));
    for (const i of UPGRADES.keys())
      this.version(i + 2)
        .stores(tablesOfVersion(i + 2))
        .upgrade((transaction) => bringUp(transaction, i + 1));
    // The library opens what a later version wrote, too; this program would not know what it writes into.
    const known = () => {
      if (Math.floor(this.backendDB().version / NATIVE_STEP) > this.verno)
        throw new Dexie.VersionError('This book was written by a later version of the program.');
    };
    const always = true;
    this.on('ready', known, always);
  }
}

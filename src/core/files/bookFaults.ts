import { type BookContent, type BookTable, descriptorOf } from '@/core/book/tables';
import { figuresOf } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { sealOf } from '@/core/documents/seal';
import { sameCanonical } from '@/core/kernel/canonical';
import { digest } from '@/core/kernel/digest';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { FIRST_CHART } from '@/core/ledger/account';
import { BOOK_RELATIONS } from './bookRelations';
import { type Check, damaged, type Gathering, READING_ORDER, show } from './gathering';

/** Faults of one kind that are told. */
const MOST_FAULTS = 5;

/** Roles that each book has an account for. */
const ROLES = FIRST_CHART.map(({ role }) => role).filter((role) => role !== '');

/** What no book is without. */
function whole(): Gathering {
  const roles = new Set<string>();
  const counts = { book: 0, registrations: 0 };
  return {
    looks: {
      book: () => {
        counts.book++;
      },
      registrations: () => {
        counts.registrations++;
      },
      accounts: ({ role }) => {
        roles.add(role);
      },
    },
    faults: () => {
      if (counts.book !== 1) return [damaged('book', 'exactly one business')];
      if (counts.registrations === 0) return [damaged('registrations', 'at least one registration')];
      if (ROLES.every((role) => roles.has(role))) return [];
      return [damaged('accounts', 'an account for each role that actions post to')];
    },
  };
}

/** Entries whose lines do not come to nothing. */
function balanced(): Gathering {
  const open = new Map<string, Minor>();
  return {
    looks: {
      journalLines: ({ entryId, amount }) => {
        const sum = plus(open.get(entryId) ?? NOTHING, amount);
        // What comes to nothing is forgotten: most entries do before the next begins.
        if (sum === NOTHING) open.delete(entryId);
        else open.set(entryId, sum);
      },
    },
    faults: () => [...open.keys()].map((entryId) => damaged(`journal entry ${entryId}`, 'debits equal to credits')),
  };
}

/** A document's place in the chain of its series. */
interface Link {
  readonly seriesId: string;
  readonly position: number;
  readonly number: string;
  readonly seal: IssuedDocument['seal'];
  /** Its content gives its seal. */
  readonly fits: boolean;
}

/** Documents whose content no longer gives their seal, or that do not follow the one before them. */
function seals(): Gathering {
  const links: Link[] = [];
  return {
    looks: {
      documents: ({ seriesId, position, content, seal }) => {
        const fits = sealOf(content, seal.previous).hash === seal.hash;
        links.push({ seriesId, position, number: content.number, seal, fits });
      },
    },
    faults: () =>
      [...grouped(links, ({ seriesId }) => seriesId)].flatMap(([series, chain]) => {
        let previous = '';
        for (const { seal, fits, number } of chain.toSorted((a, b) => a.position - b.position)) {
          if (!fits || seal.previous !== previous)
            return [damaged(`${series} ${number}`, 'content that fits its seal')];
          previous = seal.hash;
        }
        return [];
      }),
  };
}

/** Documents whose figures do not follow from their content. */
function figures(): Gathering {
  const faults: Refusal[] = [];
  return {
    looks: {
      documents: (document) => {
        if (!sameCanonical(figuresOf(document.content), document.figures))
          faults.push(damaged(document.number, 'figures that follow from the content'));
      },
    },
    faults: () => faults,
  };
}

/** What was sent stands as it went out, and belongs to a document of the book. */
function transmissions(): Gathering {
  const ids = new Set<string>();
  const sent: { readonly documentId: string; readonly intact: boolean; readonly fault: Refusal }[] = [];
  return {
    looks: {
      documents: ({ id }) => {
        ids.add(id);
      },
      transmissions: ({ id, number, documentId, file, sha256 }) => {
        const fault = damaged(`transmission ${id}`, `the e-invoice of ${number} as it was sent`);
        sent.push({ documentId, intact: digest(file) === sha256, fault });
      },
    },
    faults: () => sent.flatMap(({ documentId, intact, fault }) => (intact && ids.has(documentId) ? [] : [fault])),
  };
}

/** The check of seals; who checks them by themselves leaves it out. */
export const SEALS: Check = { name: 'Documents fit their seals', begin: seals };

/** In the order in which they are told: the first kind that finds something hides those after it. */
const CHECKS: readonly Check[] = [
  { name: 'What no book is without', begin: whole },
  { name: 'Entries balance', begin: balanced },
  SEALS,
  { name: 'Figures follow from content', begin: figures },
  { name: 'What was sent is as it was', begin: transmissions },
  ...BOOK_RELATIONS,
];

/** Looks at a book once, row by row in `READING_ORDER`, and keeps little of it: so that its size does not matter. */
export interface BookChecker {
  /** Looks at the next row of a table; what is wrong with it by itself, or null. After a fault nothing more needs to be shown. */
  readonly take: (table: BookTable, row: unknown) => Refusal | null;
  /** What is wrong with the whole; empty when it can be trusted. Stops at the first kind of fault. */
  readonly finish: () => readonly Refusal[];
}

/** A row that is no record, stands twice, or that Setup would not keep. */
function rowFault(table: BookTable, row: unknown, at: number, seen: Set<unknown>): Refusal | null {
  const { shape, key, records } = descriptorOf(table);
  const found = shape(row);
  if (found !== null) return damaged(`${table}, row ${at}${found.at.replace(/^\./, ', ')}`, found.expected);
  const own = (row as Readonly<Record<string, unknown>>)[key];
  if (seen.has(own)) return damaged(`${table}, ${String(own)}`, 'a row that stands once');
  seen.add(own);
  for (const record of records?.of(row as never) ?? []) {
    const [refusal] = validatedFaults(records?.schema, record);
    if (refusal !== undefined) return damaged(`${table}, ${refusal.path}`, 'a record that Setup would keep');
  }
  return null;
}

function validatedFaults(schema: Parameters<typeof validated>[0] | undefined, record: unknown): readonly Refusal[] {
  if (schema === undefined) return [];
  const result = validated(schema, record);
  return result.ok ? [] : result.refusals;
}

/** @param without checks that somebody else makes. */
export function bookChecker(without: readonly Check[] = []): BookChecker {
  const checks = CHECKS.filter((check) => !without.includes(check)).map(({ begin }) => begin());
  const seen = new Map<BookTable, Set<unknown>>();
  let stumbled = false;
  return {
    take: (table, row) => {
      const own = seen.get(table) ?? new Set();
      seen.set(table, own);
      const fault = rowFault(table, row, own.size + 1, own);
      if (fault !== null) return fault;
      try {
        for (const check of checks) show(check, table, row);
      } catch {
        // Content of a wrong shape makes the engine stumble; to the reader that is damage like any other.
        stumbled = true;
      }
      return null;
    },
    finish: () => {
      for (const { faults } of checks) {
        const found = faults();
        if (found.length > 0) return found.slice(0, MOST_FAULTS);
      }
      return stumbled ? [damaged('documents', 'content that can be recomputed')] : [];
    },
  };
}

/** What is wrong with a whole book that is at hand; empty when it can be trusted. */
export function bookFaults(content: BookContent): readonly Refusal[] {
  const checker = bookChecker();
  for (const table of READING_ORDER)
    for (const row of content[table]) {
      const fault = checker.take(table, row);
      if (fault !== null) return [fault];
    }
  return checker.finish();
}

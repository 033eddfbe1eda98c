import { type BankLine, type BankStatement, lineKeys } from '@/core/bank/bankLine';
import type { StatementFormat } from '@/core/bank/readStatements';
import type { Statement } from '@/core/bank/statement';
import type { Decision, Moment } from '@/core/book/changes';
import { accept, refuse } from '@/core/kernel/result';
import type { BankAccount } from '@/core/parties/bankAccount';
import type { StatementColumns } from '@/core/parties/statementColumns';

export interface StatementsInput {
  readonly bankAccountId: string;
  readonly fileName: string;
  readonly format: StatementFormat;
  /** As they were read, oldest first. */
  readonly statements: readonly Statement[];
  /** How its CSV was read, remembered for the next one. */
  readonly columns?: StatementColumns;
}

export interface StatementsMaterial {
  readonly account: BankAccount | undefined;
  /** Keys of the lines of the account that are there already. */
  readonly known: ReadonlySet<string>;
}

/** What was taken in of a file. */
export interface StatementsTaken {
  readonly added: number;
  readonly known: number;
}

/** Takes statements in: lines that are there already are known by their keys, and not taken twice. */
export function takeStatements(
  input: StatementsInput,
  { account, known }: StatementsMaterial,
  moment: Moment,
): Decision<StatementsTaken> {
  if (account === undefined) return refuse({ code: 'not-found', path: 'bankAccountId' });
  const statements: BankStatement[] = [];
  const lines: BankLine[] = [];
  const there = new Set(known);
  let before = 0;
  for (const statement of input.statements) {
    const id = moment.newId();
    const keys = lineKeys(statement.lines);
    const fresh = statement.lines.flatMap((line, i): readonly BankLine[] => {
      const key = keys[i] ?? '';
      if (there.has(key)) return [];
      there.add(key);
      const own = { id: moment.newId(), bankAccountId: account.id, statementId: id, position: i + 1, key };
      return [{ ...line, ...own, matches: [], entryIds: [], isOpen: 1 }];
    });
    const days = statement.lines.map(({ date }) => date).sort();
    const [from] = days;
    const until = days.at(-1);
    before += statement.lines.length - fresh.length;
    if (from === undefined || until === undefined || fresh.length === 0) continue;
    lines.push(...fresh);
    statements.push({
      id,
      bankAccountId: account.id,
      number: statement.number,
      format: input.format,
      fileName: input.fileName,
      from,
      until,
      opening: statement.opening,
      closing: statement.closing,
      added: fresh.length,
      known: statement.lines.length - fresh.length,
      readAt: moment.now,
      operator: moment.operator,
    });
  }
  if (lines.length === 0) return refuse({ code: 'nothing-new', path: '' });
  const remembered = input.columns === undefined ? account : { ...account, columns: input.columns };
  return accept({
    value: { added: lines.length, known: before },
    changes: {
      add: { bankStatements: statements, bankLines: lines },
      ...(remembered !== account && { put: { bankAccounts: [remembered] } }),
      audit: {
        subject: `${account.name}, ${input.fileName}`,
        about: [account.id],
        after: { format: input.format, lines: lines.length, known: before },
      },
    },
  });
}

/** Takes a statement out again, with the lines that it brought. */
export function removeStatements(statement: BankStatement | undefined, lines: readonly BankLine[]): Decision<null> {
  if (statement === undefined) return refuse({ code: 'not-found', path: 'id' });
  if (lines.some(({ matches }) => matches.length > 0)) return refuse({ code: 'used-since', path: 'id', by: 'matched' });
  return accept({
    value: null,
    changes: {
      remove: { bankStatements: [statement.id], bankLines: lines.map(({ id }) => id) },
      audit: { subject: statement.fileName, about: [statement.bankAccountId, statement.id], before: statement },
    },
  });
}

import { lineKeys } from '@/core/bank/bankLine';
import {
  removeStatements,
  type StatementsInput,
  type StatementsTaken,
  takeStatements,
} from '@/core/decisions/bank/takeStatements';
import type { Action } from '../../perform';

/** Takes a statement that was imported by mistake out again, with its lines; refused while one of them is matched. */
export const removeStatement: Action<{ readonly id: string }, null> = {
  name: 'remove bank statement',
  async decide(db, { id }) {
    const [statement, lines] = await Promise.all([
      db.bankStatements.get(id),
      db.bankLines.where('statementId').equals(id).toArray(),
    ]);
    return removeStatements(statement, lines);
  },
};

/** Takes the statements of a file in; lines that are there already are left as they are. */
export const importStatements: Action<StatementsInput, StatementsTaken> = {
  name: 'import bank statement',
  async decide(db, input, moment) {
    const keys = [...new Set(input.statements.flatMap(({ lines }) => lineKeys(lines)))];
    const { bankAccountId } = input;
    const [account, known] = await Promise.all([
      db.bankAccounts.get(bankAccountId),
      db.bankLines
        .where('[bankAccountId+key]')
        .anyOf(keys.map((key) => [bankAccountId, key]))
        .toArray(),
    ]);
    return takeStatements(input, { account, known: new Set(known.map(({ key }) => key)) }, moment);
  },
};

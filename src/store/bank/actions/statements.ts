import { lineKeys } from '@/core/bank/bankLine';
import { type StatementsInput, type StatementsTaken, takeStatements } from '@/core/decisions/bank/takeStatements';
import type { Action } from '../../perform';

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

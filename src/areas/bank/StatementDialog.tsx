'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { fitsColumns, guessColumns } from '@/core/bank/csv';
import { readStatementFile, type StatementFile, statementsOf } from '@/core/bank/readStatements';
import { type Statement, unexplainedBy } from '@/core/bank/statement';
import { writeDate } from '@/core/kernel/date';
import { NOTHING, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import type { BankAccount } from '@/core/parties/bankAccount';
import type { StatementColumns } from '@/core/parties/statementColumns';
import { wordRefusal } from '@/core/wording/refusals';
import { importStatements } from '@/store/bank/actions/statements';
import type { AccountStanding } from '@/store/bank/queries/lines';
import { Button } from '@/ui/Button';
import { ChooseFile } from '@/ui/ChooseFile';
import { Dialog } from '@/ui/Dialog';
import { Mark } from '@/ui/Mark';
import { act } from '../shell/book';
import { ColumnsForm } from './ColumnsForm';

interface Offered {
  readonly name: string;
  readonly file: StatementFile;
  readonly columns: StatementColumns | undefined;
}

function Refusals({ refusals }: { readonly refusals: readonly Refusal[] }) {
  if (refusals.length === 0) return null;
  return (
    <ul role="alert">
      {refusals.map((one) => (
        <li key={one.path + wordRefusal(one)} className="text-brick">
          ▲ {one.path === '' ? '' : `${one.path}: `}
          {wordRefusal(one)}
        </li>
      ))}
    </ul>
  );
}

/** What a statement holds, and whether its balances hold with its lines and with the statement before it. */
function StatementPreview({
  statement,
  standing,
}: {
  readonly statement: Statement;
  readonly standing: AccountStanding;
}) {
  const { currency } = standing.account;
  const money = (amount: Parameters<typeof showMoney>[0]) => showMoney(amount, currency);
  const [first] = statement.lines;
  const last = statement.lines.at(-1);
  const off = unexplainedBy(statement);
  const before = standing.newest;
  const gap =
    before !== undefined && before.closing !== null && statement.opening !== null && first !== undefined
      ? first.date > before.until && statement.opening !== before.closing
      : false;
  return (
    <li className="border-rule border-b py-1.5">
      {statement.lines.length} lines
      {first !== undefined && last !== undefined && `, ${writeDate(first.date)} to ${writeDate(last.date)}`}, together{' '}
      {money(total(statement.lines.map(({ amount }) => amount)))} {currency}
      {statement.opening !== null && `; from ${money(statement.opening)}`}
      {statement.closing !== null && ` to ${money(statement.closing)}`}
      {off !== NOTHING && (
        <span className="block">
          <Mark kind="warning" /> Its lines do not lead from its opening to its closing balance: {money(off)} is
          missing.
        </span>
      )}
      {gap && before?.closing != null && statement.opening !== null && (
        <span className="block">
          <Mark kind="warning" /> The statement before ended with {money(before.closing)} on {writeDate(before.until)},
          this one begins with {money(statement.opening)}: one in between may be missing.
        </span>
      )}
    </li>
  );
}

interface StatementDialogProps {
  readonly standing: AccountStanding;
  readonly onClose: () => void;
}

const columnsFor = (file: StatementFile, account: BankAccount): StatementColumns | undefined => {
  if (file.format !== 'CSV') return undefined;
  const known = account.columns;
  return known !== undefined && fitsColumns(file.rows, known) ? known : guessColumns(file.rows);
};

/** Reads a statement of an account from a file: looked at first, then taken in. */
export function StatementDialog({ standing, onClose }: StatementDialogProps) {
  const { account } = standing;
  const [offered, setOffered] = useState<Offered | null>(null);
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [busy, setBusy] = useState(false);
  const look = async (chosen: File) => {
    const read = readStatementFile(new Uint8Array(await chosen.arrayBuffer()));
    setRefusals(read.ok ? [] : read.refusals);
    setOffered(read.ok ? { name: chosen.name, file: read.value, columns: columnsFor(read.value, account) } : null);
  };
  const found = offered === null ? null : statementsOf(offered.file, account, offered.columns);
  const take = async ({ name, file, columns }: Offered, statements: readonly Statement[]) => {
    setBusy(true);
    const result = await act(importStatements, {
      bankAccountId: account.id,
      fileName: name,
      format: file.format,
      statements,
      ...(columns !== undefined && { columns }),
    });
    setBusy(false);
    if (!result.ok) return setRefusals(result.refusals);
    const { added, known } = result.value;
    toast(`${added} ${added === 1 ? 'line' : 'lines'} imported${known > 0 ? `; ${known} were there already` : ''}`);
    onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Import a statement of ${account.name}`}
      description="A camt.053, OFX or CSV file of the bank. Lines that are in the book already are not imported twice."
    >
      <p className="mb-3">
        <ChooseFile
          words="Choose a file of the bank"
          accept=".xml,.ofx,.qfx,.csv,.txt,text/csv,application/xml"
          onFile={(chosen) => void look(chosen)}
        />
      </p>
      <Refusals refusals={refusals} />
      {offered?.file.format === 'CSV' && offered.columns !== undefined && (
        <ColumnsForm
          rows={offered.file.rows}
          columns={offered.columns}
          currency={account.currency}
          onChange={(columns) => setOffered({ ...offered, columns })}
        />
      )}
      {offered !== null && found !== null && (
        <section aria-label={`What ${offered.name} holds`}>
          {found.ok ? (
            <>
              <p className="text-soft">
                {offered.name}, {offered.file.format}
              </p>
              <ul>
                {found.value.map((statement, i) => (
                  <StatementPreview key={`${statement.number}-${i}`} statement={statement} standing={standing} />
                ))}
              </ul>
            </>
          ) : (
            offered.file.format !== 'CSV' && <Refusals refusals={found.refusals} />
          )}
        </section>
      )}
      <div className="mt-4 flex gap-2.5">
        <Button
          weight="main"
          disabled={busy || offered === null || found?.ok !== true}
          onClick={() => offered !== null && found?.ok === true && void take(offered, found.value)}
        >
          Import
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}

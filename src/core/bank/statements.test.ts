import { CSV_COLUMNS, statementLine, statementOf, writeCamt, writeOfx } from 'tests/statements';
import { currency } from '@/core/kernel/currency';
import { minor } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { wordRefusals } from '@/core/wording/refusals';
import { bankDay, csvAmount, fitsColumns, guessColumns } from './csv';
import { isOf, readStatementFile, type StatementAccount, statementsOf } from './readStatements';
import { type Statement, unexplainedBy } from './statement';

/* Files as banks write them, each with an odd habit of its own; names and numbers are made up. */

const EUR: StatementAccount = {
  currency: currency('EUR'),
  iban: 'IE31CPTB99000012345678',
  local: { code: '', number: '' },
};
const USD: StatementAccount = { currency: currency('USD'), iban: '', local: { code: '', number: '000123456' } };

const bytesOf = (text: string | Uint8Array) => (typeof text === 'string' ? new TextEncoder().encode(text) : text);

const told = (refusals: readonly Refusal[]) =>
  new Error(refusals.map((one) => `${one.path}: ${wordRefusals([one])}`).join('\n'));

function read(text: string | Uint8Array, account: StatementAccount = EUR): readonly Statement[] {
  const file = readStatementFile(bytesOf(text));
  if (!file.ok) throw told(file.refusals);
  const columns = file.value.format === 'CSV' ? guessColumns(file.value.rows) : undefined;
  const found = statementsOf(file.value, account, columns);
  if (!found.ok) throw told(found.refusals);
  return found.value;
}

/** Lines in short: day, amount, and what else of them a case is about. */
const short = (
  statements: readonly Statement[],
  ...fields: readonly ('text' | 'name' | 'iban' | 'reference' | 'bankReference')[]
) =>
  statements.flatMap(({ lines }) =>
    lines.map((line) => [line.date.slice(5), Number(line.amount), ...fields.map((field) => line[field])].join('|')),
  );

const camt = (body: string, version = '02') =>
  `<?xml version="1.0"?><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.${version}"><BkToCstmrStmt>${body}</BkToCstmrStmt></Document>`;
const stmt = (body: string, ccy = 'EUR') =>
  `<Stmt><Id>S1</Id><Acct><Id><IBAN>IE31CPTB99000012345678</IBAN></Id><Ccy>${ccy}</Ccy></Acct>${body}</Stmt>`;
const ntry = (amount: string, sign: 'CRDT' | 'DBIT', body = '', status = '<Sts>BOOK</Sts>') =>
  `<Ntry><Amt Ccy="EUR">${amount}</Amt><CdtDbtInd>${sign}</CdtDbtInd>${status}<BookgDt><Dt>2026-01-15</Dt></BookgDt>${body}</Ntry>`;
const tx = (body: string) => `<TxDtls>${body}</TxDtls>`;
const details = (...all: string[]) => `<NtryDtls>${all.map(tx).join('')}</NtryDtls>`;
const bal = (code: string, amount: string, sign = 'CRDT') =>
  `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">${amount}</Amt><CdtDbtInd>${sign}</CdtDbtInd></Bal>`;

describe('camt.053', () => {
  test.each<[string, string, string[], ('text' | 'name' | 'iban' | 'reference' | 'bankReference')[]]>([
    [
      'version 02: the party in its own element',
      camt(
        stmt(
          ntry(
            '10.00',
            'CRDT',
            details(
              '<RltdPties><Dbtr><Nm>Pier Ltd</Nm></Dbtr><DbtrAcct><Id><IBAN>IE00X</IBAN></Id></DbtrAcct></RltdPties>',
            ),
          ),
        ),
      ),
      ['01-15|1000|Pier Ltd|IE00X'],
      ['name', 'iban'],
    ],
    [
      'version 08: the party in Pty, the status in Cd, a time beside the day',
      camt(
        stmt(
          `<Ntry><Amt Ccy="EUR">10</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><DtTm>2026-01-15T23:30:00+01:00</DtTm></BookgDt>${details('<RltdPties><Dbtr><Pty><Nm>Pier Ltd</Nm></Pty></Dbtr></RltdPties>')}</Ntry>`,
        ),
        '08',
      ),
      ['01-15|1000|Pier Ltd'],
      ['name'],
    ],
    [
      'money out goes to its creditor',
      camt(
        stmt(
          ntry(
            '3.50',
            'DBIT',
            details('<RltdPties><Dbtr><Nm>Us</Nm></Dbtr><Cdtr><Nm>Chandler</Nm></Cdtr></RltdPties>'),
          ),
        ),
      ),
      ['01-15|-350|Chandler'],
      ['name'],
    ],
    [
      'text in several lines, one of them twice, filled with blanks',
      camt(
        stmt(
          ntry(
            '1.00',
            'CRDT',
            details(
              '<RmtInf><Ustrd>INV-2026-0001   </Ustrd><Ustrd>thank   you</Ustrd><Ustrd>INV-2026-0001</Ustrd></RmtInf>',
            ),
          ),
        ),
      ),
      ['01-15|100|INV-2026-0001\nthank you'],
      ['text'],
    ],
    [
      'a structured reference before the end-to-end id',
      camt(
        stmt(
          ntry(
            '1.00',
            'CRDT',
            details(
              '<Refs><EndToEndId>E2E</EndToEndId></Refs><RmtInf><Strd><CdtrRefInf><Ref>RF18539007547034</Ref></CdtrRefInf></Strd></RmtInf>',
            ),
          ),
        ),
      ),
      ['01-15|100|RF18539007547034'],
      ['reference'],
    ],
    [
      'an end-to-end id that says there is none',
      camt(stmt(ntry('1.00', 'CRDT', details('<Refs><EndToEndId>NOTPROVIDED</EndToEndId></Refs>')))),
      ['01-15|100|'],
      ['reference'],
    ],
    [
      'a batch whose payments make its amount: a line each, with references of their own',
      camt(
        stmt(
          ntry(
            '30.00',
            'CRDT',
            `<AcctSvcrRef>B1</AcctSvcrRef>${details('<Amt Ccy="EUR">10.00</Amt><RmtInf><Ustrd>one</Ustrd></RmtInf>', '<Amt Ccy="EUR">20.00</Amt><RmtInf><Ustrd>two</Ustrd></RmtInf>')}`,
          ),
        ),
      ),
      ['01-15|1000|one|B1/1', '01-15|2000|two|B1/2'],
      ['text', 'bankReference'],
    ],
    [
      'a batch with its amounts one level down',
      camt(
        stmt(
          ntry(
            '30.00',
            'DBIT',
            details(
              '<AmtDtls><TxAmt><Amt Ccy="EUR">10.00</Amt></TxAmt></AmtDtls>',
              '<AmtDtls><TxAmt><Amt Ccy="EUR">20.00</Amt></TxAmt></AmtDtls>',
            ),
          ),
        ),
      ),
      ['01-15|-1000', '01-15|-2000'],
      [],
    ],
    [
      'a batch of both directions',
      camt(
        stmt(
          ntry(
            '10.00',
            'CRDT',
            details(
              '<Amt Ccy="EUR">30.00</Amt><CdtDbtInd>CRDT</CdtDbtInd>',
              '<Amt Ccy="EUR">20.00</Amt><CdtDbtInd>DBIT</CdtDbtInd>',
            ),
          ),
        ),
      ),
      ['01-15|3000', '01-15|-2000'],
      [],
    ],
    [
      'a batch without amounts stays one line with all its texts',
      camt(
        stmt(
          ntry('30.00', 'CRDT', details('<RmtInf><Ustrd>one</Ustrd></RmtInf>', '<RmtInf><Ustrd>two</Ustrd></RmtInf>')),
        ),
      ),
      ['01-15|3000|one\ntwo'],
      ['text'],
    ],
    [
      'a batch whose amounts do not make the entry stays one line',
      camt(stmt(ntry('30.00', 'CRDT', details('<Amt Ccy="EUR">10.00</Amt>', '<Amt Ccy="EUR">10.00</Amt>')))),
      ['01-15|3000'],
      [],
    ],
    [
      'foreign amounts inside: what the account moved counts',
      camt(
        stmt(
          ntry(
            '9.10',
            'CRDT',
            details(
              '<AmtDtls><InstdAmt><Amt Ccy="USD">10.00</Amt></InstdAmt><TxAmt><Amt Ccy="EUR">9.10</Amt></TxAmt></AmtDtls>',
            ),
          ),
        ),
      ),
      ['01-15|910'],
      [],
    ],
    [
      'a reversal: its sign is that of the account',
      camt(stmt(ntry('5.00', 'DBIT', '<RvslInd>true</RvslInd>'))),
      ['01-15|-500'],
      [],
    ],
    ['a sign before the amount of a debit counts once', camt(stmt(ntry('-5.00', 'DBIT'))), ['01-15|-500'], []],
    [
      'announced entries are left out',
      camt(
        stmt(
          ntry('5.00', 'CRDT', '', '<Sts>PDNG</Sts>') +
            ntry('6.00', 'CRDT', '', '<Sts><Cd>FUTR</Cd></Sts>') +
            ntry('7.00', 'CRDT'),
        ),
      ),
      ['01-15|700'],
      [],
    ],
    [
      'only a value date',
      camt(
        stmt(
          '<Ntry><Amt Ccy="EUR">1</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><ValDt><Dt>2026-01-16</Dt></ValDt></Ntry>',
        ),
      ),
      ['01-16|100'],
      [],
    ],
    [
      'text of the entry alone',
      camt(stmt(ntry('1.00', 'CRDT', '<AddtlNtryInf>Lodgement</AddtlNtryInf>'))),
      ['01-15|100|Lodgement'],
      ['text'],
    ],
    [
      'several statements in a file',
      camt(stmt(ntry('1.00', 'CRDT')) + stmt(ntry('2.00', 'CRDT'))),
      ['01-15|100', '01-15|200'],
      [],
    ],
    [
      'a prefix of its own for the namespace',
      '<?xml version="1.0"?><b:Document xmlns:b="urn:iso:std:iso:20022:tech:xsd:camt.053.001.02"><b:BkToCstmrStmt><b:Stmt><b:Acct><b:Ccy>EUR</b:Ccy></b:Acct><b:Ntry><b:Amt Ccy="EUR">1</b:Amt><b:CdtDbtInd>CRDT</b:CdtDbtInd><b:BookgDt><b:Dt>2026-01-15</b:Dt></b:BookgDt></b:Ntry></b:Stmt></b:BkToCstmrStmt></b:Document>',
      ['01-15|100'],
      [],
    ],
  ])('%s', (_, text, lines, fields) => expect(short(read(text), ...fields)).toEqual(lines));

  test('balances: the last closing one opens it, and what its lines do not explain is told', () => {
    const [one] = read(camt(stmt(bal('PRCD', '100.00') + bal('CLBD', '111.00') + ntry('10.00', 'CRDT'))));
    expect([one?.opening, one?.closing, one && unexplainedBy(one)]).toEqual([10000n, 11100n, 100n]);
    const [overdrawn] = read(camt(stmt(bal('OPBD', '5.00', 'DBIT') + ntry('10.00', 'CRDT'))));
    expect([overdrawn?.opening, overdrawn?.closing, overdrawn && unexplainedBy(overdrawn)]).toEqual([-500n, null, 0n]);
  });
});

const ofx = (lines: string, extra = '') =>
  `OFXHEADER:100\n\n<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>USD<BANKACCTFROM><ACCTID>XXXX3456</BANKACCTFROM><BANKTRANLIST>${lines}</BANKTRANLIST>${extra}</STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`;
const trn = (amount: string, body = '', type = 'CREDIT') =>
  `<STMTTRN><TRNTYPE>${type}<DTPOSTED>20260115<TRNAMT>${amount}${body}</STMTTRN>`;

describe('OFX', () => {
  test.each<[string, string, string[], ('text' | 'name' | 'reference' | 'bankReference')[]]>([
    [
      'version 1 without ends, the number of the account half hidden',
      ofx(trn('10.00', '<FITID>F1<NAME>Marina<MEMO>INV-1')),
      ['01-15|1000|INV-1|Marina|F1'],
      ['text', 'name', 'bankReference'],
    ],
    ['an element that is empty', ofx(trn('1.00', '<MEMO>\n<NAME>Marina')), ['01-15|100|Marina'], ['name']],
    [
      'signs of XML and a wide blank in a name',
      ofx(trn('1.00', '<NAME>A &amp; B&nbsp;&#233;')),
      ['01-15|100|A & B é'],
      ['name'],
    ],
    ['a decimal comma', ofx(trn('1,50')), ['01-15|150'], []],
    ['a plus sign, and no figure before the point', ofx(trn('+.50')), ['01-15|50'], []],
    [
      'amounts without signs: their kinds say the direction',
      ofx(trn('5.00', '', 'DEBIT') + trn('7.00')),
      ['01-15|-500', '01-15|700'],
      [],
    ],
    ['signs the wrong way round', ofx(trn('5.00', '', 'FEE') + trn('-7.00')), ['01-15|-500', '01-15|700'], []],
    [
      'a refund of a fee keeps its sign where others go out',
      ofx(trn('-5.00', '', 'DEBIT') + trn('2.00', '', 'FEE')),
      ['01-15|-500', '01-15|200'],
      [],
    ],
    ['the newest first', ofx(trn('1.00').replace('0115', '0120') + trn('2.00')), ['01-15|200', '01-20|100'], []],
    [
      'a time zone behind the day',
      ofx(trn('1.00').replace('20260115', '20260115235959.000[-8:PST]')),
      ['01-15|100'],
      [],
    ],
    [
      'a payee in an aggregate of its own',
      ofx(trn('1.00', '<PAYEE><NAME>Marina</PAYEE>')),
      ['01-15|100|Marina'],
      ['name'],
    ],
    ['a cheque by its number', ofx(trn('-1.00', '<CHECKNUM>1042', 'CHECK')), ['01-15|-100|1042'], ['reference']],
    [
      'a card statement',
      ofx(trn('1.00'))
        .replaceAll('BANKMSGSRSV1', 'CREDITCARDMSGSRSV1')
        .replaceAll('STMTTRNRS', 'CCSTMTTRNRS')
        .replaceAll('STMTRS', 'CCSTMTRS')
        .replaceAll('BANKACCTFROM', 'CCACCTFROM'),
      ['01-15|100'],
      [],
    ],
    [
      'one reference for two lines',
      ofx(trn('1.00', '<FITID>F') + trn('2.00', '<FITID>F')),
      ['01-15|100|F', '01-15|200|F'],
      ['bankReference'],
    ],
  ])('%s', (_, text, lines, fields) => expect(short(read(text, USD), ...fields)).toEqual(lines));

  test('the closing balance, and none before', () => {
    const [one] = read(ofx(trn('1.00'), '<LEDGERBAL><BALAMT>99.00<DTASOF>20260131</LEDGERBAL>'), USD);
    expect([one?.opening, one?.closing]).toEqual([null, 9900n]);
  });
});

describe('CSV, by columns that are guessed', () => {
  test.each<[string, string | Uint8Array, string[], ('text' | 'name' | 'reference')[]]>([
    [
      'point and comma: German heads, semicolons, decimal commas',
      'Buchungstag;Auftraggeber;Verwendungszweck;Betrag\n15.01.2026;Werft;Rechnung 1;1.234,50\n16.01.2026;Bank;Gebühr;-3,00',
      ['01-15|123450|Rechnung 1|Werft', '01-16|-300|Gebühr|Bank'],
      ['text', 'name'],
    ],
    [
      'money in and out in columns of their own',
      'Date,Details,Paid out,Paid in\n15/01/2026,Fee,3.00,\n16/01/2026,INV-1,,12.00',
      ['01-15|-300', '01-16|1200'],
      [],
    ],
    [
      'money out with a sign of its own',
      'Date,Details,Debit,Credit\n15/01/2026,Fee,-3.00,\n16/01/2026,INV-1,,12.00',
      ['01-15|-300', '01-16|1200'],
      [],
    ],
    [
      'months before days',
      'Date,Description,Amount\n01/15/2026,A,1.00\n01/16/2026,B,2.00',
      ['01-15|100', '01-16|200'],
      [],
    ],
    ['months by their names, years in two figures', 'Date,Narrative,Amount\n15-Jan-26,A,1.00', ['01-15|100'], []],
    [
      'lines above the heads, a sum below',
      'Account,IE31\nFrom,1 Jan\n\nDate,Details,Amount\n15/01/2026,A,1.00\nTotal,,1.00',
      ['01-15|100'],
      [],
    ],
    [
      'the newest first',
      'Date,Details,Amount,Balance\n2026-01-16,B,2.00,3.00\n2026-01-15,A,1.00,1.00',
      ['01-15|100', '01-16|200'],
      [],
    ],
    [
      'text in two columns',
      'Date,Details,Particulars,Amount\n2026-01-15,INV-1,thanks,1.00',
      ['01-15|100|INV-1\nthanks'],
      ['text'],
    ],
    [
      'brackets, letters and true minus signs',
      'Date,Details,Amount\n2026-01-15,A,(1.00)\n2026-01-15,B,2.00 DR\n2026-01-15,C,\u22123.00\n2026-01-15,D,4.00 CR',
      ['01-15|-100', '01-15|-200', '01-15|-300', '01-15|400'],
      [],
    ],
    [
      'Windows-1252',
      new Uint8Array(
        [...'Date,Name,Amount\n2026-01-15,B']
          .map((c) => c.charCodeAt(0))
          .concat(0xfc, ...[...'cher,1.00'].map((c) => c.charCodeAt(0))),
      ),
      ['01-15|100|Bücher'],
      ['name'],
    ],
    [
      'UTF-16 with its mark',
      new Uint8Array([
        0xff,
        0xfe,
        ...[...'Date,Name,Amount\n2026-01-15,Éire,1.00'].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
      ]),
      ['01-15|100|Éire'],
      ['name'],
    ],
    [
      'line breaks and separators inside quotation marks',
      'Date,Details,Amount\n2026-01-15,"INV-1,\nsecond line",1.00',
      ['01-15|100|INV-1,\nsecond line'],
      ['text'],
    ],
  ])('%s', (_, text, lines, fields) => expect(short(read(text), ...fields)).toEqual(lines));

  test('balances lead from the first line to the last', () => {
    const [one] = read('Date,Details,Amount,Balance\n2026-01-15,A,1.00,11.00\n2026-01-16,B,2.00,13.00');
    expect([one?.opening, one?.closing, one && unexplainedBy(one)]).toEqual([1000n, 1300n, 0n]);
  });

  test('columns are known again by their heads', () => {
    const rows = (head: string) => [head.split(','), ['2026-01-15']];
    expect(fitsColumns(rows(CSV_COLUMNS.heads.join(',')), CSV_COLUMNS)).toBe(true);
    expect(fitsColumns(rows('Date,Other'), CSV_COLUMNS)).toBe(false);
  });

  test('days and amounts that are none', () => {
    expect(['', '32/01/2026', '2026-13-01', 'soon', '15 Foo 2026'].map((text) => bankDay(text, 'dmy'))).toEqual(
      Array(5).fill(null),
    );
    expect(bankDay('20260115', 'dmy')).toBe('2026-01-15');
    expect(['', 'n/a', '1.2.3', '1.005'].map((text) => csvAmount(text, '.', EUR.currency))).toEqual(
      Array(4).fill(null),
    );
  });
});

describe('files from strangers', () => {
  const big = (n: number, text: string) => text.repeat(n);
  test.each<[string, string | Uint8Array, RegExp]>([
    ['an empty file', '', /empty/],
    ['a picture', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1]), /no statement/],
    ['a PDF', '%PDF-1.7 statement', /no statement/],
    ['an e-invoice', '<Invoice xmlns="urn:oasis:names:specification:ubl:schema:xsd:Invoice-2"/>', /no bank statement/],
    ['a notification, camt.054', camt('').replace('camt.053', 'camt.054'), /camt\.054/],
    ['a report of the day, camt.052', camt('').replace('camt.053', 'camt.052'), /camt\.052/],
    ['a camt.053 without a statement', camt(''), /no statement/],
    ['XML cut off in the middle', camt(stmt(ntry('1.00', 'CRDT'))).slice(0, 300), /well-formed/],
    ['a document type', `<!DOCTYPE x [<!ENTITY a "b">]>${camt(stmt(''))}`, /DTD/],
    ['elements in each other without end', `<a>${big(100, '<b>')}`, /deeper/],
    ['a currency nobody knows', camt(stmt('', 'XXZ')), /currency/],
    ['an amount that is none', camt(stmt(ntry('ten', 'CRDT'))), /statement 1, entry 1.*no amount/s],
    [
      'an amount of another currency than its account',
      camt(stmt(ntry('1.00', 'CRDT').replace('Ccy="EUR"', 'Ccy="USD"'))),
      /no amount in EUR/,
    ],
    ['too many decimals', camt(stmt(ntry('1.005', 'CRDT'))), /no amount/],
    ['a day that is none', camt(stmt(ntry('1.00', 'CRDT').replace('2026-01-15', '2026-02-31'))), /no date/],
    ['an amount without end', camt(stmt(ntry(big(5000, '9'), 'CRDT'))), /no amount/],
    ['OFX without a statement', 'OFXHEADER:100\n<OFX></OFX>', /no statement/],
    ['OFX that goes ever deeper', `OFXHEADER:100\n<OFX>${big(100, '<STMTTRN>')}`, /deeper/],
    ['OFX with an amount that is none', ofx(trn('a lot')), /entry 1.*no amount/s],
    ['OFX with a day that is none', ofx(trn('1.00').replace('20260115', 'today')), /no date/],
    ['more lines than any bank sends', ofx(big(50_001, trn('1'))), /more than 50000 lines/],
    ['CSV without heads that say what is in it', 'a,b\n1,2', /Say which columns/],
    [
      'CSV with a day that is none in the middle',
      'Date,Details,Amount\n2026-01-15,A,1.00\nsoon,B,2.00\n2026-01-16,C,1.00',
      /row 3.*no date/s,
    ],
    ['CSV with an amount that is none', 'Date,Details,Amount\n2026-01-15,A,much', /row 2.*no amount/s],
    [
      'the statement of another account',
      writeCamt(statementOf([], { account: 'DE89370400440532013000' })),
      /of account DE89370400440532013000 EUR, not of/,
    ],
    [
      'a statement in another currency',
      writeOfx(statementOf([], { account: '3456', currency: currency('USD') }), true),
      /3456 USD/,
    ],
  ])('%s is refused in words', (_, text, words) => expect(() => read(text)).toThrow(words));

  test('a file above 20 MiB is not looked into', () => {
    const file = readStatementFile(new Uint8Array(20 * 2 ** 20 + 1));
    expect(file.ok ? '' : wordRefusals(file.refusals)).toMatch(/20 MB/);
  });
});

test('a statement is of the account by its number, whole or in part, where both say one', () => {
  const of = (account: string, ours: Partial<StatementAccount> = {}) =>
    isOf(statementOf([], { account }), { ...EUR, ...ours });
  expect([of('IE31 CPTB 9900 0012 3456 78'), of('12345678'), of('XXXX5678'), of('')]).toEqual([true, true, true, true]);
  expect([of('99999999'), of('IE31CPTB99000012345679')]).toEqual([false, false]);
  expect(of('anything', { iban: '' })).toBe(true);
  expect(isOf(statementOf([statementLine({ amount: minor(1n) })]), USD)).toBe(false);
});

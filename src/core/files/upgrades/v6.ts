import { grouped } from '@/core/kernel/grouped';

/* Version 6 to version 7; frozen, see `v1.ts`. */

interface OldAccount {
  readonly code: string;
  readonly name: string;
  readonly type: string;
  readonly role: string;
}

interface OldReceipt {
  readonly id: string;
  readonly method: string;
  readonly date: string;
  readonly amount: bigint;
  readonly amountHome: bigint;
  readonly entryId: string;
}

interface OldWithholding {
  readonly id: string;
  readonly name: string;
  readonly when: string;
  readonly certificate: boolean;
}

interface OldDocument {
  readonly id: string;
  readonly kind: string;
  readonly number: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly issueDate: string;
  readonly entryId: string;
  readonly content: {
    readonly currency: string;
    readonly withholding?: readonly OldWithholding[];
    readonly corrects?: { readonly documentId: string };
  };
  readonly figures: { readonly withholding: readonly { readonly id: string; readonly amount: bigint }[] };
  readonly cancelled: { readonly on: string } | null;
}

/** Tables of version 6, as far as they are read here; all others stay as they are. */
export interface BookContentV6 {
  readonly accounts: readonly OldAccount[];
  readonly registrations: readonly object[];
  readonly documents: readonly OldDocument[];
  readonly receipts: readonly OldReceipt[];
  readonly refunds: readonly object[];
  readonly journalLines: readonly { readonly entryId: string; readonly account: string; readonly amount: bigint }[];
}

/** Accounts with roles that are new. */
const ACCOUNTS: readonly OldAccount[] = [
  { code: '1310', name: 'Tax withheld, asked back', type: 'asset', role: 'withholding-refunds' },
  { code: '4910', name: 'Settlement discounts', type: 'income', role: 'settlement-discounts' },
  { code: '7930', name: 'Bank charges', type: 'expense', role: 'bank-charges' },
  { code: '7940', name: 'Bad debts', type: 'expense', role: 'bad-debts' },
];

/** The chart with an account for each role that is new, under its own code or the next free one. */
function withNewRoles(accounts: readonly OldAccount[]): readonly OldAccount[] {
  const codes = new Set(accounts.map((account) => account.code));
  const roles = new Set(accounts.map((account) => account.role));
  const added = ACCOUNTS.filter(({ role }) => !roles.has(role)).map((account) => {
    let code = Number(account.code);
    while (codes.has(String(code))) code++;
    codes.add(String(code));
    return { ...account, code: String(code) };
  });
  return [...accounts, ...added];
}

/** What of `counted` goes with a part of `whole`, rounded half up; all of it with the last part. */
function inStep(part: bigint, whole: bigint, counted: bigint): bigint {
  if (whole === 0n || part === whole) return part === whole ? counted : 0n;
  const sign = whole < 0n ? -1n : 1n;
  const [n, d] = [sign * counted * part, sign * whole];
  const half = (2n * (n < 0n ? -n : n) + d) / (2n * d);
  return n < 0n ? -half : half;
}

/** What documents kept back at issue, each type a row of its own; the entry says what they came to in home currency. */
function withheldAtIssue(
  { id, kind, number, customerId, customerName, issueDate, content, figures, cancelled }: OldDocument,
  posted: bigint,
): readonly object[] {
  const types = (content.withholding ?? []).flatMap((type) => {
    const amount = figures.withholding.find((one) => one.id === type.id)?.amount ?? 0n;
    return type.when === 'on-issue' && amount !== 0n ? [{ type, amount }] : [];
  });
  const sign = kind === 'credit-note' ? -1n : 1n;
  let left = types.reduce((sum, { amount }) => sum + amount, 0n) * sign;
  let leftHome = posted;
  return types.map(({ type, amount }) => {
    const home = inStep(amount * sign, left, leftHome);
    left -= amount * sign;
    leftHome -= home;
    return {
      id: `${id}:${type.id}`,
      customerId,
      customerName,
      typeId: type.id,
      typeName: type.name,
      needsCertificate: type.certificate,
      documentId: content.corrects?.documentId ?? id,
      documentNumber: number,
      receiptId: '',
      receiptNumber: '',
      date: issueDate,
      currency: content.currency,
      amount: amount * sign,
      home,
      certified: 0n,
      claimed: 0n,
      isOpen: cancelled === null ? 1 : 0,
      voidOn: cancelled?.on ?? '',
    };
  });
}

/**
 * A book of version 6 in the shape of version 7: receipts have parts and a day they count from, documents may be written
 * off, refunds undone, and what customers kept back as tax are rows of their own.
 */
export function upgradeV6(old: BookContentV6): Readonly<Record<string, readonly object[]>> {
  const codesOf = (...roles: readonly string[]) =>
    new Set(old.accounts.flatMap(({ code, role }) => (roles.includes(role) ? [code] : [])));
  const [claims, receivables] = [codesOf('withholding-claims'), codesOf('receivables')];
  const linesOf = grouped(old.journalLines, ({ entryId }) => entryId);
  const bank = old.accounts.find(({ role }) => role === 'bank')?.code ?? '';
  return {
    accounts: withNewRoles(old.accounts),
    registrations: old.registrations.map((one) => ({ ...one, badDebtRelief: true })),
    documents: old.documents.map((document) => ({ ...document, writtenOff: 0n })),
    refunds: old.refunds.map((refund) => ({ ...refund, undone: null })),
    receipts: old.receipts.map(({ method, ...receipt }) => {
      const { amount, amountHome: home, date, entryId } = receipt;
      const money = (linesOf.get(entryId) ?? []).find((line) => line.amount > 0n && !receivables.has(line.account));
      const cheque = method === 'cheque' ? { number: '', date } : null;
      return {
        ...receipt,
        valueDate: date,
        remarks: '',
        parts: [{ method, account: money?.account ?? bank, amount, charge: 0n, home, cheque }],
        dishonoured: null,
      };
    }),
    withheld: old.documents.flatMap((document) =>
      withheldAtIssue(
        document,
        (linesOf.get(document.entryId) ?? []).reduce(
          (sum, { account, amount }) => (claims.has(account) ? sum + amount : sum),
          0n,
        ),
      ),
    ),
    withholdingCertificates: [],
    withholdingClaims: [],
  };
}

import * as yup from 'yup';
import { isInstant } from '@/core/kernel/date';

/**
 * Answers of a receiver to an invoice, by the codes of UNCL 4343 that the public Peppol Invoice Response 3.1 takes.
 */
export const ANSWER_CODES = ['AB', 'IP', 'UQ', 'CA', 'RE', 'AP', 'PD'] as const;

export type AnswerCode = (typeof ANSWER_CODES)[number];

interface Meaning {
  /** What it says, in plain words. */
  readonly words: string;
  /** The receiver waits for something of ours. */
  readonly asks: boolean;
  /** How far the receiver is: a later stage goes before an earlier one, whenever it is heard. */
  readonly stage: number;
}

export const ANSWERS: Readonly<Record<AnswerCode, Meaning>> = {
  AB: { words: 'received', asks: false, stage: 0 },
  IP: { words: 'in process', asks: false, stage: 1 },
  UQ: { words: 'queried', asks: true, stage: 1 },
  CA: { words: 'accepted on conditions', asks: true, stage: 1 },
  RE: { words: 'rejected', asks: true, stage: 2 },
  AP: { words: 'accepted', asks: false, stage: 2 },
  PD: { words: 'paid', asks: false, stage: 3 },
};

/** Reasons of the list OPStatusReason, in words that say where to look. */
export const REASONS: Readonly<Record<string, string>> = {
  NON: 'no problem',
  REF: 'a reference is wrong or missing',
  LEG: 'something the law asks for is wrong or missing',
  REC: 'it is not for this receiver',
  QUA: 'the quality of what was supplied',
  DEL: 'the delivery',
  PRI: 'a price',
  QTY: 'a quantity',
  ITM: 'an item',
  PAY: 'the payment terms',
  UNR: 'it is not known to the receiver',
  FIN: 'the financial terms',
  PPD: 'it is paid in part',
  OTH: 'another reason',
};

/** What the receiver asks for, of the list OPStatusAction. */
export const ACTIONS: Readonly<Record<string, string>> = {
  NOA: 'nothing is asked of you',
  PIN: 'give what is missing',
  NIN: 'send a new invoice',
  CNF: 'credit it whole',
  CNP: 'credit it in part',
  CNA: 'credit the amount',
  OTH: 'something else',
};

/** An answer as it came. */
export interface Answer {
  /** The receiver's own id of it: the same one again is the same answer. */
  readonly id: string;
  readonly code: AnswerCode;
  /** Instant at which the receiver gave it. */
  readonly on: string;
  /** Codes of OPStatusReason, each with what the receiver wrote. */
  readonly reasons: readonly { readonly code: string; readonly words: string }[];
  /** Codes of OPStatusAction. */
  readonly actions: readonly string[];
}

/** Answers come from outside: they are looked at before anything is kept. */
export const answerSchema = yup.object({
  id: yup.string().required().max(200),
  code: yup.string().oneOf(ANSWER_CODES).required(),
  on: yup.string().required().test('instant', 'an instant', isInstant),
  reasons: yup
    .array()
    .of(yup.object({ code: yup.string().defined().max(20), words: yup.string().defined().max(2000) }))
    .required()
    .max(50),
  actions: yup.array().of(yup.string().required().max(20)).required().max(20),
});

/** An answer in the book. */
export interface HeardAnswer extends Answer {
  /** Instant at which it reached us. */
  readonly heardAt: string;
}

/**
 * What all answers come to: the furthest stage holds, and within a stage the answer that was given last, whatever
 * the order in which they were heard. Null while there is none.
 */
export function standingAnswer<A extends Answer>(answers: readonly A[]): A | null {
  return answers.reduce<A | null>((best, answer) => {
    if (best === null) return answer;
    const further = ANSWERS[answer.code].stage - ANSWERS[best.code].stage;
    return further > 0 || (further === 0 && answer.on >= best.on) ? answer : best;
  }, null);
}

/** An answer in one sentence: `rejected: a reference is wrong or missing (Our order is PO-17). Asked: send a new invoice.` */
export function answerWords({ code, reasons, actions }: Answer): string {
  const why = reasons.map(({ code: reason, words }) => {
    const known = REASONS[reason] ?? reason;
    return words === '' ? known : `${known} (${words})`;
  });
  const asked = actions.filter((action) => action !== 'NOA').map((action) => ACTIONS[action] ?? action);
  const sentence = [ANSWERS[code].words, why.join(', ')].filter(Boolean).join(': ');
  return asked.length === 0 ? sentence : `${sentence}. Asked: ${asked.join(', ')}`;
}

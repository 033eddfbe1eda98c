import type { Decision, Moment } from '@/core/book/changes';
import { type Content, figuresOf } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { type DocumentLink, type IssuedDocument, type QuoteAnswer, restated } from '@/core/documents/issued';
import { styleFor } from '@/core/documents/look';
import { nextNumber, type Series, seriesFor } from '@/core/documents/series';
import { registrationFor, type Setting } from '@/core/documents/setting';
import { isIsoDate } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { writeQuote } from './writeDocument';

export interface QuoteMaterial {
  readonly draft: Draft;
  readonly customer: Customer | null;
  readonly setting: Setting;
  readonly series: readonly Series[];
  /** The version that this one replaces; undefined for a first one. */
  readonly before: IssuedDocument | undefined;
}

/** What keeps a quote from being followed by a new version, or null. */
export function versionFault(before: IssuedDocument) {
  if (before.quote?.replacedBy) return { code: 'replaced', path: '', by: before.quote.replacedBy.number } as const;
  if (before.quote !== null && before.quote.billed !== 0n) return { code: 'billed', path: '' } as const;
  return null;
}

/**
 * Sends a quote: number, frozen content, seal. A draft that came from a sent quote becomes its next
 * version under the same number, and the old one stays, marked as replaced.
 */
export function sendQuote(material: QuoteMaterial, moment: Moment): Decision<DocumentLink> {
  const { draft, customer, setting, before } = material;
  const registrationId = registrationFor(setting, draft.registrationId)?.id ?? '';
  const series = seriesFor(material.series, 'quote', registrationId);
  if (series === undefined) return refuse({ code: 'not-found', path: '' });
  const fault = before === undefined ? null : versionFault(before);
  if (fault !== null) return refuse(fault);
  const number = before?.number ?? (isIsoDate(draft.issueDate) ? nextNumber(series, draft.issueDate) : '');
  const frozen = freezeDraft(draft, number, customer, setting);
  if (!frozen.ok) return frozen;
  const version = (before?.content.version ?? 0) + 1;
  const content: Content = { ...frozen.value, version };
  if (figuresOf(content).totals.payable < 0n)
    return refuse({ code: 'invalid', path: 'lines', wanted: 'quote-above-zero' });
  const style = styleFor(setting.styles, draft.styleId, customer?.styleId ?? '', setting.business.styleId);
  const written = writeQuote(content, series, { ...draft, style }, moment);
  if (!written.ok) return written;
  const { document, look } = written.value;
  const link = { id: document.id, number };
  const replaced =
    before === undefined
      ? []
      : [restated({ ...before, quote: { answer: null, billed: NOTHING, ...before.quote, replacedBy: link } })];
  return accept({
    value: link,
    changes: {
      add: { documents: [document] },
      put: {
        series: [written.value.series],
        ...(look !== null && { looks: [look] }),
        ...(replaced.length > 0 && { documents: replaced }),
      },
      remove: { drafts: [draft.id] },
      audit: {
        subject: version === 1 ? number : `${number}, version ${version}`,
        about: [document.id, document.customerId, ...(before === undefined ? [] : [before.id])],
        after: { customer: document.customerName, total: document.figures.totals.payable },
      },
    },
  });
}

/** Writes down what a customer said to a quote. A quote that lapsed may still be accepted. */
export function answerQuote(document: IssuedDocument, answer: QuoteAnswer): Decision<null> {
  const { quote } = document;
  if (quote === null)
    return refuse({ code: 'wrong-kind', path: 'documentId', number: document.number, takes: 'quote' });
  const fault = versionFault(document);
  if (fault !== null) return refuse(fault);
  if (answer.words.trim() === '')
    return refuse({
      code: 'missing',
      path: 'words',
      wanted: answer.kind === 'accepted' ? 'say-who-accepted' : 'say-why-declined',
    });
  if (!isIsoDate(answer.on) || answer.on < document.issueDate)
    return refuse({ code: 'invalid', path: 'on', wanted: 'day-not-before-quote', found: answer.on });
  const kept = { ...answer, words: answer.words.trim() };
  return accept({
    value: null,
    changes: {
      put: { documents: [restated({ ...document, quote: { ...quote, answer: kept } })] },
      audit: {
        subject: document.number,
        about: [document.id, document.customerId],
        ...(quote.answer !== null && { before: quote.answer }),
        after: kept,
      },
    },
  });
}

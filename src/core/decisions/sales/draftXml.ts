import { type Content, figuresOf } from '@/core/documents/content';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { readEInvoiceText, writeEInvoice } from '@/core/einvoice/syntax';
import type { TermId } from '@/core/einvoice/terms';
import { groupsIn, type ViewGroup, viewOf } from '@/core/einvoice/view';
import { fieldOf, lineFieldOf } from './fields';

/** A field of a draft and the line of its e-invoice, from 1, that says what was written there. */
export interface XmlPlace {
  readonly field: string;
  readonly line: number;
}

/** The e-invoice of a document as text, with the lines that its fields lead to. */
export interface DraftXml {
  readonly xml: string;
  readonly places: readonly XmlPlace[];
}

function placesIn(group: ViewGroup, field: (term: TermId) => string | undefined): readonly XmlPlace[] {
  const own = group.terms.flatMap(({ id, line }) => {
    const to = field(id);
    return to === undefined ? [] : [{ field: to, line }];
  });
  const inner = group.groups.filter(({ id }) => id !== 'BG-25').flatMap((one) => placesIn(one, field));
  return [...own, ...inner];
}

/** Writes the UBL of what a draft says now, and finds where each of its fields stands in it. */
export function draftXml(content: Content): DraftXml {
  const xml = writeEInvoice(einvoiceOf(content, figuresOf(content)), 'ubl');
  const read = readEInvoiceText(xml);
  if (!read.ok) return { xml, places: [] };
  const view = viewOf(read.value.invoice);
  const lines = groupsIn(view, 'BG-25').flatMap((line, i) => placesIn(line, (term) => lineFieldOf(term, i)));
  return { xml, places: [...placesIn(view, fieldOf), ...lines] };
}

import type { Decision } from '@/core/book/changes';
import { type Attachment, LARGEST_ATTACHMENT } from '@/core/documents/attachment';
import { type SavedView, savedViewSchema } from '@/core/documents/documentFilter';
import { documentWords, type IssuedDocument } from '@/core/documents/issued';
import { lookOf } from '@/core/documents/look';
import type { DocumentStyle } from '@/core/documents/style';
import { CODES } from '@/core/einvoice/codes';
import { isIsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';

/** Writes down that a document went out by other ways than this program. */
export function markSent(document: IssuedDocument, on: string, how: string): Decision<null> {
  if (document.cancelled !== null) return refuse({ code: 'settled', path: '', by: 'cancelled' });
  if (!isIsoDate(on) || on < document.issueDate)
    return refuse({ code: 'invalid', path: 'on', wanted: 'day-not-before-document', found: on });
  return accept({
    value: null,
    changes: {
      put: { documents: [{ ...document, sentOn: on }] },
      audit: { subject: document.number, about: [document.id], after: { sent: on, how: how.trim() } },
    },
  });
}

/**
 * Changes what stands beside an issued document and is not sealed: remarks, tags, style. Another
 * style, as it is now, becomes the look of the document.
 */
export function annotate(
  document: IssuedDocument,
  beside: Pick<IssuedDocument, 'remarks' | 'tags' | 'styleId'>,
  style: DocumentStyle,
): Decision<null> {
  const { remarks, tags, styleId } = document;
  const look = beside.styleId === styleId || style.id === '' ? null : lookOf(style);
  const lookId = beside.styleId === styleId ? document.lookId : (look?.id ?? '');
  const words = documentWords(document.content, document.figures, beside);
  return accept({
    value: null,
    changes: {
      put: {
        documents: [{ ...document, ...beside, lookId, words }],
        ...(look !== null && { looks: [look] }),
      },
      audit: {
        subject: document.number,
        about: [document.id],
        before: { remarks, tags, styleId },
        after: beside,
      },
    },
  });
}

/** Keeps a file with a draft, a document or a customer. */
export function attach(file: Attachment): Decision<Attachment> {
  if (file.size > LARGEST_ATTACHMENT)
    return refuse({
      code: 'invalid',
      path: 'file',
      wanted: 'file-of-10-mib',
      found: file.name,
    });
  return accept({
    value: file,
    changes: {
      add: { attachments: [file] },
      audit: { subject: file.name, about: [file.ownerId], after: { size: file.size, type: file.type } },
    },
  });
}

/** Lets a file go out inside the e-invoice of its document, or keeps it at home. */
export function letOut(file: Attachment | undefined, goesOut: boolean): Decision<null> {
  if (file === undefined) return refuse({ code: 'not-found', path: '' });
  if (goesOut && !CODES.mimeTypes.has(file.type))
    return refuse({
      code: 'invalid',
      path: 'file',
      wanted: 'file-an-e-invoice-takes',
      found: file.name,
    });
  return accept({
    value: null,
    changes: {
      put: { attachments: [{ ...file, goesOut }] },
      audit: { subject: file.name, about: [file.ownerId], before: { goesOut: file.goesOut }, after: { goesOut } },
    },
  });
}

/** Takes an attached file out again. */
export function detach(file: Attachment | undefined): Decision<null> {
  if (file === undefined) return refuse({ code: 'not-found', path: '' });
  return accept({
    value: null,
    changes: {
      remove: { attachments: [file.id] },
      audit: { subject: file.name, about: [file.ownerId], before: { size: file.size, type: file.type } },
    },
  });
}

/** Keeps a filter under its name. */
export function saveView(view: SavedView): Decision<SavedView> {
  const checked = validated<SavedView>(savedViewSchema, view);
  if (!checked.ok) return checked;
  return accept({ value: view, changes: { put: { savedViews: [view] }, audit: null } });
}

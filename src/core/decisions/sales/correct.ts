import type { Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import type { Attachment } from '@/core/documents/attachment';
import type { Draft } from '@/core/documents/draft';
import { correctionOf } from '@/core/documents/draftFrom';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { accept } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { type CreditMaterial, credit } from './credit';
import { beginDraft } from './draft';

/**
 * Puts a wrong invoice right: a credit note over all that is left of it, and a new draft that says
 * what it said, with its terms, remarks and files, in one step.
 */
export function correct(
  material: CreditMaterial & {
    readonly customer: Customer;
    readonly setting: Setting;
    /** Files of the invoice. */
    readonly files: readonly Attachment[];
  },
  { date, reason }: { readonly date: IsoDate; readonly reason: string },
  moment: Moment,
): Decision<{ readonly note: string; readonly draftId: string }> {
  const { invoice, customer, setting, files } = material;
  const credited = credit(material, { kind: 'rest' }, { date, reason }, moment);
  if (!credited.ok) return credited;
  const draft: Draft = correctionOf(invoice, moment.newId(), date, customer.terms);
  const kept = beginDraft(draft, files, customer, setting, moment);
  if (!kept.ok) return kept;
  return accept({
    value: { note: credited.value.value.number, draftId: draft.id },
    changes: joinChanges(credited.value, { changes: kept.value.changes, action: 'begin draft' }),
  });
}

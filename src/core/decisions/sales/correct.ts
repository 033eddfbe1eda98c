import type { Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import type { Draft } from '@/core/documents/draft';
import { correctionOf } from '@/core/documents/draftFrom';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { accept } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { type CreditMaterial, credit } from './credit';
import { NOTHING_STORED, saveDraft } from './draft';

/**
 * Puts a wrong invoice right: a credit note over all that is left of it, and a new draft that says
 * what it said, in one step.
 */
export function correct(
  material: CreditMaterial & { readonly customer: Customer; readonly setting: Setting },
  { date, reason }: { readonly date: IsoDate; readonly reason: string },
  moment: Moment,
): Decision<{ readonly note: string; readonly draftId: string }> {
  const { invoice, customer, setting } = material;
  const credited = credit(material, { kind: 'rest' }, { date, reason }, moment);
  if (!credited.ok) return credited;
  const draft: Draft = correctionOf(invoice, moment.newId(), date, customer.terms);
  const kept = saveDraft(draft, NOTHING_STORED, customer, setting, moment);
  if (!kept.ok) return kept;
  return accept({
    value: { note: credited.value.value.number, draftId: draft.id },
    changes: joinChanges(credited.value, { changes: kept.value.changes, action: 'begin draft' }),
  });
}

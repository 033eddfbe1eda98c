import type { Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import type { Draft } from '@/core/documents/draft';
import { holdTaxes } from '@/core/documents/draftTaxes';
import { datesOf } from '@/core/documents/lineTax';
import { preview } from '@/core/documents/preview';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { accept } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { type Tax, type TaxRate, withRate } from '@/core/tax/tax';
import { prepareSetup } from '@/core/tax/taxSetup';
import { saveRecord } from '../setup/records';

/** A draft with what it is written against. */
export interface DraftMaterial {
  readonly draft: Draft;
  readonly customer: Customer | null;
  readonly setting: Setting;
}

/** What a rate change would do to one draft. Amounts in minor units of its currency. */
export interface DraftEffect {
  readonly draftId: string;
  readonly customerName: string;
  readonly taxPoint: IsoDate;
  readonly before: Minor;
  readonly after: Minor;
}

/** The setting as it will be once the tax has the rate. */
function changed(setting: Setting, tax: Tax, rate: TaxRate): Setting {
  const { setup } = setting;
  const taxes = setup.taxes.map((t) => (t.id === tax.id ? withRate(t, rate) : t));
  return { ...setting, setup: prepareSetup({ ...setup, taxes }) };
}

/** What the change does to a draft; null when the draft does not carry the tax on such a day. */
export function effectOn({ draft, customer, setting }: DraftMaterial, tax: Tax, rate: TaxRate): DraftEffect | null {
  const { taxPoint } = datesOf(draft);
  if (taxPoint === null || taxPoint < rate.from) return null;
  const before = preview(draft, customer, setting);
  const after = preview({ ...draft, held: null }, customer, changed(setting, tax, rate));
  const moved = after.taxes.some((t) => {
    const old = before.taxes.find((o) => o.code === t.code)?.components ?? [];
    return t.components?.some((c) => c.taxId === tax.id && old.find((o) => o.taxId === c.taxId)?.percent !== c.percent);
  });
  if (!moved) return null;
  return {
    draftId: draft.id,
    customerName: customer?.name ?? '',
    taxPoint,
    before: before.figures.totals.payable,
    after: after.figures.totals.payable,
  };
}

/**
 * Gives a tax a new rate. Chosen drafts take it; other drafts keep the rates they have, and say so
 * when they are opened or issued.
 */
export function changeRate(
  tax: Tax,
  rate: TaxRate,
  chosen: ReadonlySet<string>,
  material: {
    readonly drafts: readonly DraftMaterial[];
    readonly records: Setting['setup'];
    readonly usedUntil: IsoDate | null;
  },
  moment: Moment,
): Decision<{ readonly taken: number; readonly kept: number }> {
  const { drafts, records, usedUntil } = material;
  const saved = saveRecord('taxes', withRate(tax, rate), { before: tax, isNew: false, records, usedUntil });
  if (!saved.ok) return saved;
  const touched = drafts.filter((one) => effectOn(one, tax, rate) !== null);
  const rewritten = touched.map(({ draft, customer, setting }): Draft => {
    const takes = chosen.has(draft.id);
    const held = takes
      ? holdTaxes({ ...draft, held: null }, customer, changed(setting, tax, rate))
      : holdTaxes(draft, customer, setting);
    return { ...draft, held, revision: draft.revision + 1, savedAt: moment.now };
  });
  const taken = touched.filter(({ draft }) => chosen.has(draft.id)).length;
  return accept({
    value: { taken, kept: touched.length - taken },
    changes: joinChanges(saved.value, {
      changes: {
        put: { drafts: rewritten },
        audit: {
          subject: tax.name,
          after: { rate, draftsThatTakeIt: taken, draftsThatKeepTheirs: touched.length - taken },
        },
      },
    }),
  });
}

import { type EInvoice, type Group, groupsOf, textOf } from '../model';
import { type GroupId, groupName, type TermId, termName } from '../terms';
import data from './flavours.json';
import { en, type Rule, says } from './rule';

/* What single countries and sectors ask for beyond the standard, as data: they only add, never loosen. */

interface Need {
  readonly id: string;
  /** Way of groups from the document to where it has to stand. */
  readonly in: readonly GroupId[];
  /** The term that has to be there, or the group. */
  readonly term?: TermId;
  readonly group?: GroupId;
}

interface Flavour {
  readonly name: string;
  readonly edition: string;
  /** Texts by which the specification identifier (BT-24) names it. */
  readonly marks: readonly string[];
  readonly needs: readonly Need[];
}

const FLAVOURS = data as readonly Flavour[];

/** The flavour that an e-invoice says it keeps (BT-24); undefined for none that is known. */
export function flavourOf(invoice: EInvoice): Flavour | undefined {
  const specification = textOf(invoice, 'BT-24');
  return FLAVOURS.find(({ marks }) => marks.some((mark) => specification.includes(mark)));
}

const atEndOf = (from: Group, way: readonly GroupId[]): readonly Group[] =>
  way.reduce<readonly Group[]>((groups, id) => groups.flatMap((one) => groupsOf(one, id)), [from]);

function ruleOf(flavour: Flavour, { id, in: way, term, group }: Need): Rule {
  const name = term === undefined ? groupName(group ?? 'ROOT') : termName(term);
  const there = (one: Group) =>
    term === undefined ? group === undefined || groupsOf(one, group).length > 0 : says(one, term);
  return en(id, {
    term: term ?? group ?? 'ROOT',
    demands: `${flavour.name} asks for the ${name}.`,
    test: function* ({ invoice }) {
      if (flavourOf(invoice) !== flavour) return;
      for (const one of atEndOf(invoice, way))
        if (!there(one)) yield { in: one, message: `Enter the ${name}: ${flavour.name} asks for it.` };
    },
  });
}

export const FLAVOUR_RULES: readonly Rule[] = FLAVOURS.flatMap((flavour) =>
  flavour.needs.map((need) => ruleOf(flavour, need)),
);
